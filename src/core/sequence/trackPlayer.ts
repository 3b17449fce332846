import { PADS } from '../document/set';
import type { Snap } from '../quantize/place';
import { fitWindow } from './loopWindow';
import { MOVE_TABLES, moveIndex } from './moves';

/** What a pattern's message to the engine says of each hit, in this order. */
export const HIT = {
  /** Placed, in the pattern. */
  TICK: 0,
  STRUCK: 1,
  PAD: 2,
  VELOCITY: 3,
  ID: 4,
  /** Semitones. */
  PITCH: 5,
  ODDS: 6,
  /** Strokes of its roll, 0 for none, and the rest of it. */
  STROKES: 7,
  OVER: 8,
  SWELL: 9,
  GLIDE: 10,
  /** Ticks for which it is held: heard of notes. */
  LENGTH: 11,
} as const;
export const HIT_FIELDS = 12;
/** Numbers of one pad's Feel in a pattern's message: grid (-1 = no Feel), strength, swing unit (0 = straight), ratio, spare. */
export const FEEL_FIELDS = 5;

/** Ticks that lie this near are one: far below a sample at any tempo, far above the rounding of a song of days. */
export const SAME_TICKS = 1e-6;

const ROOM_TO_RECORD = 512;

/**
 * Plays one track's loop: says which placed hit comes next in the song. Positions are computed from the launch tick,
 * never added up, so loops of different lengths never drift apart, and a loop whose window moved is where it would have been.
 */
export class TrackPlayer {
  /** Length of the pattern in ticks; 0 = nothing to play. */
  length = 0;
  /** The stretch of it that goes round. */
  start = 0;
  span = 0;
  /** Song tick at which the loop was launched: where the pattern's tick 0 lies. */
  launchTick = 0;
  /** The Feel in force for each pad, or null: what places a new stroke instead of the input grid. */
  readonly feels: (Snap | null)[] = new Array<Snap | null>(PADS).fill(null);
  /** Breakpoints of each pad's controls (see `moveIndex`), or null. */
  readonly moves: (Float64Array | null)[] = new Array<Float64Array | null>(MOVE_TABLES).fill(null);
  /** Index of the first hit at the tick that `nextTick` found, and the song tick of the pattern's tick 0 in its pass. */
  nextIndex = 0;
  nextPassTick = 0;

  private count = 0;
  /** HIT_FIELDS numbers a hit, in order of placed tick. */
  private hits = new Float64Array(0);
  /** The window as it was asked for; a length of 0 is the whole pattern. */
  private wanted = { start: 0, length: 0 };
  /** The hits within the window: from this index to before that one. */
  private first = 0;
  private end = 0;

  /** One number of a hit. */
  get(index: number, field: number): number {
    return this.hits[index * HIT_FIELDS + field]!;
  }

  /** Index after the last hit in the window. */
  get windowEnd(): number {
    return this.end;
  }

  /**
   * Takes over a pattern.
   * @param length ticks
   * @param hits HIT_FIELDS numbers a hit, in order of placed tick, each with 0 <= tick < length
   * @param feels FEEL_FIELDS numbers a pad, or nothing when no pad has a Feel
   */
  load(length: number, hits: Float64Array, feels?: Float64Array): void {
    this.length = length;
    this.count = hits.length / HIT_FIELDS;
    this.reserve(this.count + ROOM_TO_RECORD);
    this.hits.set(hits);
    for (let pad = 0; pad < PADS; pad++) this.feels[pad] = feels ? readFeel(feels, pad * FEEL_FIELDS) : null;
    this.fit();
  }

  /** Lets a stretch of the pattern go round; a length of 0 is all of it. */
  setWindow(start: number, length: number): void {
    this.wanted = { start, length };
    this.fit();
  }

  /** Whether this window goes round already. */
  hasWindow(start: number, length: number): boolean {
    return length > 0 ? this.start === start && this.span === length : this.span === this.length;
  }

  /** Takes over the Moves: control, pad, number of points, then tick and value of each, over and over. */
  loadMoves(numbers: Float64Array): void {
    this.moves.fill(null);
    for (let i = 0; i < numbers.length;) {
      const end = i + 3 + numbers[i + 2]! * 2;
      this.moves[moveIndex(numbers[i + 1]!, numbers[i]!)] = numbers.slice(i + 3, end);
      i = end;
    }
  }

