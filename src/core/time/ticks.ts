/** Ticks to the quarter note. Every musical position and length in Chaffinch is counted in these. */
export const PPQ = 960;

/** Slowest and fastest tempo, in quarter notes per minute. */
export const MIN_TEMPO = 20;
export const MAX_TEMPO = 300;

/** A time signature: `beats` notes of value 1/`unit` to the bar. */
export interface Meter {
  beats: number;
  unit: number;
}

/**
 * Length of one beat of the meter, in ticks (4/4: 960; 6/8: 480).
 * @example ticksPerBeat({ beats: 6, unit: 8 }) // 480
 */
export function ticksPerBeat(meter: Meter): number {
  return (PPQ * 4) / meter.unit;
}

/**
 * Length of one bar, in ticks (4/4: 3840).
 * @example ticksPerBar({ beats: 7, unit: 8 }) // 3360
 */
export function ticksPerBar(meter: Meter): number {
  return meter.beats * ticksPerBeat(meter);
}

/**
 * Length of what a conductor beats, in ticks: three beats of a compound meter (6/8, 9/8, 12/8: common practice), one
 * beat of any other.
 * @example ticksPerPulse({ beats: 6, unit: 8 }) // 1440, a dotted quarter
 */
export function ticksPerPulse(meter: Meter): number {
  const isCompound = meter.unit >= 8 && meter.beats > 3 && meter.beats % 3 === 0;
  return ticksPerBeat(meter) * (isCompound ? 3 : 1);
}

/**
 * Audio frames that one tick lasts.
 * @param tempo quarter notes per minute
 * @param sampleRate frames per second
 * @example framesPerTick(120, 48000) // 25
 */
export function framesPerTick(tempo: number, sampleRate: number): number {
  return (sampleRate * 60) / (tempo * PPQ);
}

/**
 * Milliseconds that `ticks` last at `tempo` (a quarter lasts 60000/tempo ms).
 * @example ticksToMs(960, 112) // 535.714
 */
export function ticksToMs(ticks: number, tempo: number): number {
  return (ticks * 60000) / (tempo * PPQ);
}

/**
 * Ticks that pass in `ms` at `tempo`.
 * @example msToTicks(500, 120) // 960
 */
export function msToTicks(ms: number, tempo: number): number {
  return (ms * tempo * PPQ) / 60000;
}

/**
 * Mathematical modulo: the result has the sign of `n` (always 0 <= r < n for n > 0).
 * @example mod(-10, 3840) // 3830
 */
export function mod(x: number, n: number): number {
  return x - n * Math.floor(x / n);
}

/** Ticks nearer than this are equal: far less than a sample at any tempo, far more than rounding errors after days. */
export const SAME_TICKS = 1e-6;
