import { MIX_RANGES, ROOM_RANGES, type MixControl } from '@/core/document/mix';
import { ECHO_TIME_NAMES, type MovedReturn } from '@/core/document/returns';
import type { ValueScale } from '../shared/ValueStrip';

/** Softer than this is off, dB. */
const OFF = -60;

interface Facts {
  /** Evenly along the strip, or by equal ratios. */
  runs: 'evenly' | 'by ratio';
  unit: string;
  /** The number that is shown is the value times this. */
  times?: number;
  step: number;
  decimals: number;
  /** With a plus where it is above 0. */
  signed?: true;
}

const SHARE: Facts = { runs: 'evenly', unit: '%', times: 100, step: 0.01, decimals: 0 };
const GAIN: Facts = { runs: 'evenly', unit: 'dB', step: 0.5, decimals: 1, signed: true };

const FACTS: Record<Exclude<MixControl, 'level'>, Facts> = {
  pan: { ...SHARE, step: 0.02, signed: true },
  low: GAIN,
  bell: GAIN,
  bellHz: { runs: 'by ratio', unit: 'Hz', step: 1 / 12, decimals: 0 },
  bellQ: { runs: 'by ratio', unit: '', step: 1 / 6, decimals: 1 },
  high: GAIN,
  threshold: { runs: 'evenly', unit: 'dB', step: 0.5, decimals: 1 },
  ratio: { runs: 'by ratio', unit: ': 1', step: 1 / 6, decimals: 1 },
  attack: { runs: 'by ratio', unit: 'ms', step: 1 / 4, decimals: 1 },
  release: { runs: 'by ratio', unit: 'ms', step: 1 / 4, decimals: 0 },
  makeUp: { runs: 'evenly', unit: 'dB', step: 0.5, decimals: 1 },
  knee: { runs: 'evenly', unit: 'dB', step: 1, decimals: 0 },
  drive: SHARE,
  filter: { ...SHARE, step: 0.02, signed: true },
  room: SHARE,
  echo: SHARE,
  duck: { runs: 'evenly', unit: 'dB', step: 1, decimals: 0 },
  duckTime: { runs: 'by ratio', unit: 'ms', step: 1 / 4, decimals: 0 },
};

/** How a control of a channel lies on its strip. */
export function mixScale(control: Exclude<MixControl, 'level'>): ValueScale {
  return scaleOf(MIX_RANGES[control], FACTS[control]);
}

/** A share, 0..1. */
export const SHARE_SCALE = scaleOf({ min: 0, max: 1 }, SHARE);

/** Time in ms between `min` and `max`. */
export function msScale(range: { min: number; max: number }): ValueScale {
  return scaleOf(range, { runs: 'by ratio', unit: 'ms', step: 1 / 12, decimals: 0 });
}

/** Note values by their places in ECHO_TIME_NAMES. */
const TIME_SCALE: ValueScale = {
  ...scaleOf({ min: 0, max: ECHO_TIME_NAMES.length - 1 }, { runs: 'evenly', unit: '', step: 1, decimals: 0 }),
  at: (share) => Math.round(Math.min(1, Math.max(0, share)) * (ECHO_TIME_NAMES.length - 1)),
  text: (place) => ECHO_TIME_NAMES[place] ?? '',
};

const RETURN_SCALES: Record<MovedReturn['control'], ValueScale> = {
  time: TIME_SCALE,
  feedback: SHARE_SCALE,
  tone: SHARE_SCALE,
  size: scaleOf(ROOM_RANGES.size, { runs: 'by ratio', unit: 's', step: 1 / 12, decimals: 2 }),
  damping: SHARE_SCALE,
  width: SHARE_SCALE,
  preDelay: scaleOf(ROOM_RANGES.preDelay, { runs: 'evenly', unit: 'ms', step: 1, decimals: 0 }),
};

/** How a control of the echo or the room lies on its strip. */
export function returnScale({ control }: MovedReturn): ValueScale {
  return RETURN_SCALES[control];
}

function scaleOf(
  { min, max }: { min: number; max: number },
  { runs, unit, times = 1, step, decimals, signed }: Facts,
): ValueScale {
  const tidy = (value: number) => Math.round(Math.min(max, Math.max(min, value)) * 1000) / 1000;
  return {
    min,
    max,
    share: (value) => (runs === 'by ratio' ? Math.log(value / min) / Math.log(max / min) : (value - min) / (max - min)),
    at: (share) => {
      const at = Math.min(1, Math.max(0, share));
      return tidy(runs === 'by ratio' ? min * (max / min) ** at : min + (max - min) * at);
    },
    stepped: (value, steps) => tidy(runs === 'by ratio' ? value * 2 ** (steps * step) : value + steps * step),
    shown: (value) => ({ number: value * times, unit }),
    text: (number) => {
      const text = number.toFixed(Math.abs(number) >= 100 ? 0 : decimals);
      return signed && number > 0 ? `+${text}` : text;
    },
    read: (number) => tidy(number / times),
  }; // prettier-ignore
}

/** A level 0..1, shown in dB: half of the strip is 12 dB down. */
export const LEVEL_SCALE: ValueScale = {
  min: 0,
  max: 1,
  share: (level) => Math.sqrt(level),
  at: (share) => Math.min(1, Math.max(0, share)) ** 2,
  stepped: (level, steps) => {
    const softest = 10 ** (OFF / 20);
    if (level < softest) return steps > 0 ? softest : 0;
    const next = level * 10 ** (steps / 40);
    return next < softest ? 0 : Math.min(1, next);
  },
  shown: (level) => ({ number: level > 0 ? Math.max(OFF, 20 * Math.log10(level)) : OFF, unit: 'dB' }),
  text: (number) => (number <= OFF ? 'off' : number.toFixed(1)),
  read: (number) => (number <= OFF ? 0 : Math.min(1, 10 ** (number / 20))),
};
