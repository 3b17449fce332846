import { median } from '../statistics';

/** Clocks to a quarter (MIDI 1.0). */
export const CLOCKS_PER_QUARTER = 24;
/** So many clocks are looked back on at most: four bars of sixteenths would be slower to follow and no steadier. */
const WINDOW = 168;
/** The last few tell whether the tempo has jumped: together they lie further off than jitter puts them, ms. */
const LOOK = 6;
const JUMPED_MS = 2.5;
const KEPT_AT_JUMP = 5;
/** A clock so soon after another, as a share of the distance, or in ms, is the same one again: at 300 BPM they are 8 ms apart. */
const TWICE = 0.3;
const TWICE_MS = 3;
/** For so many clocks the distance is not known well: which were lost is found again with each. */
const EARLY = 12;
/** After a pause of so many distances it is another clock's beginning. */
const PAUSE = 24;

/** A clock that has come: its count, with those that were lost, and when, ms. */
interface Tick {
  count: number;
  at: number;
}

/**
 * The tempo and the place of a MIDI clock, as a straight line through its last ticks (least squares): jitter averages out, ticks that
 * are lost are counted by the gap they leave, and a jump of the tempo begins a new line.
 */
export class ClockEstimate {
  private ticks: Tick[] = [];
  /** ms from one clock to the next, and when count 0 lies. */
  private slope = NaN;
  private origin = NaN;
  private spread = 0;

  /** A clock has come, at a time in ms. */
  take(at: number): void {
    const last = this.ticks[this.ticks.length - 1];
    if (!last) return void this.ticks.push({ count: 0, at });
    const gap = at - last.at;
    const { slope } = this;
    if (gap > PAUSE * (slope || 100) || gap < 0) return this.restart(at);
    if (gap < TWICE_MS || gap < TWICE * slope) return;
    const count = last.count + (Number.isNaN(slope) ? 1 : Math.max(1, Math.round(gap / slope)));
    this.ticks.push({ count, at });
    if (this.ticks.length > WINDOW) this.ticks.shift();
    if (this.ticks.length <= EARLY) this.countAgain();
    if (this.hasJumped()) this.ticks = this.ticks.slice(-KEPT_AT_JUMP);
    this.fit();
  }

  /** Begins anew with a clock at a time. */
  restart(at?: number): void {
    const count = (this.ticks[this.ticks.length - 1]?.count ?? -1) + 1;
    this.ticks = at === undefined ? [] : [{ count, at }];
    this.slope = this.origin = NaN;
    this.spread = 0;
  }

  get isKnown(): boolean {
    return this.ticks.length > LOOK && !Number.isNaN(this.slope);
  }

  /** Quarters a minute; NaN until there are a few clocks. */
  get tempo(): number {
    return 60000 / (this.slope * CLOCKS_PER_QUARTER);
  }

  /** How far its clocks lie from the line, as a standard deviation in ms. */
  get steadyMs(): number {
    return this.spread;
  }

  /** When the last clock came, ms. */
  get lastAt(): number {
    return this.ticks[this.ticks.length - 1]?.at ?? -Infinity;
  }

  /** The count of the last clock. */
  get lastCount(): number {
    return this.ticks[this.ticks.length - 1]?.count ?? -1;
  }

  /** Clocks so far at a time, with a fraction; goes on where clocks fail to come. */
  countAt(at: number): number {
    return (at - this.origin) / this.slope;
  }

  /** Counts the first clocks by the distance that most of them have. */
  private countAgain(): void {
    const { ticks } = this;
    const usual = median(ticks.slice(1).map(({ at }, i) => at - ticks[i]!.at));
    for (let i = 1; i < ticks.length; i++) {
      const [before, tick] = [ticks[i - 1]!, ticks[i]!];
      tick.count = before.count + Math.max(1, Math.round((tick.at - before.at) / usual));
    }
  }

  /** Whether the last clocks all lie off the line of those before. */
  private hasJumped(): boolean {
    if (this.ticks.length < 2 * LOOK || Number.isNaN(this.slope)) return false;
    const off = this.ticks
      .slice(-LOOK)
      .reduce((sum, { count, at }) => sum + at - (this.origin + count * this.slope), 0);
    return Math.abs(off / LOOK) > JUMPED_MS;
  }

  private fit(): void {
    const { ticks } = this;
    const n = ticks.length;
    // From the first one, so that no digits are lost in large times.
    const base = ticks[0]!;
    let [x, y, xx, xy] = [0, 0, 0, 0];
    for (const { count, at } of ticks) {
      const [dx, dy] = [count - base.count, at - base.at];
      x += dx;
      y += dy;
      xx += dx * dx;
      xy += dx * dy;
    }
    const slope = (n * xy - x * y) / (n * xx - x * x);
    const start = (y - slope * x) / n;
    this.slope = slope;
    this.origin = base.at + start - slope * base.count;
    let squares = 0;
    for (const { count, at } of ticks) squares += (at - (this.origin + count * slope)) ** 2;
    this.spread = n > 2 ? Math.sqrt(squares / (n - 2)) : 0;
  }
}
