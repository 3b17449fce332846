import FFT from 'fft.js';

/** Frames of a look at the spectrum, and frames from one look to the next: 21 and 5 ms at 48 kHz. */
const WINDOW = 1024;
export const HOP = 240;
/** Bands, evenly spaced in octaves from the lowest to the highest, Hz. */
const BANDS = 40;
const LOWEST = 40;
const HIGHEST = 16000;
/** By how much a band is raised before its logarithm is taken: what is soft counts too, and the least noise does not. */
const RAISED = 150;
/** Looks back at which it is compared: looks overlap, so the one just before already holds part of what is new. */
const BACK = 2;
/** Up to here is what a bass drum brings, and up to there what a snare brings, Hz (common practice). */
const LOW_UP_TO = 150;
const MIDDLE_UP_TO = 2000;

/** How much more there is than just before, for each look; look n is centred on frame n * HOP. */
export interface Novelty {
  all: Float64Array;
  /** In the bands of a bass drum, and in those of a snare. */
  low: Float64Array;
  middle: Float64Array;
}

/**
 * Spectral flux of the logarithm of forty bands, each compared with the loudest of its neighbours a little before, so that a tone that
 * glides or trembles is nothing new (S. Böck and G. Widmer, Maximum Filter Vibrato Suppression for Onset Detection, DAFx 2013; from
 * memory).
 * @param mono its loudest is near 1
 * @param rate frames per second
 */
export function noveltyOf(mono: Float32Array, rate: number): Novelty {
  const looks = Math.ceil(mono.length / HOP) + 1;
  const bands = bandsAt(rate);
  const spectrum = new Spectrum(mono);
  const latest = Array.from({ length: BACK + 1 }, () => new Float64Array(BANDS));
  const novelty = { all: new Float64Array(looks), low: new Float64Array(looks), middle: new Float64Array(looks) };
  for (let look = 0; look < looks; look++) {
    const powers = spectrum.at(look * HOP);
    const now = latest[look % latest.length]!;
    const before = latest[(look + 1) % latest.length]!;
    bands.forEach((band, b) => (now[b] = loudness(band, powers)));
    bands.forEach(({ middle }, b) => {
      const more = now[b]! - Math.max(before[b]!, before[b - 1] ?? 0, before[b + 1] ?? 0);
      if (more <= 0) return;
      novelty.all[look]! += more;
      if (middle < LOW_UP_TO) novelty.low[look]! += more;
      else if (middle < MIDDLE_UP_TO) novelty.middle[look]! += more;
    });
  }
  return novelty;
}

/** What lies around a frame, under Hann's window. */
class Spectrum {
  private readonly fft = new FFT(WINDOW);
  private readonly complex = this.fft.createComplexArray() as number[];
  private readonly shape = Float64Array.from({ length: WINDOW }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW)); // prettier-ignore
  private readonly shaped = new Float64Array(WINDOW);
  private readonly magnitudes = new Float64Array(WINDOW / 2);

  constructor(private readonly mono: Float32Array) {}

  /** Amplitude of each bin, 1 for a sine of full scale. The array is used again. */
  at(frame: number): Float64Array {
    const from = frame - WINDOW / 2;
    for (let i = 0; i < WINDOW; i++) this.shaped[i] = this.shape[i]! * (this.mono[from + i] ?? 0);
    this.fft.realTransform(this.complex, this.shaped);
    for (let bin = 0; bin < WINDOW / 2; bin++) {
      this.magnitudes[bin] = (4 / WINDOW) * Math.hypot(this.complex[2 * bin]!, this.complex[2 * bin + 1]!);
    }
    return this.magnitudes;
  }
}

interface Band {
  /** Weights of this bin and those after it. */
  first: number;
  weights: number[];
  /** Hz */
  middle: number;
}

/** Triangles that overlap by half. Where they are narrower than a bin, the nearest one. */
function bandsAt(rate: number): Band[] {
  const hz = (i: number) => LOWEST * (HIGHEST / LOWEST) ** (i / (BANDS + 1));
  const bin = (i: number) => (hz(i) * WINDOW) / rate;
  return Array.from({ length: BANDS }, (_, i) => {
    const [from, middle, to] = [bin(i), bin(i + 1), bin(i + 2)];
    const first = Math.max(1, Math.ceil(from));
    const weights: number[] = [];
    for (let k = first; k < to && k < WINDOW / 2; k++) {
      weights.push(k < middle ? (k - from) / (middle - from) : (to - k) / (to - middle));
    }
    const nearest = { first: Math.max(1, Math.round(middle)), weights: [1] };
    return { ...(weights.length > 0 ? { first, weights } : nearest), middle: hz(i + 1) };
  });
}

function loudness({ first, weights }: Band, magnitudes: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < weights.length; k++) sum += weights[k]! * magnitudes[first + k]!;
  return Math.log10(1 + RAISED * sum);
}
