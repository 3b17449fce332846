import { doubles } from '../doubles';
import type { Body, Bursts, Layer, Recipe } from './recipe';
import type { Tone } from './tone';

/** A layer as a voice reads it: every number is there. */
export interface LayerPart extends Pick<Layer, 'source' | 'filter'> {
  /** In the recipe: each has noise of its own. */
  place: number;
  grains: number;
  level: number;
  cutoff: number;
  q: number;
  bright: number;
  hardness: number;
  attack: number;
  decay: number;
  bursts: Bursts | null;
  after: number;
  isSide: boolean;
  isClean: boolean;
}

/** What all sounds that are made after a recipe have in common, of one shape for all recipes (see `doubles`). */
export interface Parts {
  /** What plays notes; null for drums and samples. */
  tone: Tone | null;
  body: Body | null;
  /** The highest tone of its body, Hz; 0 without one. */
  highestHz: number;
  /** Those that do not go through the saturation last, and how many come before these. */
  layers: readonly LayerPart[];
  firstClean: number;
  /** Seconds in which it is silent when another pad cuts it off. */
  closes: number;
}

/** How soon a sound is cut off whose recipe does not say how it closes. */
const CUT_SECONDS = 0.006;

const made = new WeakMap<Recipe, Parts>();

/** The parts of a recipe: made once. */
export function partsOf(recipe: Recipe): Parts {
  let parts = made.get(recipe);
  if (!parts) made.set(recipe, (parts = partsFrom(recipe)));
  return parts;
}

function partsFrom({ tone, body, layers, closes = CUT_SECONDS }: Recipe): Parts {
  const all = layers.map(layerPart);
  const driven = all.filter(({ isClean }) => !isClean);
  return {
    tone: tone ?? null,
    body: body ? bodyPart(body) : null,
    highestHz: body ? Math.max(...body.modes.map(({ ratio }) => body.pitch * ratio)) : 0,
    layers: [...driven, ...all.filter(({ isClean }) => isClean)],
    firstClean: driven.length,
    closes,
  };
}

function bodyPart({ pitch, sweep, sweepTime, modes }: Body): Body {
  return doubles({ pitch, sweep, sweepTime, modes: modes.map(({ ratio, level, decay }) => doubles({ ratio, level, decay })) }); // prettier-ignore
}

function layerPart(layer: Layer, place: number): LayerPart {
  const { source, grains = 0, level, filter, cutoff, q, bright = 0, hardness = 0, attack, decay, bursts = null, after = 0, isSide = false, isClean = false } = layer; // prettier-ignore
  return doubles({ source, filter, place, grains, level, cutoff, q, bright, hardness, attack, decay, bursts, after, isSide, isClean }); // prettier-ignore
}
