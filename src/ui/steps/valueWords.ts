import type { ValueKind } from '@/core/edit/values';
import { CONTROL_RANGES, type Control } from '@/core/document/moves';
import { PPQ } from '@/core/time/ticks';
import { REPEAT_RATES } from '@/core/quantize/grid';

export const KIND_NAMES: Record<ValueKind, string> = {
  velocity: 'Velocity',
  pitch: 'Pitch',
  odds: 'Odds',
  roll: 'Roll',
  swell: 'Roll swell',
  glide: 'Roll glide',
  nudge: 'Nudge',
  length: 'Length',
};

/** How a value is shown and typed: times `scale`, with so many `digits` after the point at most, and its unit. */
export interface Shown {
  scale: number;
  digits: number;
  unit: string;
}

/**
 * @param tempo BPM: a nudge is told in ms
 * @param step ticks: a length is told in steps
 */
export function shownValue(kind: ValueKind, tempo: number, step: number): Shown {
  switch (kind) {
    case 'velocity':
      return { scale: 127, digits: 0, unit: '' };
    case 'pitch':
    case 'glide':
      return { scale: 1, digits: 2, unit: 'semitones' };
    case 'odds':
    case 'swell':
      return { scale: 100, digits: 0, unit: '%' };
    case 'roll':
      return { scale: 1, digits: 0, unit: 'strokes' };
    case 'nudge':
      return { scale: 60000 / (tempo * PPQ), digits: 1, unit: 'ms' };
    case 'length':
      return { scale: 1 / step, digits: 2, unit: 'steps' };
  }
}

export const SHOWN_CONTROLS: Record<Exclude<Control, 'rate'>, Shown> = {
  pitch: { scale: 1, digits: 2, unit: 'semitones' },
  filter: { scale: 1, digits: 2, unit: 'octaves' },
  decay: { scale: 1, digits: 2, unit: 'octaves' },
  level: { scale: 100, digits: 0, unit: '%' },
  pan: { scale: 100, digits: 0, unit: '%' },
  drive: { scale: 1, digits: 1, unit: 'dB' },
  room: { scale: 100, digits: 0, unit: '%' },
  resonance: { scale: 1, digits: 2, unit: 'octaves' },
  start: { scale: 100, digits: 1, unit: '%' },
  pressure: { scale: 100, digits: 0, unit: '%' },
  bright: { scale: 100, digits: 0, unit: '%' },
};

export function numberText(value: number, { scale, digits }: Shown): string {
  const factor = 10 ** digits;
  return String(Math.round(value * scale * factor) / factor + 0);
}

/** A control's value in words. */
export function controlWords(control: Control, value: number): string {
  if (control === 'rate') return REPEAT_RATES[Math.round(value)] ?? '';
  const shown = SHOWN_CONTROLS[control];
  const text = numberText(value, shown);
  const sign = value > 0 && CONTROL_RANGES[control].min < 0 ? '+' : '';
  return `${sign}${text} ${shown.unit}`;
}

/** Reads typed text as a value; NaN when it is no number. */
export function typedValue(text: string, { scale }: Shown): number {
  const plain = text.replace(',', '.').replace(/[%+]/g, '').trim();
  return plain === '' ? NaN : Number(plain) / scale;
}
