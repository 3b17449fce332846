import { SOUND_NUMBERS, type NumberSetting, type SoundSettings } from '@/core/document/sound';
import { ownDecay, ownValue, type Sounding } from '@/core/shelf/ownValues';

/** How a number of a sound is shown and set. */
export interface StripFacts {
  /** How the strip runs from its left end to its right: evenly, or by equal ratios. */
  runs: 'evenly' | 'by ratio' | 'by square';
  /** From the value to the number that is shown and typed, with its unit. */
  shown: (value: number, source: Sounding) => { number: number; unit: string };
  /** Back again; `unit` is the one that is shown now. */
  read: (number: number, source: Sounding, unit: string) => number;
  /** One step of the arrow keys, in values. */
  step: number;
  decimals: number;
}

const plain = (unit: string, scale = 1): Pick<StripFacts, 'shown' | 'read'> => ({
  shown: (value) => ({ number: value * scale, unit }),
  read: (number) => number / scale,
});

const isSample = (source: Sounding) => 'sample' in source;

/** A place in a sample: a share of it, shown as its time. */
const ofSample: Pick<StripFacts, 'shown' | 'read'> = {
  shown: (value, source) => ({ number: 1000 * ownDecay(source) * value, unit: 'ms' }),
  read: (number, source) => number / 1000 / ownDecay(source),
};

/** All numbers of a sound, as strips. */
export const STRIPS: Record<NumberSetting, StripFacts> = {
  pitch: { runs: 'evenly', ...plain('st'), step: 1, decimals: 2 },
  start: { runs: 'evenly', ...ofSample, step: 0.001, decimals: 0 },
  end: { runs: 'evenly', ...ofSample, step: 0.001, decimals: 0 },
  decay: {
    runs: 'evenly',
    shown: (value, source) =>
      isSample(source)
        ? { number: 100 * 2 ** Math.min(0, value), unit: '%' }
        : { number: 1000 * ownDecay(source) * 2 ** value, unit: 'ms' },
    read: (number, source) => Math.log2(isSample(source) ? number / 100 : number / 1000 / ownDecay(source)),
    step: 0.1,
    decimals: 0,
  },
  cutoff: {
    runs: 'by ratio',
    shown: (value) => (value < 1000 ? { number: value, unit: 'Hz' } : { number: value / 1000, unit: 'kHz' }),
    read: (number, _, unit) => (unit === 'kHz' && number <= 20 ? number * 1000 : number),
    step: 1 / 12,
    decimals: 1,
  },
  drive: { runs: 'evenly', ...plain('dB'), step: 0.5, decimals: 1 },
  level: { runs: 'evenly', ...plain('dB'), step: 0.5, decimals: 1 },
  pan: { runs: 'evenly', ...plain('%', 100), step: 0.02, decimals: 0 },
  room: { runs: 'evenly', ...plain('%', 100), step: 0.01, decimals: 0 },
  attack: { runs: 'by square', ...plain('ms', 1000), step: 0.002, decimals: 0 },
  hold: { runs: 'by square', ...plain('ms', 1000), step: 0.005, decimals: 0 },
  resonance: { runs: 'by ratio', ...plain(''), step: 1 / 12, decimals: 1 },
  filterKey: { runs: 'evenly', ...plain('%', 100), step: 0.05, decimals: 0 },
  filterVelocity: { runs: 'evenly', ...plain('oct'), step: 0.1, decimals: 1 },
  response: { runs: 'evenly', ...plain('%', 100), step: 0.05, decimals: 0 },
  variation: { runs: 'evenly', ...plain('%', 100), step: 0.05, decimals: 0 },
  voices: { runs: 'evenly', ...plain(''), step: 1, decimals: 0 },
  bright: { runs: 'evenly', ...plain('%', 100), step: 0.05, decimals: 0 },
  motion: { runs: 'evenly', ...plain('%', 100), step: 0.05, decimals: 0 },
  width: { runs: 'evenly', ...plain('%', 100), step: 0.05, decimals: 0 },
  release: { runs: 'by square', ...plain('ms', 1000), step: 0.01, decimals: 0 },
  glide: { runs: 'by square', ...plain('ms', 1000), step: 0.005, decimals: 0 },
};

/** The least and the most of a number: a sample has no more of its decay than all of itself. */
export function rangeOf(setting: NumberSetting, source: Sounding): { min: number; max: number } {
  const { min, max } = SOUND_NUMBERS[setting];
  return { min, max: setting === 'decay' && isSample(source) ? 0 : max };
}

/** Where on its strip a value lies, 0..1. */
export function shareOf(setting: NumberSetting, value: number, source: Sounding): number {
  const { min, max } = rangeOf(setting, source);
  const { runs } = STRIPS[setting];
  if (runs === 'by ratio') return Math.log(value / min) / Math.log(max / min);
  const share = Math.min(1, (value - min) / (max - min));
  return runs === 'by square' ? Math.sqrt(share) : share;
}

/** The value at a place of the strip, on its own small steps. */
export function valueAt(setting: NumberSetting, share: number, source: Sounding): number {
  const { min, max } = rangeOf(setting, source);
  const { runs } = STRIPS[setting];
  const at = Math.min(1, Math.max(0, share));
  if (runs === 'by ratio') return tidy(setting, min * (max / min) ** at, source);
  return tidy(setting, min + (max - min) * (runs === 'by square' ? at * at : at), source);
}

/** So many steps of the keys further. */
export function stepped(setting: NumberSetting, value: number, steps: number, source: Sounding): number {
  const { step, runs } = STRIPS[setting];
  return tidy(setting, runs === 'by ratio' ? value * 2 ** (steps * step) : value + steps * step, source);
}

/** Within its bounds, and no more digits than mean anything. */
export function tidy(setting: NumberSetting, value: number, source: Sounding): number {
  const { min, max } = rangeOf(setting, source);
  const within = Math.min(max, Math.max(min, value));
  if (setting === 'voices') return Math.round(within);
  if (setting === 'cutoff') return within >= max * 0.995 ? max : Number(within.toPrecision(4));
  // A sample may be long, and is cut where it is to be cut.
  if (setting === 'start' || setting === 'end') return within;
  return Math.round(within * 1000) / 1000;
}

/** The number as it is shown and typed, without its unit. */
export function numberText(setting: NumberSetting, number: number): string {
  const { decimals } = STRIPS[setting];
  const text = number.toFixed(Math.abs(number) >= 100 ? 0 : decimals);
  return setting === 'pitch' && number > 0 ? `+${text}` : text;
}

/** What a setting is now: what the player has made of it, or the source's own. */
export function settingNow(setting: NumberSetting, source: Sounding, settings: SoundSettings): number {
  // What it was taken with lies in its settings, until they are changed.
  return settings[setting] ?? ownValue(source, setting);
}
