import { PPQ } from '../time/ticks';

/** What a low-frequency oscillator can move in a sound. */
export const LFO_TARGETS = ['pitch', 'filter', 'level', 'pan', 'decay'] as const;
export type LfoTarget = (typeof LFO_TARGETS)[number];

export const LFO_SHAPES = ['sine', 'triangle', 'sawUp', 'sawDown', 'square', 'random'] as const;
export type LfoShape = (typeof LFO_SHAPES)[number];

/** What starts its cycle: it is locked to the song, or begins anew with each stroke. */
export const LFO_STARTS = ['song', 'stroke'] as const;
export type LfoStart = (typeof LFO_STARTS)[number];

/** The lengths of a cycle by their note values, longest first: D is dotted (one and a half), T a triplet (three in the time of two). */
export const LFO_NOTES = ['1/1', '1/2D', '1/1T', '1/2', '1/4D', '1/2T', '1/4', '1/8D', '1/4T', '1/8', '1/16D', '1/8T', '1/16', '1/32D', '1/16T', '1/32', '1/32T'] as const; // prettier-ignore
export type LfoNote = (typeof LFO_NOTES)[number];

export const LFO_HZ = { min: 0.02, max: 30 } as const;

/** A slow wave that moves one thing of a sound between two ends. */
export interface Lfo {
  moves: LfoTarget;
  shape: LfoShape;
  /** Its cycle as a note value, or, where that is absent, in Hz. */
  note?: LfoNote;
  hz?: number;
  /** What the wave reaches at its lowest and at its highest: semitones, octaves, dB, -1..1, octaves (see `LFO_REACH`). */
  low: number;
  high: number;
  start: LfoStart;
}

export const MOST_LFOS = 2;

/** How far each target can be moved from where the sound has it. */
export const LFO_REACH: Record<LfoTarget, { min: number; max: number; step: number; unit: string }> = {
  pitch: { min: -24, max: 24, step: 0.1, unit: 'st' },
  filter: { min: -6, max: 6, step: 0.1, unit: 'oct' },
  level: { min: -48, max: 0, step: 0.5, unit: 'dB' },
  pan: { min: -1, max: 1, step: 0.01, unit: '' },
  decay: { min: -4, max: 1, step: 0.05, unit: 'oct' },
};

/** The reach that a target begins with: enough to be heard at once. */
export const FIRST_REACH: Record<LfoTarget, { low: number; high: number }> = {
  pitch: { low: -1, high: 1 },
  filter: { low: -3, high: 0 },
  level: { low: -12, high: 0 },
  pan: { low: -0.5, high: 0.5 },
  decay: { low: -1, high: 0 },
};

/** The wave that is added first: a slow pitch, locked to eighths. */
export const FIRST_LFO: Lfo = { moves: 'pitch', shape: 'sine', note: '1/8', ...FIRST_REACH.pitch, start: 'song' };

/**
 * Ticks of one cycle of a note value.
 * @example lfoTicks('1/8') // 480
 * @example lfoTicks('1/4T') // 640
 */
export function lfoTicks(note: LfoNote): number {
  const straight = (4 * PPQ) / parseInt(note.slice(2), 10);
  if (note.endsWith('D')) return (straight * 3) / 2;
  return note.endsWith('T') ? (straight * 2) / 3 : straight;
}
