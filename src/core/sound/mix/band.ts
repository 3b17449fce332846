import { A1, A2, A3, filter, filter1, filter3, FILTER_NUMBERS, FIRST_STEP, HELD, isQuick, M0, M1, M2 } from './filterLoops'; // prettier-ignore
import { setOut, stayThere } from './glide';
import { isEmpty } from './isEmpty';
import type { MixBus } from './mixBus';

/**
 * One filter of the mix, in two channels: state-variable with trapezoidal integrators. Its output is a sum of input, band and low, by
 * which one structure is every filter of the Audio EQ Cookbook to the same response, and none of them clicks when it moves (A. Simper,
 * Solving the continuous SVF equations using trapezoidal integration, 2013).
 */
export class Band {
  private readonly numbers = new Float64Array(FILTER_NUMBERS);
  /** Where those that move will be at the next look. */
  private readonly targets = new Float64Array(FIRST_STEP);
  /** Whether its numbers move until the next look. */
  isMoving = false;

  /** Whether nothing rings in it. */
  get isQuiet(): boolean {
    return isEmpty(this.numbers, HELD);
  }

  clear(): void {
    this.numbers.fill(0, HELD);
  }

  /** Forgets what is as good as nothing: arithmetic on the smallest numbers there are is many times slower. Called at looks alone. */
  settle(): void {
    if (this.isQuiet) this.clear();
  }

  /**
   * In one look its numbers will be these.
   * @param g tangent of half the cutoff's turns a sample
   * @param k damping, 1 / Q
   * @param m0 share of the input, m1 of the band, m2 of the low-pass
   */
  moveTo(g: number, k: number, m0: number, m1: number, m2: number): void {
    const { targets } = this;
    const a1 = 1 / (1 + g * (g + k));
    targets[A1] = a1;
    targets[A2] = g * a1;
    targets[A3] = g * g * a1;
    targets[M0] = m0;
    targets[M1] = m1;
    targets[M2] = m2;
    setOut(this.numbers, targets);
    this.isMoving = true;
  }

  /** It is where it was told to be, and stays there. */
  stay(): void {
    if (!this.isMoving) return;
    this.isMoving = false;
    stayThere(this.numbers, this.targets);
  }

  /** Filters frames of both channels in place. */
  process(bus: MixBus, from: number, frames: number): void {
    if (isQuick && !this.isMoving) filter1(this.numbers, bus, from, frames);
    else filter(this.numbers, bus, from, frames);
  }

  /** Filters frames by three of them, one after the other. */
  static processThree(one: Band, two: Band, three: Band, bus: MixBus, from: number, frames: number): void {
    if (isQuick && !one.isMoving && !two.isMoving && !three.isMoving) {
      return filter3(one.numbers, two.numbers, three.numbers, bus, from, frames);
    }
    one.process(bus, from, frames);
    two.process(bus, from, frames);
    three.process(bus, from, frames);
  }
}
