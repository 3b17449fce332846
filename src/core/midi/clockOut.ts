import { PPQ } from '../time/ticks';
import { CLOCKS_PER_QUARTER } from './clockEstimate';
import type { SendAt } from './noteKeeper';

/** Song ticks from one clock to the next. */
export const CLOCK_TICKS = PPQ / CLOCKS_PER_QUARTER;
/** Song ticks of a sixteenth, in which the song position is counted (MIDI 1.0: six clocks). */
const SIXTEENTH_TICKS = 6 * CLOCK_TICKS;
/** Start comes before the first clock, which is the first beat, ms. */
const BEFORE_MS = 1;

/** Sends a song's clock: start or continue, a clock every `CLOCK_TICKS`, stop. */
export class ClockOut {
  /** The next clock, counted from the song's top; NaN while the song stands still. */
  private next = NaN;

  constructor(private readonly send: SendAt) {}

  /**
   * The song plays from a tick on, a count-in before it left out.
   * @param timeOf when a song tick is heard, ms
   */
  start(fromTick: number, timeOf: (tick: number) => number): void {
    const sixteenth = Math.ceil(fromTick / SIXTEENTH_TICKS - 1e-6);
    this.next = sixteenth * 6;
    const at = timeOf(sixteenth * SIXTEENTH_TICKS) - BEFORE_MS;
    if (sixteenth === 0) return this.send({ type: 'start' }, at);
    this.send({ type: 'songPosition', sixteenths: sixteenth % 16384 }, at);
    this.send({ type: 'continue' }, at);
  }

  /** Sends the clocks that are heard by a time, ms. */
  until(at: number, timeOf: (tick: number) => number): void {
    for (;;) {
      const due = timeOf(this.next * CLOCK_TICKS);
      if (!(due <= at)) return;
      this.send({ type: 'clock' }, due);
      this.next++;
    }
  }

  stop(at: number): void {
    if (Number.isNaN(this.next)) return;
    this.next = NaN;
    this.send({ type: 'stop' }, at);
  }
}
