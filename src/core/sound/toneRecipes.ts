import type { ToneVoice } from '../document/tones';
import type { Recipe } from './recipe';

/** The instruments that play notes. Their sound design is a beginning. */
export const TONE_RECIPES: Record<ToneVoice, Recipe> = {
  bass: {
    level: 0.5,
    pan: 0,
    room: 0.02,
    drive: 0.6,
    rings: 1,
    isMono: true,
    layers: [],
    tone: { source: 'saw', attack: 0.004, decay: 1.6, sustain: 0.55, release: 0.09, cutoff: 190, opens: 2.6, closes: 0.5, q: 0.9 }, // prettier-ignore
  },
  keys: {
    level: 0.3,
    pan: 0,
    room: 0.22,
    drive: 0,
    rings: 1,
    layers: [],
    tone: { source: 'phaseModulation', attack: 0.003, decay: 4.5, sustain: 0, release: 0.35, cutoff: 4000, opens: 0, closes: 1, q: 0.7 }, // prettier-ignore
  },
};
