import { PADS } from '../model/set';
import type { Snap } from '../timing/place';

/** Numbers of one hit in a pattern's message to the engine: placed tick, struck tick, pad, velocity, id. */
export const HIT_FIELDS = 5;

/** Numbers of one pad's Feel in a pattern's message: grid (-1 = no Feel), strength, swing unit (0 = straight), ratio, spare. */
export const FEEL_FIELDS = 5;

/** Ticks that lie this near are one: far below a sample at any tempo, far above the rounding of a song of days. */
export const SAME_TICKS = 1e-6;

const ROOM_TO_RECORD = 512;

/**
 * Plays one track's loop: says which placed hit comes next in the song. Positions are computed from the launch tick,
 * never added up, so loops of different lengths never drift apart.
 */
export class TrackPlayer {
  /** Loop length in ticks; 0 = nothing to play. */
  length = 0;
  count = 0;
  /** Hits in order of placed tick. */
  tick = new Float64Array(ROOM_TO_RECORD);
  struck = new Float64Array(ROOM_TO_RECORD);
  pad = new Uint8Array(ROOM_TO_RECORD);
  velocity = new Float64Array(ROOM_TO_RECORD);
  id = new Float64Array(ROOM_TO_RECORD);
  /** Song tick at which the loop was launched: the start of its pass 0. */
  launchTick = 0;
  /** The Feel in force for each pad, or null: what places a new stroke instead of the input grid. */
  readonly feels: (Snap | null)[] = new Array<Snap | null>(PADS).fill(null);
  /** Index of the first hit at the tick that `nextTick` found, and the song tick of its pass. */
  nextIndex = 0;
  nextPassTick = 0;

  /**
   * Takes over a pattern.
   * @param length loop length in ticks
   * @param hits HIT_FIELDS numbers a hit, in order of placed tick, each with 0 <= tick < length
   * @param feels FEEL_FIELDS numbers a pad, or nothing when no pad has a Feel
   */
  load(length: number, hits: Float64Array, feels?: Float64Array): void {
    this.length = length;
    this.count = hits.length / HIT_FIELDS;
    this.reserve(this.count + ROOM_TO_RECORD);
    for (let i = 0; i < this.count; i++) this.write(i, hits, i * HIT_FIELDS);
    for (let pad = 0; pad < PADS; pad++) this.feels[pad] = feels ? readFeel(feels, pad * FEEL_FIELDS) : null;
  }

  /** Adds a hit at its place; a hit of the same pad on the same tick gives way to it (see `soundingHits`). */
  insert(tick: number, struck: number, pad: number, velocity: number, id: number): void {
    if (tick < 0 || tick >= this.length) return;
    let i = this.firstAfter(tick);
    while (i > 0 && this.tick[i - 1] === tick && this.pad[i - 1]! >= pad) i--;
    const replaces = i < this.count && this.tick[i] === tick && this.pad[i] === pad;
    if (!replaces) {
      if (this.count === this.tick.length) this.reserve(this.count * 2);
      for (const field of [this.tick, this.struck, this.pad, this.velocity, this.id])
        field.copyWithin(i + 1, i, this.count);
      this.count++;
    }
    this.tick[i] = tick;
    this.struck[i] = struck;
    this.pad[i] = pad;
    this.velocity[i] = velocity;
    this.id[i] = id;
  }

  /**
   * The first song tick after `songTick`, by more than SAME_TICKS, at which a hit is placed; Infinity when the loop is empty.
   * Sets `nextIndex` and `nextPassTick`. Nothing plays before the launch.
   */
  nextTick(songTick: number): number {
    if (this.count === 0 || this.length <= 0) return Infinity;
    // A hit at the tick itself has been met, whatever the last bits of the arithmetic say.
    const since = songTick - this.launchTick + SAME_TICKS;
    const pass = Math.max(0, Math.floor(since / this.length));
    let passTick = this.launchTick + pass * this.length;
    let index = since < 0 ? 0 : this.firstAfter(since - pass * this.length);
    if (index === this.count) {
      passTick += this.length;
      index = 0;
    }
    this.nextIndex = index;
    this.nextPassTick = passTick;
    return passTick + this.tick[index]!;
  }

  /** Index of the first hit placed after `loopTick`. */
  private firstAfter(loopTick: number): number {
    let low = 0;
    let high = this.count;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.tick[middle]! <= loopTick) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  private write(i: number, from: Float64Array, at: number): void {
    this.tick[i] = from[at]!;
    this.struck[i] = from[at + 1]!;
    this.pad[i] = from[at + 2]!;
    this.velocity[i] = from[at + 3]!;
    this.id[i] = from[at + 4]!;
  }

  private reserve(hits: number): void {
    if (hits <= this.tick.length) return;
    const grow = (old: Float64Array) => {
      const grown = new Float64Array(hits);
      grown.set(old);
      return grown;
    };
    this.tick = grow(this.tick);
    this.struck = grow(this.struck);
    this.velocity = grow(this.velocity);
    this.id = grow(this.id);
    const pads = new Uint8Array(hits);
    pads.set(this.pad);
    this.pad = pads;
  }
}

function readFeel(numbers: Float64Array, at: number): Snap | null {
  const [grid, strength, unit, ratio, spare] = numbers.subarray(at, at + FEEL_FIELDS) as unknown as number[];
  if (grid! < 0) return null;
  return { grid: grid!, strength: strength!, spare, ...(unit! > 0 && { swing: { unit: unit!, ratio: ratio! } }) };
}
