import type { Tone } from './tone';

/** One sine mode of a body. */
export interface Mode {
  /** Of its pitch to the body's. */
  ratio: number;
  level: number;
  /** Seconds to -60 dB. */
  decay: number;
}

/** Short strokes before the last one, as of many hands or jingles. */
export interface Bursts {
  count: number;
  /** Seconds from one to the next. */
  every: number;
  /** Seconds to -60 dB of each. */
  decay: number;
  /** How much they differ, in time and in level: 0..1. */
  uneven: number;
}

/** A tuned body: inharmonic sine modes that share one downward pitch sweep. */
export interface Body {
  /** Resting pitch of the first mode, Hz. */
  pitch: number;
  /** How many times higher the strike begins (1 = no sweep), at full velocity. */
  sweep: number;
  /** Time constant of the sweep, seconds. */
  sweepTime: number;
  /** At most 6. */
  modes: readonly Mode[];
}

/** A filtered burst of noise, of grains or of the cymbals' metal. */
export interface Layer {
  source: 'noise' | 'grains' | 'metal';
  /** Grains a second. */
  grains?: number;
  level: number;
  filter: 'low' | 'band' | 'high';
  /** Hz, at full velocity. */
  cutoff: number;
  /** Resonance, at least 0.5; 0.7 is flat. */
  q: number;
  /** Octaves by which the cutoff falls towards velocity 0. With a high-pass that would take the bass away from what is loud. */
  bright?: number;
  /** Share of its level that velocity brings, besides that of the stroke: 0..1. */
  hardness?: number;
  /** Seconds to full level. */
  attack: number;
  /** Seconds to -60 dB. */
  decay: number;
  bursts?: Bursts;
  /** Seconds by which it begins later than the stroke. */
  after?: number;
  /** It is heard at the sides, turned round on the right: width that vanishes in mono and takes nothing from the middle. */
  isSide?: true;
  /** It does not go through the saturation: what is to stay sharp. */
  isClean?: true;
}

/** One sound as the engine makes it: what is layered, how loud, and where. */
export interface Recipe {
  /** Peak at full velocity, linear. */
  level: number;
  /** -1 left .. 1 right */
  pan: number;
  /** Share sent to the room, 0..1. */
  room: number;
  /** Saturation: 0 none. */
  drive: number;
  /** How many strokes of this pad may ring at once. */
  rings: number;
  body?: Body;
  /** At most 4. */
  layers: readonly Layer[];
  /** Seconds in which it is silent when another pad cuts it off: a hat closes, it does not stop. */
  closes?: number;
  /** One of its notes plays at a time; one that begins while another is held goes on from it. */
  isMono?: true;
  /** It plays notes, which last as long as they are held. */
  tone?: Tone;
}
