import { placeOf, type Binding } from './binding';
import { STEPS_OF_RANGE } from './encodings';

/** A knob meets what it works when it stands so near to it, 0..1. */
const MEETS = 0.5 / 127;

/**
 * One knob on one function: how it takes over what stands elsewhere. Places are 0..1 of the function's whole range.
 */
export class KnobTakeover {
  /** Where the knob put the function last; NaN before it did. */
  private put = NaN;
  /** Where the knob stood last; NaN before it moved. */
  private stood = NaN;

  /**
   * The knob has moved.
   * @param binding how it works
   * @param x where it stands now, 0..1
   * @param now where the function stands, 0..1
   * @returns where it puts the function; null: not yet
   */
  move(binding: Binding, x: number, now: number): number | null {
    const wanted = placeOf(binding, x);
    const { stood } = this;
    this.stood = x;
    if (binding.takeover === 'relative') return this.moveBy(binding, stood, x, now);
    if (binding.takeover === 'jump' || this.holds(now)) return this.take(wanted);
    // Waits until the knob passes by where the function stands: it was on the one side, and is on the other.
    const before = Number.isNaN(stood) ? NaN : placeOf(binding, stood);
    const passes = Math.abs(wanted - now) <= MEETS || (before - now) * (wanted - now) < 0;
    return passes ? this.take(wanted) : null;
  }

  /**
   * An endless encoder was turned by so many steps: there is nothing to take over.
   * @param now where the function stands, 0..1
   */
  turn(binding: Binding, steps: number, now: number): number {
    const { from, to } = binding;
    const moved = now + (steps / STEPS_OF_RANGE) * (to - from);
    return this.take(within(moved, from, to));
  }

  /** The function goes as far as the knob goes; at the knob's ends it is at its own. */
  private moveBy(binding: Binding, stood: number, x: number, now: number): number | null {
    if (x === 0 || x === 1) return this.take(placeOf(binding, x));
    if (Number.isNaN(stood)) return null;
    return this.take(within(now + placeOf(binding, x) - placeOf(binding, stood), binding.from, binding.to));
  }

  /** Nobody else has moved the function since. */
  private holds(now: number): boolean {
    return Math.abs(this.put - now) <= MEETS;
  }

  private take(place: number): number {
    this.put = place;
    return place;
  }
}

function within(value: number, from: number, to: number): number {
  return Math.min(Math.max(from, to), Math.max(Math.min(from, to), value));
}
