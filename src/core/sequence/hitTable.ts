import { MAX_HITS } from '../document/limits';
import { HIT_WIDTH, HIT } from './hitRows';

/** Rows that the first hit which is added to a table makes room for. */
const FIRST_ROOM = 64;

/** Rows in their own order, to copy from: a loop that runs once for each pattern stays slow, as V8 has no time to compile it. */
const IN_ORDER = Uint32Array.from({ length: MAX_HITS }, (_, row) => row);

/**
 * The hits of a pattern in order of placed tick, as the audio thread plays them. The rows that came in a message are kept as
 * they are; rows that are added or altered lie in an array of their own, and an index of rows says their order. The index has its
 * spare room where something was inserted last (a gap buffer): hits are recorded one near the other, so an insertion moves little.
 */
export class HitTable {
  count = 0;
  private base: Float64Array = new Float64Array(0);
  private baseRows = 0;
  private added = new Float64Array(0);
  private addedRows = 0;
  /** Rows of `added` that hold no hit any more. */
  private free: number[] = [];
  /** Row of each hit, with a gap; null while the rows of `base` are all, in their own order. */
  private order: Uint32Array | null = null;
  /** The gap in `order`: as many places as there is room for more hits, before the hit of this index. */
  private gap = 0;

  /** Takes at most MAX_HITS rows over as all of its hits: HIT_WIDTH numbers each, in order of placed tick. The table owns them now. */
  adopt(rows: Float64Array): void {
    this.base = rows;
    this.baseRows = this.count = rows.length / HIT_WIDTH;
    this.addedRows = 0;
    this.free.length = 0;
    this.order = null;
  }

  /** One number of a hit: `field` is one of `HIT`. */
  get(index: number, field: number): number {
    const row = this.order ? this.order[this.placeOf(index, this.order)]! : index;
    return row < this.baseRows
      ? this.base[row * HIT_WIDTH + field]!
      : this.added[(row - this.baseRows) * HIT_WIDTH + field]!;
  }

  /** Index of the first hit placed after `tick`. */
  firstAfter(tick: number): number {
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
  firstFrom(tick: number): number {
    let index = this.firstAfter(tick);
    while (index > 0 && this.get(index - 1, HIT.TICK) === tick) index--;
    return index;
  }

  /**
   * Adds the hit of a row at its place; a hit of the same pad on the same tick gives way to it (see `soundingHits`).
   * @returns whether there is one hit more than before
   */
  insert(rows: Float64Array, at = 0): boolean {
    const tick = rows[at + HIT.TICK]!;
    const pad = rows[at + HIT.PAD]!;
    let index = this.firstAfter(tick);
    while (index > 0 && this.get(index - 1, HIT.TICK) === tick && this.get(index - 1, HIT.PAD) >= pad) index--;
    const replaces = index < this.count && this.get(index, HIT.TICK) === tick && this.get(index, HIT.PAD) === pad;
    const row = this.freeRow();
    for (let i = 0; i < HIT_WIDTH; i++) this.added[row * HIT_WIDTH + i] = rows[at + i]!;
    const order = this.writableOrder(this.count + 1);
    if (replaces) {
      const place = this.placeOf(index, order);
      this.release(order[place]!);
      order[place] = this.baseRows + row;
      return false;
    }
    this.moveGap(index, order);
    order[this.gap++] = this.baseRows + row;
    this.count++;
    return true;
  }

  /** Takes out every hit whose id is asked for. */
  remove(ids: ReadonlySet<number>): void {
    if (ids.size === 0) return;
    // Ids that were given one after the other lie close together: the set need not be asked for most hits.
    let least = Infinity;
    let most = -Infinity;
    for (const id of ids) {
      if (id < least) least = id;
      if (id > most) most = id;
    }
    const order = this.writableOrder(this.count);
    this.moveGap(this.count, order);
    let kept = 0;
    for (let i = 0; i < this.count; i++) {
      const id = this.get(i, HIT.ID);
      if (id >= least && id <= most && ids.has(id)) this.release(order[i]!);
      else order[kept++] = order[i]!;
    }
    this.count = this.gap = kept;
  }

  /** Sets a hit's length, ticks, once its pad has come up. */
  setLength(id: number, length: number): void {
    // What was played just now was added last: it is looked for there first.
    for (let row = this.addedRows - 1; row >= 0; row--) {
      if (this.added[row * HIT_WIDTH + HIT.ID] !== id) continue;
      this.added[row * HIT_WIDTH + HIT.LENGTH] = length;
      return;
    }
    for (let index = 0; index < this.count; index++) {
      if (this.get(index, HIT.ID) !== id) continue;
      const row = this.freeRow();
      for (let i = 0; i < HIT_WIDTH; i++) this.added[row * HIT_WIDTH + i] = this.get(index, i);
      this.added[row * HIT_WIDTH + HIT.LENGTH] = length;
      const order = this.writableOrder(this.count);
      order[this.placeOf(index, order)] = this.baseRows + row;
      return;
    }
  }

  /** A row of `added` to write into. */
  private freeRow(): number {
    const free = this.free.pop();
    if (free !== undefined) return free;
    if ((this.addedRows + 1) * HIT_WIDTH > this.added.length) {
      const grown = new Float64Array(Math.max(FIRST_ROOM * HIT_WIDTH, this.added.length * 2));
      grown.set(this.added);
      this.added = grown;
    }
    return this.addedRows++;
  }

  private release(row: number): void {
    if (row < this.baseRows) return;
    this.added[(row - this.baseRows) * HIT_WIDTH + HIT.ID] = -1; // no hit is found there
    this.free.push(row - this.baseRows);
  }

  /** Where in `order` the row of a hit stands. */
  private placeOf(index: number, order: Uint32Array): number {
    return index < this.gap ? index : index + order.length - this.count;
  }

  /** Moves the gap before the hit of an index. */
  private moveGap(index: number, order: Uint32Array): void {
    const room = order.length - this.count;
    if (index < this.gap) order.copyWithin(index + room, index, this.gap);
    else order.copyWithin(this.gap, this.gap + room, index + room);
    this.gap = index;
  }

  /** The order as an array with room for so many. */
  private writableOrder(room: number): Uint32Array {
    const { order } = this;
    if (order && order.length >= room) return order;
    const grown = new Uint32Array(Math.max(FIRST_ROOM, room + (room >> 1)));
    if (order) {
      this.moveGap(this.count, order);
      grown.set(order.subarray(0, this.count));
    } else grown.set(IN_ORDER.subarray(0, this.count));
    this.order = grown;
    this.gap = this.count;
    return grown;
  }
}
