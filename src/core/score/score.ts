import type { RunPicture } from '../document/run';
import type { Kit } from '../document/kit';
import type { Tones } from '../document/tones';
import type { Instruction } from '../protocol/commands';
import type { PreparedSample } from '../sample/levels';
import { mod, type Meter } from '../time/ticks';

/** One stroke as it sounded. Its tick is counted from where the list it lies in begins. */
export interface Stroke {
  /** Unique within the score. */
  id: number;
  tick: number;
  pad: number;
  /** 0..1 */
  velocity: number;
  /** Ticks by which it sounded after it was struck: the way from the hand to the ear. 0 for what a pattern played. */
  late: number;
  /** Ticks for which it is held. */
  length: number;
  /** How it differs from its sound (see `Shape`): semitones, octaves, octaves, gain, -1..1. */
  pitch: number;
  filter: number;
  decay: number;
  level: number;
  pan: number;
  /** dB, share and octaves added to the sound's own, and the share of a sample by which it begins later; absent: none. */
  drive?: number;
  room?: number;
  resonance?: number;
  start?: number;
  /** How hard its key is pressed when it begins, 0..1. */
  pressure?: number;
  /** How much brighter it is then, -1..1. */
  bright?: number;
}

/** A stretch of a track in which one pattern played. */
export interface Block {
  /** Unique within the score. */
  id: number;
  name: string;
  /** Index of a feather tone. */
  colour: number;
  /** Where it begins, and for how long it is heard, in ticks of the score. */
  from: number;
  length: number;
  /** Where in its content it begins. */
  into: number;
  content: Content;
}

/** What was heard of a pattern while it played. Beyond its ends its loop goes round. */
export interface Content {
  /** Ticks that were heard, and ticks of one time round. */
  length: number;
  loop: number;
  /** In order of time. */
  strokes: readonly Stroke[];
}

/** From a tick on something has a value. */
export interface Step {
  tick: number;
  value: number;
}

export interface ScoreTrack {
  /** Id of the track that played it. */
  id: number;
  name: string;
  colour: number;
  kit: Kit;
  tones?: Tones;
  /** In order of time; none lies over another. */
  blocks: readonly Block[];
  /** What hands struck, in order of time. */
  hits: readonly Stroke[];
  /** How loud it is heard, 0..1: its level, and 0 while it is muted. The first step lies at 0. */
  levels: readonly Step[];
}

/** Something of the mix was set, or what is done to the key of a pad while it is held. */
export interface TurnedStep {
  tick: number;
  told: Instruction<'channel' | 'duckedBy' | 'goesTo' | 'padGoesTo' | 'echo' | 'room' | 'turn'>;
}

/** A section was launched. */
export interface Mark {
  tick: number;
  /** Id of the section. */
  section: number;
  name: string;
  colour: number;
}

/**
 * What sounded in a run, on its own time: tick 0 is a bar line. The same as the run's log, but told by what was heard and not by
 * what was done, so that it can be looked at, entered anywhere, and put right.
 */
export interface Score {
  meter: Meter;
  /** Ticks, whole bars. */
  length: number;
  /** Quarter notes per minute; the first step lies at 0. */
  tempo: readonly Step[];
  tracks: readonly ScoreTrack[];
  marks: readonly Mark[];
  /** What was turned, beside levels, in order of time; what lies before 0 holds from the beginning. */
  turned: readonly TurnedStep[];
  /** Engine frame of tick 0, a float: noise differs from frame to frame. */
  frame: number;
  /** The song's tick there: slow waves go by it. */
  songTick: number;
  /** The samples that its kits name, where it is to be heard. */
  samples?: readonly PreparedSample[];
}

/**
 * Where in its content something lies that is `tick` after the content's beginning: beyond its ends the last and the first time round
 * come again.
 * @example foldedTick({ length: 8000, loop: 3840, strokes: [] }, 8500) // 4660: one loop before
 */
export function foldedTick({ length, loop }: Content, tick: number): number {
  const round = Math.min(loop, length);
  if (round <= 0) return NaN;
  if (tick < 0) return mod(tick, round);
  return tick < length ? tick : length - round + mod(tick - length, round);
}

/** The strokes that are heard of a block, at ticks of the score, in order of time. */
export function blockStrokes({ content, from, length, into }: Block): Stroke[] {
  const { strokes } = content;
  const round = Math.min(content.loop, content.length);
  const end = into + length;
  const heard: Stroke[] = [];
  const take = (stretch: readonly Stroke[], shift: number) => {
    for (const stroke of stretch) {
      const tick = stroke.tick + shift;
      if (tick >= into && tick < end) heard.push({ ...stroke, tick: from + tick - into });
    }
  };
  if (round > 0 && into < 0) {
    const first = strokes.filter(({ tick }) => tick < round);
    for (let shift = Math.floor(into / round) * round; shift < 0; shift += round) take(first, shift);
  }
  take(strokes, 0);
  if (round > 0 && end > content.length) {
    const last = strokes.filter(({ tick }) => tick >= content.length - round);
    for (let shift = round; content.length - round + shift < end; shift += round) take(last, shift);
  }
  return heard;
}

/** All strokes of a track, at ticks of the score, in order of time: hands before the pattern where they meet. */
export function trackStrokes(track: Pick<ScoreTrack, 'blocks' | 'hits'>): Stroke[] {
  return [...track.hits, ...track.blocks.flatMap(blockStrokes)].sort((a, b) => a.tick - b.tick);
}

/** The value that holds at a tick. */
export function stepAt(steps: readonly Step[], tick: number): number {
  let value = steps[0]?.value ?? 0;
  for (const step of steps) {
    if (step.tick > tick) break;
    ({ value } = step);
  }
  return value;
}

/** A score in small. */
export function pictureOf({ length, tracks }: Score): RunPicture {
  return {
    length,
    rows: tracks.map(({ colour, blocks }) => ({
      colour,
      stretches: blocks.map(({ from, length: ticks }) => ({ from: Math.round(from), length: Math.round(ticks) })),
    })),
  };
}
