import type { Layer } from '../recipe';
import type { OscillatorDesign, ToneDesign } from './toneDesign';

/** Yarn, rubber or wood as it meets the bar. */
const YARN: Layer = { source: 'noise', level: 0.12, filter: 'low', cutoff: 900, q: 0.7, attack: 0.001, decay: 0.03, bright: 1, hardness: 0.5 }; // prettier-ignore
const WOOD: Layer = { source: 'noise', level: 0.12, filter: 'band', cutoff: 2600, q: 0.8, attack: 0.0005, decay: 0.012, hardness: 0.8 }; // prettier-ignore

/** Modes of a bar, rod or tongue: [ratio, level, seconds to -60 dB], the higher ones brought by hard strokes; every second to the right. */
function modes(...list: readonly (readonly [ratio: number, level: number, decay: number])[]): OscillatorDesign[] {
  return list.map(([ratio, level, decay], i) => ({ wave: 'sine', ratio, level, decay, phase: 0, pan: i === 0 ? 0 : i % 2 === 0 ? -0.4 : 0.4, hardness: i === 0 ? 0 : 0.75 })); // prettier-ignore
}

/**
 * Bars and tongues by their modes. A marimba's are tuned to 1, 4 and 10, a vibraphone's as well (Fletcher and Rossing, The Physics of
 * Musical Instruments, 2nd ed., ch. 19, from memory); a free bar has 1, 2.756, 5.404, a clamped tongue 1, 6.27, 17.55 (Euler beam).
 */
export const MALLET = {
  birch: {
    room: 0.18,
    drive: 0,
    layers: [YARN],
    tone: {
      oscillators: modes([1, 0.9, 0.9], [4, 0.22, 0.25], [10, 0.08, 0.07]),
      attack: 0.001, decay: 3, sustain: 0, release: 0.4, shortens: 0.7, motion: 0, width: 0.5,
    },
  },
  steel: {
    room: 0.3,
    drive: 0,
    layers: [YARN],
    tone: {
      oscillators: modes([1, 0.85, 5], [4, 0.2, 1.6], [10, 0.05, 0.4]),
      moved: { hz: 5.3, dB: 4, sides: 0.3 },
      attack: 0.001, decay: 8, sustain: 0, release: 0.9, shortens: 0.4, motion: 0.5, width: 0.6,
    },
  },
  bottle: {
    room: 0.25,
    drive: 0,
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.9, decay: 0.8, hardness: 0.6, modulator: { ratio: 2.4, depth: 0.1, decay: 0.06 } },
        { wave: 'sine', ratio: 2.76, level: 0.12, decay: 0.3, pan: 0.5, hardness: 0.7 },
        { wave: 'sine', ratio: 5.4, level: 0.06, decay: 0.1, pan: -0.5, hardness: 0.9 },
      ],
      attack: 0.002, decay: 2, sustain: 0, release: 0.5, shortens: 0.5, motion: 0, width: 0.6,
    },
  },
  thumb: {
    room: 0.14,
    drive: 0.3,
    layers: [WOOD],
    tone: {
      oscillators: modes([1, 0.9, 1.5], [2, 0.12, 0.7], [6.27, 0.16, 0.16], [17.55, 0.04, 0.05]),
      attack: 0.001, decay: 4, sustain: 0, release: 0.25, shortens: 0.5, motion: 0, width: 0.4,
    },
  },
  ice: {
    room: 0.3,
    drive: 0,
    tone: {
      oscillators: modes([1, 0.8, 3.2], [2.756, 0.3, 2], [5.404, 0.18, 1.1], [8.933, 0.1, 0.5]),
      moved: { hz: 0.8, sides: 0.6 },
      attack: 0.001, decay: 6, sustain: 0, release: 1.4, shortens: 0.4, motion: 0.5, width: 0.9,
    },
  },
  chime: {
    room: 0.4,
    drive: 0,
    layers: [WOOD],
    tone: {
      oscillators: [
        { wave: 'sine', ratio: 1, level: 0.7, decay: 3.5, hardness: 0.6, modulator: { ratio: 3.5, depth: 0.18, decay: 1.2 } },
        { wave: 'sine', ratio: 2, level: 0.3, decay: 2.4, pan: 0.5, hardness: 0.6, detune: 10, modulator: { ratio: 7, depth: 0.08, decay: 0.4 } },
        { wave: 'sine', ratio: 4, level: 0.12, decay: 1.2, pan: -0.5, hardness: 0.7 },
      ],
      moved: { hz: 3.4, sides: 0.4 },
      attack: 0.001, decay: 6, sustain: 0, release: 1.2, shortens: 0.4, motion: 0.4, width: 0.8,
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
