import type { Layer } from '../recipe';
import type { ToneDesign } from './toneDesign';
import { unison } from './unison';

/** A felt hammer against its rod: a soft knock that only hard strokes bring out. */
const HAMMER: Layer = { source: 'noise', level: 0.16, filter: 'band', cutoff: 900, q: 0.8, attack: 0.001, decay: 0.05, bright: 1.5, hardness: 0.9 }; // prettier-ignore

/** Electric pianos: a struck reed or rod, and the tine that rings above it for a moment. */
export const KEYS = {
  lamp: {
    room: 0.16,
    drive: 0,
    layers: [HAMMER],
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.85, hardness: 0.85, modulator: { ratio: 1, depth: 0.3, decay: 1.2 } },
        { wave: 'sine', ratio: 1, level: 0.22, hardness: 0.9, detune: 7, pan: 0.5, modulator: { ratio: 14, depth: 0.06, decay: 0.18 } },
      ],
      moved: { hz: 4.6, sides: 0.8 },
      attack: 0.003, decay: 4.5, sustain: 0, release: 0.35, shortens: 0.35, motion: 0.3, width: 0.5,
    },
  },
  bulb: {
    room: 0.12,
    drive: 0.25,
    layers: [HAMMER],
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.9, hardness: 0.9, modulator: { ratio: 2, depth: 0.2, decay: 0.9, stays: 0.2 } },
        { wave: 'reed', ratio: 1, level: 0.16, decay: 1.6, hardness: 0.7 },
      ],
      moved: { hz: 5.4, dB: 5 },
      attack: 0.002, decay: 3.2, sustain: 0, release: 0.25, shortens: 0.4, motion: 0.2, width: 0.3,
    },
  },
  filament: {
    room: 0.22,
    drive: 0,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.6, hardness: 0.7, detune: -6, pan: -0.7, modulator: { ratio: 1, depth: 0.16, decay: 2 } },
        { wave: 'sine', ratio: 1, level: 0.6, hardness: 0.7, detune: 6, pan: 0.7, modulator: { ratio: 3, depth: 0.11, decay: 1.3 } },
        { wave: 'sine', ratio: 4, level: 0.14, decay: 0.9, hardness: 0.8 },
        { wave: 'sine', ratio: 1, level: 0.2, hardness: 0.9, modulator: { ratio: 11, depth: 0.07, decay: 0.3 } },
      ],
      moved: { hz: 0.7, sides: 0.6 },
      attack: 0.003, decay: 6, sustain: 0, release: 0.6, shortens: 0.35, motion: 0.6, width: 0.8,
    },
  },
  halo: {
    room: 0.34,
    drive: 0,
    tone: {
      oscillators: [
        ...unison('sine', 3, 16, { level: 0.9 }),
        { wave: 'sine', ratio: 2, level: 0.18, decay: 3, hardness: 0.6 },
        { wave: 'sine', ratio: 7, level: 0.05, decay: 0.7, hardness: 0.9 },
      ],
      moved: { hz: 3.1, sides: 0.5, dB: 1.5 },
      attack: 0.02, decay: 7, sustain: 0.1, release: 1.2, shortens: 0.3, motion: 0.5, width: 0.9,
    },
  },
  wick: {
    room: 0.1,
    drive: 0,
    layers: [HAMMER],
    tone: {
      oscillators: [
        { wave: 'string', ratio: 1, level: 0.55 },
        { wave: 'sine', ratio: 1, level: 0.5, hardness: 0.9, modulator: { ratio: 1, depth: 0.14, decay: 0.5 } },
      ],
      filter: { cutoff: 2200, follows: 0.6, opens: 2, closes: 0.6, q: 0.7 },
      attack: 0.002, decay: 2.2, sustain: 0, release: 0.18, shortens: 0.5, motion: 0.2, width: 0.2,
      moved: { hz: 5, sides: 0.5 },
    },
  },
  lantern: {
    room: 0.2,
    drive: 0.5,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.8, hardness: 0.6, modulator: { ratio: 1, depth: 0.34, decay: 2.4, stays: 0.3 } },
        { wave: 'sine', ratio: 0.5, level: 0.3, pan: -0.4, detune: 8 },
        { wave: 'sine', ratio: 2, level: 0.2, pan: 0.6, detune: -8, hardness: 0.5, modulator: { ratio: 2, depth: 0.1, decay: 0.8 } },
      ],
      filter: { cutoff: 1600, follows: 0.5, opens: 1.8, closes: 1.6, q: 0.8 },
      moved: { hz: 4, dB: 4, sides: 0.3 },
      attack: 0.005, decay: 5, sustain: 0.15, release: 0.5, shortens: 0.3, motion: 0.5, width: 0.7,
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
