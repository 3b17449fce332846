import type { Layer } from '../recipe';
import type { ToneDesign } from './toneDesign';
import { unison } from './unison';

/** A nail or a plectrum as it leaves the string. */
const PICK: Layer = { source: 'noise', level: 0.14, filter: 'high', cutoff: 3000, q: 0.7, attack: 0.0005, decay: 0.015, hardness: 0.7 }; // prettier-ignore

/** Plucks: strings, tongues and drops, gone as soon as they are heard. */
export const PLUCK = {
  spoke: {
    room: 0.2,
    drive: 0,
    tone: {
      oscillators: [...unison('saw', 3, 20, { level: 0.8 })],
      filter: { cutoff: 700, follows: 0.6, opens: 3.6, closes: 0.28, q: 1.4, steep: true },
      attack: 0.002, decay: 1.2, sustain: 0, release: 0.3, shortens: 0.4, motion: 0.5, width: 0.7,
    },
  },
  thread: {
    room: 0.18,
    drive: 0,
    layers: [PICK],
    tone: {
      oscillators: [
        { wave: 'string', ratio: 1, level: 0.8, pan: -0.2 },
        { wave: 'string', ratio: 1, level: 0.3, detune: 5, pan: 0.7, phase: 0.4 },
      ],
      filter: { cutoff: 1600, follows: 0.6, opens: 2.6, closes: 0.9, q: 0.7 },
      attack: 0.002, decay: 2.6, sustain: 0, release: 0.5, shortens: 0.6, motion: 0.5, width: 0.5,
    },
  },
  wire: {
    room: 0.22,
    drive: 0.3,
    layers: [PICK],
    tone: {
      oscillators: [
        { wave: 'saw', ratio: 1, level: 0.5, pan: -0.5, detune: -5 },
        { wave: 'string', ratio: 2, level: 0.5, pan: 0.5, detune: 5 },
        { wave: 'sine', ratio: 1, level: 0.3 },
      ],
      filter: { cutoff: 2400, follows: 0.5, opens: 2, closes: 1.4, q: 0.8 },
      attack: 0.001, decay: 2, sustain: 0, release: 0.25, shortens: 0.5, motion: 0.5, width: 0.6,
    },
  },
  comb: {
    room: 0.15,
    drive: 0,
    tone: {
      oscillators: [
        { wave: 'square', ratio: 1, level: 0.6, detune: -6, pan: -0.4 },
        { wave: 'square', ratio: 1, level: 0.4, detune: 6, pan: 0.4, phase: 0.3 },
      ],
      filter: { cutoff: 500, follows: 0.7, opens: 3.2, closes: 0.16, q: 2.2 },
      attack: 0.001, decay: 0.6, sustain: 0, release: 0.15, shortens: 0.3, motion: 0.5, width: 0.5,
    },
  },
  raindrop: {
    room: 0.26,
    drive: 0,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.8, hardness: 0.8, modulator: { ratio: 3.01, depth: 0.12, decay: 0.18 } },
        { wave: 'sine', ratio: 2, level: 0.25, pan: 0.6, decay: 0.5, hardness: 0.6, detune: 8 },
        { wave: 'sine', ratio: 5.2, level: 0.1, pan: -0.6, decay: 0.15, hardness: 0.9 },
      ],
      moved: { hz: 2.6, sides: 0.6 },
      attack: 0.002, decay: 1.4, sustain: 0, release: 0.8, shortens: 0.4, motion: 0.5, width: 0.9,
    },
  },
  ticket: {
    room: 0.08,
    drive: 0.4,
    layers: [PICK],
    tone: {
      oscillators: [{ wave: 'reed', ratio: 1, level: 0.8 }, { wave: 'square', ratio: 2, level: 0.2, pan: 0.4, decay: 0.2 }],
      filter: { cutoff: 1200, follows: 0.6, opens: 2.4, closes: 0.08, q: 1 },
      attack: 0.001, decay: 0.35, sustain: 0, release: 0.08, shortens: 0.2, motion: 0, width: 0.3,
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
