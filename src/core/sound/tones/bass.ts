import type { ToneDesign } from './toneDesign';
import { unison } from './unison';

/** Basses that are plucked or bowed: their harmonics carry them where a speaker has no lows. */
export const BASS = {
  kerb: {
    room: 0.02,
    drive: 0.35,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'saw', ratio: 1, level: 0.75 },
        { wave: 'sine', ratio: 1, level: 0.3 },
        { wave: 'square', ratio: 2, level: 0.26, hardness: 0.6 },
      ],
      filter: { cutoff: 1100, follows: 0.6, opens: 2.2, closes: 0.7, q: 0.9 },
      attack: 0.004, decay: 1.6, sustain: 0.55, release: 0.12, motion: 0, width: 0, glide: 0.03,
    },
  },
  towpath: {
    room: 0.03,
    drive: 0,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'string', ratio: 1, level: 0.9 },
        { wave: 'sine', ratio: 1, level: 0.3 },
        { wave: 'sine', ratio: 3, level: 0.3, decay: 0.25, hardness: 0.9, modulator: { ratio: 1, depth: 0.1, decay: 0.2 } },
      ],
      filter: { cutoff: 1100, follows: 0.5, opens: 2, closes: 0.9, q: 0.7 },
      attack: 0.003, decay: 3.5, sustain: 0.1, release: 0.15, shortens: 0.4, motion: 0.3, width: 0,
      moved: { hz: 5.1, cents: 8, after: 0.8 },
    },
  },
  rope: {
    room: 0.03,
    drive: 0.5,
    isMono: true,
    tone: {
      oscillators: [...unison('saw', 3, 30, { level: 0.8 }), { wave: 'square', ratio: 2, level: 0.14 }],
      filter: { cutoff: 1600, follows: 0.5, opens: 2.4, closes: 1.1, q: 1.1, steep: true },
      attack: 0.008, decay: 2.4, sustain: 0.7, release: 0.2, motion: 0.5, width: 0.35, glide: 0.06,
      moved: { hz: 0.4, octaves: 0.5 },
    },
  },
  cable: {
    room: 0.02,
    drive: 0.15,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'square', ratio: 1, level: 0.8 },
        { wave: 'square', ratio: 1, level: 0.3, detune: 9, phase: 0.25 },
        { wave: 'saw', ratio: 2, level: 0.3, phase: 0.5 },
      ],
      filter: { cutoff: 1100, follows: 0.6, opens: 2.6, closes: 0.35, q: 1.8 },
      attack: 0.002, decay: 1.1, sustain: 0.35, release: 0.08, motion: 0.4, width: 0,
    },
  },
  rasp: {
    room: 0.02,
    drive: 0.5,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.9, hardness: 0.5, modulator: { ratio: 1, depth: 0.32, decay: 1.4, stays: 0.5 } },
        { wave: 'saw', ratio: 1, level: 0.4 },
      ],
      filter: { cutoff: 1500, follows: 0.4, opens: 1.6, closes: 1, q: 1.6, steep: true },
      attack: 0.003, decay: 2.2, sustain: 0.7, release: 0.1, motion: 0.2, width: 0, glide: 0.05,
      moved: { hz: 3, octaves: 1.2 },
    },
  },
  links: {
    room: 0.02,
    drive: 0,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'reed', ratio: 1, level: 0.35 },
        { wave: 'saw', ratio: 1, level: 0.35, phase: 0.5 },
        { wave: 'square', ratio: 2, level: 0.2 },
        { wave: 'sine', ratio: 2, level: 0.5, decay: 0.6, hardness: 0.8, modulator: { ratio: 3, depth: 0.2, decay: 0.12 } },
      ],
      filter: { cutoff: 1800, follows: 0.5, opens: 1.5, closes: 0.25, q: 0.8 },
      attack: 0.002, decay: 0.7, sustain: 0.15, release: 0.07, shortens: 0.3, motion: 0, width: 0,
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
