import { nextLine } from '../quantize/grid';
import type { Swing } from '../quantize/swing';

/** How late after a line, as a share of the rate, a press still means that line. */
const LATE_SHARE = 0.25;

/**
 * Note repeat of one pad: strokes on the lines of its rate for as long as it is held (or latched). Lines are counted on
 * the song's ticks while it plays, else on those since the first press; they are computed, never added up.
 */
export class RepeatingPad {
  active = false;
  /** Held by a finger, key or controller now. */
  down = false;
  /** Pressed, and not yet sounded: the stroke that the press asked for is still to come. */
  owed = false;
  /** Ticks between strokes. */
  rate = 240;
  /** Of the strokes to come, 0..1. */
  velocity = 1;
  /** Semitones away from the pad's own note. */
  pitch = 0;
  /** Its strokes are recorded nowhere. */
  through = false;
  /** Tick of the next stroke. */
  next = Infinity;
  /** Which press it was, where held notes take turns. */
  pressed = 0;
  /** Frame of the last stroke: the pattern's own hit of that moment gives way to it. */
  lastFrame = -1;

  /**
   * Begins with a press.
   * @param heard tick that the player heard when they pressed
   * @param now tick that the engine has reached
   * @returns the tick of the line that the press meant if it is due already and must sound at once; null when it is to come
   */
  press(heard: number, now: number, velocity: number, swing?: Swing): number | null {
    this.active = true;
    this.down = true;
    this.velocity = velocity;
    // Less a rounding error, so that a press exactly on the limit still counts.
    const meant = nextLine(heard - this.rate * LATE_SHARE - 1e-6, this.rate, swing);
    if (meant > now) {
      this.next = meant;
      this.owed = true;
      return null;
    }
    this.next = nextLine(now, this.rate, swing);
    return meant;
  }

  /** Goes on with another rate, from the next of its lines. */
  changeRate(rate: number, now: number, swing?: Swing): void {
    if (rate === this.rate) return;
    this.rate = rate;
    if (this.active) this.next = nextLine(now, rate, swing);
  }

  /** Its stroke has sounded. */
  sounded(frame: number): void {
    this.owed = false;
    this.lastFrame = frame;
  }

  /** The line at `next` has passed. */
  advance(swing?: Swing): void {
    this.next = nextLine(this.next, this.rate, swing);
  }

  /** The ticks are counted from elsewhere now: goes on at the first line from `tick` on. */
  resume(tick: number, swing?: Swing): void {
    if (this.active) this.next = nextLine(tick - 1e-6, this.rate, swing);
  }

  end(): void {
    this.active = false;
    this.owed = false;
    this.next = Infinity;
  }
}
