import { doubles } from '../../doubles';
import type { Layer } from '../recipe';
import type { Modulator, Motion, Oscillator, Tone, ToneFilter } from '../tone';

/** What may be left out: then it is what `toneOf` has for it. */
type Optional<T, K extends keyof T> = Omit<T, K> & Partial<Pick<T, K>>;

export type OscillatorDesign = Pick<Oscillator, 'wave' | 'ratio' | 'level'> &
  Partial<Omit<Oscillator, 'modulator'>> & { modulator?: Optional<Modulator, 'stays'> };

interface DesignedParts {
  oscillators: readonly OscillatorDesign[];
  filter?: Optional<ToneFilter, 'steep'>;
  moved?: Pick<Motion, 'hz'> & Partial<Motion>;
}

/** A preset of a voice that plays notes: its tone, and what is done with it. How loud it is lies in `TONE_LEVELS`. */
export interface ToneDesign {
  /** Share sent to the room, 0..1. */
  room: number;
  /** Saturation: 0 none. */
  drive: number;
  /** One note at a time. */
  isMono?: true;
  /** What is heard of the stroke itself: a key, a hammer, breath. */
  layers?: readonly Layer[];
  tone: DesignedParts & Optional<Omit<Tone, keyof DesignedParts | 'even'>, 'shortens' | 'glide'>;
}

/** An oscillator as it is designed. @param peak its level is divided by it */
export function oscillatorOf(design: OscillatorDesign, peak = 1): Oscillator {
  const { wave, ratio, level, detune = 0, pan = 0, phase = 0, decay = Infinity, hardness = 0, modulator } = design;
  return doubles({ wave, ratio, level: level / peak, detune, pan, phase, decay, hardness, modulator: modulator ? modulatorOf(modulator) : null }); // prettier-ignore
}

/** A tone as it is designed, made as loud as it is to be. */
export function toneOf(design: ToneDesign['tone'], { peak, even }: Pick<Tone, 'even'> & { peak: number }): Tone {
  const { filter, moved, attack, decay, sustain, release, shortens = 0, motion, width, glide = 0 } = design;
  return doubles({
    oscillators: design.oscillators.map((oscillator) => oscillatorOf(oscillator, peak)),
    filter: filter ? filterOf(filter) : null,
    moved: moved ? motionOf(moved) : null,
    attack,
    decay,
    sustain,
    release,
    shortens,
    motion,
    width,
    glide,
    even,
  });
}

type Design<K extends keyof DesignedParts> = NonNullable<DesignedParts[K]>;

const modulatorOf = ({ ratio, depth, stays = 0, decay }: NonNullable<OscillatorDesign['modulator']>): Modulator =>
  doubles({ ratio, depth, stays, decay });

const filterOf = ({ cutoff, follows, opens, closes, q, steep = false }: Design<'filter'>): ToneFilter =>
  doubles({ cutoff, follows, opens, closes, q, steep });

const motionOf = ({ hz, cents = 0, octaves = 0, dB = 0, sides = 0, after = 0 }: Design<'moved'>): Motion =>
  doubles({ hz, cents, octaves, dB, sides, after });
