import { sinTurns } from '../math';

/** So far turning on from an exact value adds up to no error that counts. */
const TURNED = 64;

/**
 * Inverse Fourier transforms of one size, without any scaling. Made of our own sine: the library's tables come from `Math.cos`, which
 * is not the same to the bit everywhere, and what the engine makes of it must be.
 *
 * Decimation in time, radix two (J. Cooley and J. Tukey, 1965).
 */
export class InverseFourier {
  private readonly sine: Float64Array;
  private readonly cosine: Float64Array;

  /** @param size a power of two, at least 4 */
  constructor(private readonly size: number) {
    this.sine = new Float64Array(size / 2);
    this.cosine = new Float64Array(size / 2);
    const turnSine = sinTurns(1 / size);
    const turnCosine = sinTurns(1 / size + 0.25);
    for (let start = 0; start < size / 2; start += TURNED) this.turnOn(start, turnSine, turnCosine);
  }

  /** Fills in a stretch of sine and cosine, from an exact one on by turning: many times quicker than one by one. */
  private turnOn(start: number, turnSine: number, turnCosine: number): void {
    let sine = sinTurns(start / this.size);
    let cosine = sinTurns(start / this.size + 0.25);
    for (let i = start; i < Math.min(start + TURNED, this.size / 2); i++) {
      this.sine[i] = sine;
      this.cosine[i] = cosine;
      const next = sine * turnCosine + cosine * turnSine;
      cosine = cosine * turnCosine - sine * turnSine;
      sine = next;
    }
  }

  /** Where the transform wants a bin: all of them stand in the order of their bits turned round. */
  placeOf(bin: number): number {
    let place = 0;
    for (let bit = 1; bit < this.size; bit *= 2) place = place * 2 + (bin & bit ? 1 : 0);
    return place;
  }

  /** Transforms in place: from bins at their places to samples in their order. */
  transform(real: Float64Array, imaginary: Float64Array): void {
    this.joinFours(real, imaginary);
    for (let half = 4; half < this.size; half *= 2) {
      for (let start = 0; start < this.size; start += 2 * half) this.join(real, imaginary, start, half);
    }
  }

  /** The first two rounds, whose turns are quarters: without a multiplication. */
  private joinFours(real: Float64Array, imaginary: Float64Array): void {
    for (let i = 0; i < this.size; i += 4) {
      const a = real[i]! + real[i + 1]!;
      const b = real[i]! - real[i + 1]!;
      const c = real[i + 2]! + real[i + 3]!;
      const d = real[i + 2]! - real[i + 3]!;
      const p = imaginary[i]! + imaginary[i + 1]!;
      const q = imaginary[i]! - imaginary[i + 1]!;
      const r = imaginary[i + 2]! + imaginary[i + 3]!;
      const s = imaginary[i + 2]! - imaginary[i + 3]!;
      real[i] = a + c;
      imaginary[i] = p + r;
      real[i + 1] = b - s;
      imaginary[i + 1] = q + d;
      real[i + 2] = a - c;
      imaginary[i + 2] = p - r;
      real[i + 3] = b + s;
      imaginary[i + 3] = q - d;
    }
  }

  /** Two transforms of `half` become one of twice that. */
  private join(real: Float64Array, imaginary: Float64Array, start: number, half: number): void {
    const { sine, cosine } = this;
    const stride = this.size / (2 * half);
    for (let a = start, b = start + half, turn = 0; a < start + half; a++, b++, turn += stride) {
      const realB = real[b]!;
      const imaginaryB = imaginary[b]!;
      const turnSine = sine[turn]!;
      const turnCosine = cosine[turn]!;
      const x = realB * turnCosine - imaginaryB * turnSine;
      const y = realB * turnSine + imaginaryB * turnCosine;
      const realA = real[a]!;
      const imaginaryA = imaginary[a]!;
      real[b] = realA - x;
      imaginary[b] = imaginaryA - y;
      real[a] = realA + x;
      imaginary[a] = imaginaryA + y;
    }
  }
}
