import type { Layer } from '../recipe';
import type { ToneDesign } from './toneDesign';
import { unison } from './unison';

const BREATH: Layer = { source: 'noise', level: 0.07, filter: 'band', cutoff: 2800, q: 1, attack: 0.01, decay: 0.25, bright: 1 }; // prettier-ignore

/** Leads: one line above everything, which slides and sings. */
export const LEAD = {
  whistle: {
    room: 0.25,
    drive: 0,
    isMono: true,
    layers: [BREATH],
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.9, hardness: 0.5, modulator: { ratio: 1, depth: 0.06, decay: 1, stays: 0.6 } },
        { wave: 'triangle', ratio: 2, level: 0.12, hardness: 0.5, pan: 0.3 },
      ],
      moved: { hz: 5.4, cents: 36, dB: 1, after: 0.5 },
      attack: 0.025, decay: 2, sustain: 0.85, release: 0.15, motion: 0.5, width: 0.3, glide: 0.07,
    },
  },
  beam: {
    room: 0.2,
    drive: 0.4,
    isMono: true,
    tone: {
      oscillators: [...unison('saw', 5, 36, { level: 0.8 }), { wave: 'square', ratio: 0.5, level: 0.2 }],
      filter: { cutoff: 2200, follows: 0.5, opens: 1.6, closes: 1.2, q: 1.1, steep: true },
      moved: { hz: 5.6, cents: 12, after: 0.4 },
      attack: 0.006, decay: 2, sustain: 0.8, release: 0.25, motion: 0.5, width: 0.8, glide: 0.05,
    },
  },
  flare: {
    room: 0.18,
    drive: 0.5,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'saw', ratio: 1, level: 0.6, pan: -0.3, detune: -7 },
        { wave: 'saw', ratio: 1, level: 0.6, pan: 0.3, detune: 7, phase: 0.12 },
        { wave: 'square', ratio: 1, level: 0.25 },
      ],
      filter: { cutoff: 1300, follows: 0.6, opens: 2.6, closes: 0.6, q: 2 },
      moved: { hz: 5.8, cents: 20, after: 0.35 },
      attack: 0.004, decay: 1.5, sustain: 0.7, release: 0.18, motion: 0.5, width: 0.5, glide: 0.08,
    },
  },
  kite: {
    room: 0.3,
    drive: 0,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'reed', ratio: 1, level: 0.8 },
        { wave: 'sine', ratio: 2, level: 0.14, pan: 0.5, detune: 9 },
      ],
      filter: { cutoff: 2600, follows: 0.6, opens: 0.9, closes: 2, q: 0.8 },
      moved: { hz: 4.9, cents: 26, octaves: 0.2, after: 0.6 },
      attack: 0.04, decay: 2, sustain: 0.9, release: 0.22, motion: 0.5, width: 0.4, glide: 0.11,
    },
  },
  signal: {
    room: 0.15,
    drive: 0.2,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'square', ratio: 1, level: 0.8 },
        { wave: 'square', ratio: 2, level: 0.18, hardness: 0.6, pan: 0.3 },
      ],
      filter: { cutoff: 3400, follows: 0.4, opens: 1, closes: 0.5, q: 0.8 },
      moved: { hz: 6, cents: 24, after: 0.3 },
      attack: 0.003, decay: 1, sustain: 0.75, release: 0.09, motion: 0.4, width: 0.3, glide: 0,
    },
  },
  spark: {
    room: 0.22,
    drive: 0.3,
    isMono: true,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.9, hardness: 0.7, modulator: { ratio: 3, depth: 0.2, decay: 0.5, stays: 0.45 } },
        { wave: 'sine', ratio: 1, level: 0.3, detune: 12, pan: 0.7, hardness: 0.6, modulator: { ratio: 1, depth: 0.2, decay: 1, stays: 0.5 } },
      ],
      moved: { hz: 5.5, cents: 18, after: 0.4 },
      attack: 0.003, decay: 1.6, sustain: 0.65, release: 0.2, motion: 0.5, width: 0.6, glide: 0.04,
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
