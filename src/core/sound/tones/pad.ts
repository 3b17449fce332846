import type { ToneDesign } from './toneDesign';
import { unison } from './unison';

/** Pads: slow, wide, and never quite still. */
export const PAD = {
  mist: {
    room: 0.4,
    drive: 0,
    tone: {
      oscillators: [...unison('saw', 5, 34, { level: 0.8 }), { wave: 'sine', ratio: 0.5, level: 0.3 }],
      filter: { cutoff: 900, follows: 0.5, opens: 1.6, closes: 6, q: 0.7 },
      moved: { hz: 0.21, octaves: 0.9 },
      attack: 0.35, decay: 5, sustain: 0.8, release: 1.8, motion: 0.5, width: 0.9,
    },
  },
  dusk: {
    room: 0.35,
    drive: 0.4,
    tone: {
      oscillators: [...unison('square', 3, 22, { level: 0.6 }), ...unison('saw', 3, 30, { level: 0.5, ratio: 0.5 })],
      filter: { cutoff: 600, follows: 0.5, opens: 1.8, closes: 3, q: 1, steep: true },
      moved: { hz: 0.13, octaves: 1.2 },
      attack: 0.18, decay: 4, sustain: 0.75, release: 1.2, motion: 0.4, width: 0.8,
    },
  },
  frost: {
    room: 0.34,
    drive: 0,
    tone: {
      oscillators: [
        ...unison('triangle', 3, 18, { level: 0.7 }),
        ...unison('sine', 3, 30, { level: 0.3, ratio: 4, hardness: 0.6 }),
        { wave: 'sine', ratio: 7.01, level: 0.08, pan: 0.4, hardness: 0.8, modulator: { ratio: 1, depth: 0.06, decay: 8, stays: 1 } },
      ],
      moved: { hz: 0.37, dB: 2, sides: 0.5 },
      attack: 0.25, decay: 6, sustain: 0.7, release: 2.4, motion: 0.5, width: 1,
    },
  },
  drift: {
    room: 0.3,
    drive: 0,
    tone: {
      oscillators: [...unison('bowed', 5, 26, { level: 0.8 })],
      filter: { cutoff: 1700, follows: 0.6, opens: 0.9, closes: 4, q: 0.7 },
      moved: { hz: 5.1, cents: 7, after: 0.9 },
      attack: 0.12, decay: 4, sustain: 0.85, release: 0.7, motion: 0.5, width: 0.8,
    },
  },
  smoke: {
    room: 0.35,
    drive: 0.2,
    layers: [{ source: 'noise', level: 0.05, filter: 'band', cutoff: 2400, q: 0.6, attack: 0.3, decay: 3, bright: 0.5, isSide: true }],
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.5, detune: -8, pan: -0.8, hardness: 0.4, modulator: { ratio: 1, depth: 0.2, decay: 5, stays: 0.6 } },
        { wave: 'sine', ratio: 1, level: 0.5, detune: 8, pan: 0.8, phase: 0.12, hardness: 0.4, modulator: { ratio: 2, depth: 0.14, decay: 4, stays: 0.6 } },
        { wave: 'sine', ratio: 2, level: 0.2, detune: 4, pan: 0.3 },
      ],
      filter: { cutoff: 1400, follows: 0.5, opens: 1, closes: 4, q: 0.8 },
      moved: { hz: 0.6, octaves: 0.8, sides: 0.4 },
      attack: 0.3, decay: 5, sustain: 0.8, release: 1.5, motion: 0.5, width: 0.9,
    },
  },
  glassRoof: {
    room: 0.42,
    drive: 0,
    tone: {
      oscillators: [
        ...unison('saw', 3, 20, { level: 0.5, ratio: 2 }),
        ...unison('triangle', 3, 14, { level: 0.7 }),
        { wave: 'sine', ratio: 3, level: 0.14, pan: -0.5, detune: 9 },
      ],
      filter: { cutoff: 2400, follows: 0.4, opens: 1.4, closes: 5, q: 0.7 },
      moved: { hz: 0.17, octaves: 0.7, sides: 0.3 },
      attack: 0.6, decay: 6, sustain: 0.8, release: 3, motion: 0.5, width: 1,
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