  /**
   * Adds a plain hit at its place; a hit of the same pad on the same tick gives way to it (see `soundingHits`).
   * @param tick in the pattern
   * @param pitch semitones
   * @param length ticks
   */
  insert(tick: number, struck: number, pad: number, velocity: number, id: number, pitch: number, length: number): void {
    if (tick < 0 || tick >= this.length) return;
    let i = this.firstAfter(tick);
    while (i > 0 && this.get(i - 1, HIT.TICK) === tick && this.get(i - 1, HIT.PAD) >= pad) i--;
    const replaces = i < this.count && this.get(i, HIT.TICK) === tick && this.get(i, HIT.PAD) === pad;
    if (!replaces) {
      this.reserve(this.count + 1);
      this.hits.copyWithin((i + 1) * HIT_FIELDS, i * HIT_FIELDS, this.count * HIT_FIELDS);
      this.count++;
    }
    const { hits } = this;
    const at = i * HIT_FIELDS;
    hits.fill(0, at, at + HIT_FIELDS);
    hits[at + HIT.TICK] = tick;
    hits[at + HIT.STRUCK] = struck;
    hits[at + HIT.PAD] = pad;
    hits[at + HIT.VELOCITY] = velocity;
    hits[at + HIT.ID] = id;
    hits[at + HIT.ODDS] = 1;
    hits[at + HIT.PITCH] = pitch;
    hits[at + HIT.LENGTH] = length;
    this.findEnds();
  }

  /** How long a hit was held is known. */
  setLength(id: number, length: number): void {
    for (let i = 0; i < this.count; i++) {
      if (this.get(i, HIT.ID) === id) this.hits[i * HIT_FIELDS + HIT.LENGTH] = length;
    }
  }

  /**
   * The first song tick after `songTick`, by more than SAME_TICKS, at which a hit is placed; Infinity when the loop is empty.
   * Sets `nextIndex` and `nextPassTick`. Nothing plays before the launch.
   */
  nextTick(songTick: number): number {
    if (this.end <= this.first || this.span <= 0) return Infinity;
    const { start, span } = this;
    // A hit at the tick itself has been met, whatever the last bits of the arithmetic say.
    const since = Math.max(songTick, this.launchTick - 2 * SAME_TICKS) - this.launchTick - start + SAME_TICKS;
    let pass = Math.floor(since / span);
    let index = this.firstAfter(start + (since - pass * span));
    if (index >= this.end) {
      pass++;
      index = this.first;
    }
    this.nextIndex = index;
    this.nextPassTick = this.launchTick + pass * span;
    return this.nextPassTick + this.get(index, HIT.TICK);
  }

  /** Where the loop is at a song tick, in the pattern. */
  positionAt(songTick: number): number {
    const since = songTick - this.launchTick - this.start;
    return this.start + since - Math.floor(since / this.span) * this.span;
  }

  private fit(): void {
    const { start, length } = this.wanted;
    const fitted = length > 0 ? fitWindow(start, length, this.length) : { start: 0, length: this.length };
    this.start = fitted.start;
    this.span = fitted.length;
    this.findEnds();
  }

  private findEnds(): void {
    this.first = this.firstFrom(this.start);
    this.end = this.firstFrom(this.start + this.span);
  }

  /** Index of the first hit placed after `tick`. */
  private firstAfter(tick: number): number {
    let low = 0;
    let high = this.count;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.get(middle, HIT.TICK) <= tick) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Index of the first hit placed at `tick` or after it. */
  private firstFrom(tick: number): number {
    let index = this.firstAfter(tick);
    while (index > 0 && this.get(index - 1, HIT.TICK) === tick) index--;
    return index;
  }

  private reserve(hits: number): void {
    if (hits * HIT_FIELDS <= this.hits.length) return;
    const grown = new Float64Array((hits + ROOM_TO_RECORD) * HIT_FIELDS);
    grown.set(this.hits);
    this.hits = grown;
  }
}

function readFeel(numbers: Float64Array, at: number): Snap | null {
  const [grid, strength, unit, ratio, spare] = numbers.subarray(at, at + FEEL_FIELDS) as unknown as number[];
  if (grid! < 0) return null;
  return { grid: grid!, strength: strength!, spare, ...(unit! > 0 && { swing: { unit: unit!, ratio: ratio! } }) };
}
