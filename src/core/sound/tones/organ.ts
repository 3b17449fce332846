import type { Layer } from '../recipe';
import type { ToneDesign } from './toneDesign';

/** What a key's contacts and the air add at the start. */
const CLICK: Layer = { source: 'noise', level: 0.1, filter: 'band', cutoff: 2600, q: 0.7, attack: 0.0005, decay: 0.02, bright: 1 }; // prettier-ignore
const AIR: Layer = { source: 'noise', level: 0.08, filter: 'band', cutoff: 1800, q: 0.9, attack: 0.012, decay: 0.12, bright: 1 }; // prettier-ignore

/** Organs: pipes and wheels, and the turning of a loudspeaker. */
export const ORGAN = {
  rink: {
    room: 0.22,
    drive: 0.5,
    layers: [CLICK],
    tone: {
      oscillators: [
        { wave: 'chorus', ratio: 1, level: 0.8, pan: -0.5, detune: -4 },
        { wave: 'foundation', ratio: 1, level: 0.6, pan: 0.5, detune: 4, phase: 0.3 },
        { wave: 'sine', ratio: 3, level: 0.35, decay: 0.35, hardness: 0.7 },
      ],
      filter: { cutoff: 4200, follows: 0.3, opens: 0.6, closes: 1, q: 0.7 },
      moved: { hz: 6.4, cents: 14, dB: 2.4, sides: 0.5 },
      attack: 0.004, decay: 1, sustain: 1, release: 0.06, motion: 0.5, width: 0.6,
    },
  },
  chapel: {
    room: 0.36,
    drive: 0,
    layers: [AIR],
    tone: {
      oscillators: [
        { wave: 'foundation', ratio: 1, level: 0.8, pan: -0.6, detune: -3 },
        { wave: 'flutes', ratio: 1, level: 0.5, pan: 0.6, detune: 3, phase: 0.4 },
        { wave: 'flutes', ratio: 2, level: 0.18, pan: 0.2, detune: 5, phase: 0.2 },
      ],
      filter: { cutoff: 3200, follows: 0.4, opens: 0.4, closes: 1, q: 0.7 },
      moved: { hz: 0.5, cents: 3 },
      attack: 0.045, decay: 1, sustain: 1, release: 0.3, motion: 0.5, width: 0.8,
    },
  },
  fairground: {
    room: 0.18,
    drive: 0.3,
    layers: [AIR],
    tone: {
      oscillators: [
        { wave: 'street', ratio: 1, level: 0.7, pan: -0.5, detune: -12 },
        { wave: 'street', ratio: 1, level: 0.7, pan: 0.5, detune: 12, phase: 0.3 },
        { wave: 'reed', ratio: 1, level: 0.3 },
      ],
      filter: { cutoff: 3600, follows: 0.4, opens: 0.8, closes: 1, q: 0.7 },
      moved: { hz: 6.8, cents: 22, dB: 1.5 },
      attack: 0.018, decay: 1, sustain: 1, release: 0.09, motion: 0.4, width: 0.7,
    },
  },
  pump: {
    room: 0.12,
    drive: 0.2,
    tone: {
      oscillators: [
        { wave: 'reed', ratio: 1, level: 0.6, pan: -0.4, detune: -7 },
        { wave: 'reed', ratio: 1, level: 0.3, pan: 0.5, detune: 8, phase: 0.12 },
        { wave: 'saw', ratio: 2, level: 0.12 },
      ],
      filter: { cutoff: 1900, follows: 0.5, opens: 0.9, closes: 2, q: 0.7 },
      moved: { hz: 4.4, dB: 1.5, octaves: 0.15 },
      attack: 0.06, decay: 2, sustain: 0.9, release: 0.14, motion: 0.4, width: 0.5,
    },
  },
  bellows: {
    room: 0.14,
    drive: 0,
    layers: [AIR],
    tone: {
      oscillators: [
        { wave: 'bowed', ratio: 1, level: 0.5, pan: -0.6, detune: -14 },
        { wave: 'bowed', ratio: 1, level: 0.5, pan: 0.6, detune: 14, phase: 0.12 },
        { wave: 'square', ratio: 1, level: 0.2 },
      ],
      filter: { cutoff: 2600, follows: 0.4, opens: 1, closes: 3, q: 0.8 },
      moved: { hz: 5.2, dB: 1.5 },
      attack: 0.035, decay: 2, sustain: 0.9, release: 0.08, motion: 0.6, width: 0.6,
    },
  },
  hymn: {
    room: 0.3,
    drive: 0,
    layers: [CLICK],
    tone: {
      oscillators: [
        { wave: 'hollow', ratio: 1, level: 0.8, pan: -0.3, detune: -3 },
        { wave: 'flutes', ratio: 1, level: 0.6, pan: 0.5, detune: 4, phase: 0.3 },
      ],
      filter: { cutoff: 2800, follows: 0.4, opens: 0.3, closes: 1, q: 0.7 },
      moved: { hz: 5.8, cents: 9, dB: 3, sides: 0.3 },
      attack: 0.008, decay: 1, sustain: 1, release: 0.12, motion: 0.3, width: 0.6,
    },
  },
} satisfies Record<string, ToneDesign>; // prettier-ignore
