import type { WaveName } from './waves';

/** One of the waves that a note is made of. */
export interface Oscillator {
  /** A wave that is read from its table, or a sine that another sine may modulate. */
  wave: WaveName | 'sine';
  /** Of its pitch to the note's. */
  ratio: number;
  level: number;
  /** Cents that it is higher at full motion: several that differ beat with each other. */
  detune: number;
  /** -1 left .. 1 right, at full width. */
  pan: number;
  /** Share of a cycle at which it begins. */
  phase: number;
  /** Seconds to -60 dB at middle C, besides the note's envelope; Infinity: it stays. */
  decay: number;
  /** How much of its level, or of its modulation, velocity and *bright* bring: 0..1. */
  hardness: number;
  modulator: Modulator | null;
}

/** Phase modulation of a sine by another. */
export interface Modulator {
  /** Of its pitch to the note's. */
  ratio: number;
  /** Turns, and the share of them that stays; seconds to -60 dB of the others. */
  depth: number;
  stays: number;
  decay: number;
}

/** A low-pass whose cutoff follows the stroke and the note. */
export interface ToneFilter {
  /** Hz at middle C. */
  cutoff: number;
  /** Octaves that the cutoff moves with an octave of the note: 0..1. */
  follows: number;
  /** Octaves that the stroke opens it by at full velocity, and seconds to -60 dB of that. */
  opens: number;
  closes: number;
  /** Quality factor; 0.707 is flat. */
  q: number;
  /** 24 dB an octave in the place of 12. */
  steep: boolean;
}

/** What moves a note slowly while it sounds: how far at full motion. All notes move together. */
export interface Motion {
  /** Cycles a second. */
  hz: number;
  /** Up and down by so many cents, octaves of cutoff, dB. */
  cents: number;
  octaves: number;
  dB: number;
  /** From side to side, 0..1. */
  sides: number;
  /** Seconds until it has come in. */
  after: number;
}

/** How an instrument that plays notes sounds: every number is there. */
export interface Tone {
  /** At most `MOST_OSCILLATORS`. */
  oscillators: readonly Oscillator[];
  filter: ToneFilter | null;
  moved: Motion | null;
  /** Seconds to full level. */
  attack: number;
  /** Seconds to -60 dB of what lies above `sustain`, at middle C. */
  decay: number;
  /** Level of a note that is held, 0..1. */
  sustain: number;
  /** Seconds to -60 dB after it is let go. */
  release: number;
  /** Octaves by which decays are shorter with an octave of the note: 0..1. */
  shortens: number;
  /** Share of its motion and of its width that it has where the player has not changed it: 0..1. */
  motion: number;
  width: number;
  /** Seconds that its pitch takes to a note that is played before the last was let go. */
  glide: number;
  /** dB at C1, C2 .. C8 that make all of them equally loud; between them in a line. */
  even: readonly number[];
}

export const MOST_OSCILLATORS = 9;

/** What a player has made of a tone: *bright* -1..1, *motion* and *width* 0..1, the others in seconds. */
export interface ToneTurns {
  bright: number;
  motion: number;
  width: number;
  attack: number;
  release: number;
  glide: number;
}
