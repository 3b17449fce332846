import type { ToneDesign } from './toneDesign';
import { unison } from './unison';

/** Basses that are round: sines and what little is laid over them. */
export const DEEP_BASS = {
  canal: {
    room: 0,
    drive: 0.45,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 1, hardness: 0.7, modulator: { ratio: 1, depth: 0.1, decay: 0.6, stays: 0.5 } },
        { wave: 'triangle', ratio: 2, level: 0.22 },
      ],
      attack: 0.004, decay: 4, sustain: 0.75, release: 0.14, motion: 0, width: 0, glide: 0.05,
    },
  },
  barge: {
    room: 0.01,
    drive: 0.5,
    isMono: true,
    tone: {
      oscillators: [{ wave: 'sine', ratio: 1, level: 1 }, { wave: 'sine', ratio: 2, level: 0.12, hardness: 0.8 }],
      attack: 0.003, decay: 2.8, sustain: 0, release: 0.3, motion: 0, width: 0, glide: 0.09,
    },
  },
  lock: {
    room: 0.02,
    drive: 0.2,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 1, hardness: 0.8, modulator: { ratio: 2, depth: 0.22, decay: 0.35, stays: 0.15 } },
        { wave: 'sine', ratio: 5, level: 0.1, decay: 0.12, hardness: 0.9 },
      ],
      attack: 0.002, decay: 1.4, sustain: 0.25, release: 0.1, shortens: 0.3, motion: 0, width: 0,
    },
  },
  bollard: {
    room: 0,
    drive: 0,
    isMono: true,
    tone: {
      oscillators: [{ wave: 'triangle', ratio: 1, level: 1 }, { wave: 'square', ratio: 1, level: 0.2, hardness: 0.5 }],
      filter: { cutoff: 700, follows: 0.7, opens: 1.6, closes: 0.3, q: 0.8 },
      attack: 0.003, decay: 1, sustain: 0.5, release: 0.09, motion: 0, width: 0,
    },
  },
  hum: {
    room: 0.04,
    drive: 0.4,
    isMono: true,
    tone: {
      oscillators: [...unison('triangle', 3, 24, { level: 0.9 }), { wave: 'reed', ratio: 1, level: 0.25 }],
      filter: { cutoff: 800, follows: 0.5, opens: 0.8, closes: 3, q: 0.7 },
      attack: 0.09, decay: 6, sustain: 0.85, release: 0.4, motion: 0.5, width: 0.3, glide: 0.12,
      moved: { hz: 0.3, octaves: 0.4, dB: 1 },
    },
  },
  weir: {
    room: 0.02,
    drive: 0.5,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.9 },
        { wave: 'saw', ratio: 1, level: 0.4, phase: 0.5 },
      ],
      filter: { cutoff: 500, follows: 0.5, opens: 1.2, closes: 2, q: 3, steep: true },
      attack: 0.006, decay: 5, sustain: 0.8, release: 0.12, motion: 0.5, width: 0, glide: 0.04,
      moved: { hz: 3.73, octaves: 2.4 },
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
