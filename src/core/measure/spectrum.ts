import FFT from 'fft.js';

/** How much of each frequency is in a sound, from 0 Hz to half the sample rate. */
export interface Spectrum {
  /** Power of each bin; all of them add up to the energy of the sound. */
  power: Float64Array;
  hzPerBin: number;
}

/** Middles of the thirds of an octave from 25 Hz to 20 kHz: 10^(n/10) Hz (IEC 61260-1, base ten). */
export const THIRDS = Array.from({ length: 30 }, (_, i) => 10 ** ((i + 14) / 10));
/** From the middle of a third to its edges: 10^(1/20). */
const TO_EDGE = 10 ** 0.05;
/** What the ear hears, Hz. */
const HEARD = { low: 20, high: 20000 };

/** Transforms by their size: their tables take many times longer to make than one transform takes. */
const transforms = new Map<number, FFT>();

function transformOf(size: number): FFT {
  let transform = transforms.get(size);
  if (!transform) transforms.set(size, (transform = new FFT(size)));
  return transform;
}

/**
 * The spectrum of a whole sound, with no window: for what begins and ends in silence.
 * @param rate frames per second
 */
export function spectrumOf(sound: ArrayLike<number>, rate: number): Spectrum {
  let size = 2;
  while (size < sound.length) size *= 2;
  const fft = transformOf(size);
  const input = new Array<number>(size).fill(0);
  for (let i = 0; i < sound.length; i++) input[i] = sound[i]!;
  const out = fft.createComplexArray() as number[];
  fft.realTransform(out, input);
  const power = new Float64Array(size / 2 + 1);
  for (let bin = 0; bin < power.length; bin++) {
    // Each bin but the first and the last stands for itself and its mirror image.
    const both = bin === 0 || bin === size / 2 ? 1 : 2;
    power[bin] = (both * (out[2 * bin]! ** 2 + out[2 * bin + 1]! ** 2)) / size;
  }
  return { power, hzPerBin: rate / size };
}

/** Energy between two frequencies, Hz. */
export function energyBetween({ power, hzPerBin }: Spectrum, low: number, high: number): number {
  let sum = 0;
  const to = Math.min(power.length, Math.ceil(high / hzPerBin));
  for (let bin = Math.max(0, Math.ceil(low / hzPerBin)); bin < to; bin++) sum += power[bin]!;
  return sum;
}

/** Energy in each of THIRDS. */
export function thirdsOf(spectrum: Spectrum): number[] {
  return THIRDS.map((middle) => energyBetween(spectrum, middle / TO_EDGE, middle * TO_EDGE));
}

/**
 * Where the middle of a spectrum lies, Hz: the mean of the frequencies one hears, weighted by their magnitudes (G. Peeters, A large
 * set of audio features for sound description, 2004; from memory).
 */
export function centroidOf({ power, hzPerBin }: Spectrum): number {
  let sum = 0;
  let weighted = 0;
  for (let bin = Math.ceil(HEARD.low / hzPerBin); bin < power.length && bin * hzPerBin <= HEARD.high; bin++) {
    const magnitude = Math.sqrt(power[bin]!);
    sum += magnitude;
    weighted += magnitude * bin * hzPerBin;
  }
  return sum > 0 ? weighted / sum : 0;
}
