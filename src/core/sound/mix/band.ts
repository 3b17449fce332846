import { LOOK_FRAMES } from './glide';

/** What of a band moves with each sample, and by how much. */
const NUMBERS = 6;
const [A1, A2, A3, M0, M1, M2] = [0, 1, 2, 3, 4, 5] as const;
/** What a filter holds that is as good as empty. */
const QUIET = 1e-12;

/**
 * One filter of the mix, in two channels: state-variable with trapezoidal integrators. Its output is a sum of input, band and low, by
 * which one structure is every filter of the Audio EQ Cookbook to the same response, and none of them clicks when it moves (A. Simper,
 * Solving the continuous SVF equations using trapezoidal integration, 2013).
 */
export class Band {
  /** Where the numbers are, the steps that they take with each sample, and where they will be at the next look. */
  private readonly numbers = new Float64Array(NUMBERS);
  private readonly steps = new Float64Array(NUMBERS);
  private readonly targets = new Float64Array(NUMBERS);
  private isMoving = false;
  /** Of each channel: the states of both integrators. */
  private readonly held = new Float64Array(4);

  /** Whether nothing rings in it. */
  get isQuiet(): boolean {
    const { held } = this;
    return isSmall(held[0]!) && isSmall(held[1]!) && isSmall(held[2]!) && isSmall(held[3]!);
  }

  clear(): void {
    this.held.fill(0);
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
    const { numbers, steps, targets } = this;
    const a1 = 1 / (1 + g * (g + k));
    targets[A1] = a1;
    targets[A2] = g * a1;
    targets[A3] = g * g * a1;
    targets[M0] = m0;
    targets[M1] = m1;
    targets[M2] = m2;
    for (let i = 0; i < NUMBERS; i++) steps[i] = (targets[i]! - numbers[i]!) / LOOK_FRAMES;
    this.isMoving = true;
  }

  /** It is where it was told to be, and stays there. */
  stay(): void {
    if (!this.isMoving) return;
    this.isMoving = false;
    for (let i = 0; i < NUMBERS; i++) this.numbers[i] = this.targets[i]!;
  }

  /** Filters frames of both channels in place. */
  process(left: Float64Array, right: Float64Array, from: number, frames: number): void {
    if (this.isMoving) {
      this.move(left, 0, from, frames);
      this.move(right, 2, from, frames);
      this.advance(frames);
    } else {
      this.filter(left, 0, from, frames);
      this.filter(right, 2, from, frames);
    }
  }

  private filter(sound: Float64Array, at: number, from: number, frames: number): void {
    const { numbers, held } = this;
    const a1 = numbers[A1]!;
    const a2 = numbers[A2]!;
    const a3 = numbers[A3]!;
    const m0 = numbers[M0]!;
    const m1 = numbers[M1]!;
    const m2 = numbers[M2]!;
    let one = held[at]!;
    let two = held[at + 1]!;
    for (let i = from; i < from + frames; i++) {
      const x = sound[i]!;
      const above = x - two;
      const band = a1 * one + a2 * above;
      const low = two + a2 * one + a3 * above;
      one = 2 * band - one;
      two = 2 * low - two;
      sound[i] = m0 * x + m1 * band + m2 * low;
    }
    held[at] = one;
    held[at + 1] = two;
  }

  private move(sound: Float64Array, at: number, from: number, frames: number): void {
    const { numbers, steps, held } = this;
    let a1 = numbers[A1]!;
    let a2 = numbers[A2]!;
    let a3 = numbers[A3]!;
    let m0 = numbers[M0]!;
    let m1 = numbers[M1]!;
    let m2 = numbers[M2]!;
    const s1 = steps[A1]!;
    const s2 = steps[A2]!;
    const s3 = steps[A3]!;
    const t0 = steps[M0]!;
    const t1 = steps[M1]!;
    const t2 = steps[M2]!;
    let one = held[at]!;
    let two = held[at + 1]!;
    for (let i = from; i < from + frames; i++) {
      const x = sound[i]!;
      const above = x - two;
      const band = a1 * one + a2 * above;
      const low = two + a2 * one + a3 * above;
      one = 2 * band - one;
      two = 2 * low - two;
      sound[i] = m0 * x + m1 * band + m2 * low;
      a1 += s1;
      a2 += s2;
      a3 += s3;
      m0 += t0;
      m1 += t1;
      m2 += t2;
    }
    held[at] = one;
    held[at + 1] = two;
  }

  private advance(frames: number): void {
    const { numbers, steps } = this;
    // In one sum after another, as the loop has it: however it is cut, it is the same.
    for (let n = 0; n < NUMBERS; n++) {
      const step = steps[n]!;
      let value = numbers[n]!;
      for (let i = 0; i < frames; i++) value += step;
      numbers[n] = value;
    }
  }
}

const isSmall = (x: number) => x < QUIET && x > -QUIET;
