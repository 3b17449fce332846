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
    this.steps.fill(0);
    for (let i = 0; i < NUMBERS; i++) this.numbers[i] = this.targets[i]!;
  }

  /** Filters frames of both channels in place. Side by side: each waits for its last sample most of the time. */
  process(left: Float64Array, right: Float64Array, from: number, frames: number): void {
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
    let l1 = held[0]!;
    let l2 = held[1]!;
    let r1 = held[2]!;
    let r2 = held[3]!;
    for (let i = from; i < from + frames; i++) {
      const l = left[i]!;
      const r = right[i]!;
      const aboveLeft = l - l2;
      const aboveRight = r - r2;
      const bandLeft = a1 * l1 + a2 * aboveLeft;
      const bandRight = a1 * r1 + a2 * aboveRight;
      const lowLeft = l2 + a2 * l1 + a3 * aboveLeft;
      const lowRight = r2 + a2 * r1 + a3 * aboveRight;
      l1 = 2 * bandLeft - l1;
      r1 = 2 * bandRight - r1;
      l2 = 2 * lowLeft - l2;
      r2 = 2 * lowRight - r2;
      left[i] = m0 * l + m1 * bandLeft + m2 * lowLeft;
      right[i] = m0 * r + m1 * bandRight + m2 * lowRight;
      a1 += s1;
      a2 += s2;
      a3 += s3;
      m0 += t0;
      m1 += t1;
      m2 += t2;
    }
    held[0] = l1;
    held[1] = l2;
    held[2] = r1;
    held[3] = r2;
    numbers[A1] = a1;
    numbers[A2] = a2;
    numbers[A3] = a3;
    numbers[M0] = m0;
    numbers[M1] = m1;
    numbers[M2] = m2;
  }
}

const isSmall = (x: number) => x < QUIET && x > -QUIET;
