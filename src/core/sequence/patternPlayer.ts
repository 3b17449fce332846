import { isMixTable, MOVE_TABLES } from '../document/moves';
import type { Snap } from '../quantize/place';
import { mod, SAME_TICKS } from '../time/ticks';
import { HIT_WIDTH, readFeel, readMoves, HIT } from './hitRows';
import { HitTable } from './hitTable';
import { fitWindow } from './loopWindow';
import { PADS } from '../document/limits';

const NO_FEELS: readonly null[] = new Array<null>(PADS).fill(null);
const NO_MOVES: readonly null[] = new Array<null>(MOVE_TABLES).fill(null);

/**
 * Plays one pattern as a loop: says which placed hit comes next in the song. Positions are computed from the launch tick,
 * never added up, so loops of different lengths never drift apart, and a loop whose window moved is where it would have been.
 */
export class PatternPlayer {
  /** Length of the pattern in ticks; 0 = nothing to play. */
  length = 0;
  /** The stretch of it that goes round. */
  start = 0;
  span = 0;
  /** Song tick at which the loop was launched: where the pattern's tick 0 lies. */
  launchTick = 0;
  /** The Feel in force for each pad, or null: what places a new stroke instead of the input grid. */
  feels: readonly (Snap | null)[] = NO_FEELS;
  /** Breakpoints of each control (see `moveTable`), or null; whether there are any of pads, and which of those of the mix. */
  moves: readonly (Float64Array | null)[] = NO_MOVES;
  movesPads = false;
  mixTables: readonly number[] = [];
  /** Index of the first hit at the tick that `nextTick` found, and the song tick of the pattern's tick 0 in its pass. */
  nextIndex = 0;
  nextPassTick = 0;

  readonly hits = new HitTable();
  /** The window as it was asked for; a length of 0 is the whole pattern. */
  private wantedStart = 0;
  private wantedLength = 0;
  /** The hits within the window: from this index to before that one. */
  private first = 0;
  private end = 0;

  /** Index after the last hit in the window. */
  get windowEnd(): number {
    return this.end;
  }

  /**
   * Takes over a pattern.
   * @param length ticks
   * @param hits rows (see `HIT`) in order of placed tick, each with 0 <= tick < length; the player owns them now
   * @param feels as `feelRows` gives them
   */
  load(length: number, hits: Float64Array, feels: Float64Array | null): void {
    this.length = length;
    this.hits.adopt(hits);
    this.feels = feels ? Array.from(NO_FEELS, (_, pad) => readFeel(feels, pad)) : NO_FEELS;
    this.fit();
  }

  /** Takes out hits by their ids, and adds or replaces those of the rows. */
  edit(removed: Float64Array, rows: Float64Array): void {
    const ids = new Set(removed);
    for (let at = HIT.ID; at < rows.length; at += HIT_WIDTH) ids.add(rows[at]!);
    this.hits.remove(ids);
    for (let at = 0; at < rows.length; at += HIT_WIDTH) this.hits.insert(rows, at);
    this.findEnds();
  }

  /** Lets a stretch of the pattern go round; a length of 0 is all of it. */
  setWindow(start: number, length: number): void {
    this.wantedStart = start;
    this.wantedLength = length;
    this.fit();
  }

  /** Whether this window goes round already. */
  hasWindow(start: number, length: number): boolean {
    return length > 0 ? this.start === start && this.span === length : this.span === this.length;
  }

  /** Takes over the Moves, as `moveRows` gives them. */
  loadMoves(rows: Float64Array): void {
    const moves: (Float64Array | null)[] = rows.length > 0 ? [...NO_MOVES] : [];
    const mixTables: number[] = [];
    this.movesPads = false;
    readMoves(rows, (table, points) => {
      moves[table] = points;
      if (isMixTable(table)) mixTables.push(table);
      else this.movesPads = true;
    });
    this.moves = rows.length > 0 ? moves : NO_MOVES;
    this.mixTables = mixTables;
  }

  /** Adds a hit that was recorded, unless it lies outside of the pattern. */
  insert(row: Float64Array): void {
    const tick = row[HIT.TICK]!;
    if (tick < 0 || tick >= this.length) return;
    if (!this.hits.insert(row)) return;
    if (tick < this.start) this.first++;
    if (tick < this.start + this.span) this.end++;
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
    let index = this.hits.firstAfter(start + (since - pass * span));
    if (index >= this.end) {
      pass++;
      index = this.first;
    }
    this.nextIndex = index;
    this.nextPassTick = this.launchTick + pass * span;
    return this.nextPassTick + this.hits.get(index, HIT.TICK);
  }

  /** Where the loop is at a song tick, in ticks of the pattern; NaN when nothing goes round. */
  positionAt(songTick: number): number {
    if (this.span <= 0) return NaN;
    const since = songTick - this.launchTick - this.start;
    return this.start + since - Math.floor(since / this.span) * this.span;
  }

  /** A tick of the pattern brought into the loop, round its ends. */
  wrapped(tick: number): number {
    const { start, span } = this;
    if (tick >= start && tick < start + span) return tick;
    const wrapped = start + mod(tick - start, span);
    return wrapped < start + span ? wrapped : start; // a hair before the start
  }

  private fit(): void {
    const { wantedStart, wantedLength } = this;
    const whole = wantedLength <= 0;
    const fitted = whole ? null : fitWindow(wantedStart, wantedLength, this.length);
    this.start = fitted?.start ?? 0;
    this.span = fitted?.length ?? this.length;
    this.findEnds();
  }

  private findEnds(): void {
    this.first = this.hits.firstFrom(this.start);
    this.end = this.hits.firstFrom(this.start + this.span);
  }
}
