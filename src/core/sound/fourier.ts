import { sinTurns } from '../math';
import { FOURIER_WASM } from './fourierWasm';
import { instantiate, numbersRoom, soundMemory } from './soundMemory';

interface Exports {
  energy(frames: number, from: number): number;
  copy(frames: number, from: number, to: number, gain: number): void;
  joinFours(size: number, real: number, imaginary: number): void;
  joinRounds(size: number, real: number, imaginary: number, sine: number, cosine: number): void;
}

const fast = instantiate<Exports>(FOURIER_WASM);

/** So far turning on from an exact value adds up to no error that counts. */
const TURNED = 64;

const made = new Map<number, InverseFourier>();

/** The transform of a size, a power of two, at least 8: whoever needs one shares it. */
export function fourierOf(size: number): InverseFourier {
  let fourier = made.get(size);
  if (!fourier) made.set(size, (fourier = new InverseFourier(size)));
  return fourier;
}

const isShared = (...rooms: readonly (Float64Array | Float32Array)[]) =>
  rooms.every(({ buffer }) => buffer === soundMemory);

/** The sum of squares. */
export function energyOf(sound: Float64Array): number {
  if (fast && isShared(sound)) return fast.energy(sound.length, sound.byteOffset);
  let sum = 0;
  for (let i = 0; i < sound.length; i++) sum += sound[i]! * sound[i]!;
  return sum;
}

/** Copies a sound to the beginning of another one, so many times as loud. */
export function copyInto(to: Float32Array, sound: Float64Array, gain: number): void {
  if (fast && isShared(sound, to)) return fast.copy(sound.length, sound.byteOffset, to.byteOffset, gain);
  for (let i = 0; i < sound.length; i++) to[i] = sound[i]! * gain;
}

/**
 * Inverse Fourier transforms of one size, without any scaling. Made of our own sine: the library's tables come from `Math.cos`, which
 * is not the same to the bit everywhere, and what the engine makes of it must be.
 *
 * Decimation in time, radix two (J. Cooley and J. Tukey, 1965).
 */
class InverseFourier {
  /** What is transformed, in place: from bins at their places to samples in their order. */
  readonly real: Float64Array;
  readonly imaginary: Float64Array;
  private readonly sine: Float64Array;
  private readonly cosine: Float64Array;

  constructor(private readonly size: number) {
    this.real = numbersRoom(size);
    this.imaginary = numbersRoom(size);
    this.sine = numbersRoom(size / 2);
    this.cosine = numbersRoom(size / 2);
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

  /** Sets all bins to 0. */
  clear(): void {
    this.real.fill(0);
    this.imaginary.fill(0);
  }

  transform(): void {
    const { size, real, imaginary, sine, cosine } = this;
    if (!fast || !isShared(real, imaginary, sine, cosine)) return this.transformSlowly();
    fast.joinFours(size, real.byteOffset, imaginary.byteOffset);
    fast.joinRounds(size, real.byteOffset, imaginary.byteOffset, sine.byteOffset, cosine.byteOffset);
  }

  /** What fourier.wat does. */
  transformSlowly(): void {
    const { size, real, imaginary } = this;
    this.joinFours(real, imaginary);
    for (let half = 4; half < size; half *= 2) {
      for (let start = 0; start < size; start += 2 * half) this.join(real, imaginary, start, half);
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
