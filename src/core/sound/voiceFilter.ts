import type { FilterKind } from '../document/sound';
import { tanHalfTurns } from '../math';

/** Above this share of the sample rate the tangent runs away. */
const HIGHEST = 0.49;
/** -100 dB. */
const QUIET = 1e-5;

/**
 * A state-variable filter of the second order with trapezoidal integrators (Zavalishin, The Art of VA Filter Design, 2012, 4.5): its
 * cutoff may move at any sample without a click, since its state is the charge of two capacitors and no history of outputs.
 */
export class VoiceFilter {
  private band = 0;
  private low = 0;
  private damping = 0.5;
  /** What of band, low and input makes band and low of the next sample. */
  private bandOfBand = 0;
  private bandOfLow = 0;
  private bandOfInput = 0;
  private lowOfBand = 0;
  private lowOfLow = 0;
  private lowOfInput = 0;
  private kind: FilterKind = 'low';

  /** Whether what it still rings with is far below hearing. */
  get isQuiet(): boolean {
    return Math.abs(this.band) < QUIET && Math.abs(this.low) < QUIET;
  }

  /** @param q quality factor; 0.707 is flat */
  start(kind: FilterKind, q: number): void {
    this.kind = kind;
    this.damping = 1 / q;
    this.band = 0;
    this.low = 0;
  }

  /** @param cutoff as a share of the sample rate */
  tune(cutoff: number): void {
    const g = tanHalfTurns(Math.min(HIGHEST, cutoff));
    const scale = 1 / (1 + g * (g + this.damping));
    // With high = scale (x - low - (damping + g) band), band' = band + 2 g high and low' = low + 2 g (band + g high), put together: what
    // one sample waits for of the last is then a product and two sums in the place of eight steps.
    this.bandOfInput = 2 * g * scale;
    this.bandOfLow = -this.bandOfInput;
    this.bandOfBand = 1 - this.bandOfInput * (this.damping + g);
    this.lowOfInput = g * this.bandOfInput;
    this.lowOfLow = 1 - this.lowOfInput;
    this.lowOfBand = g * (1 + this.bandOfBand);
  }

  /** Filters samples in place, `frames` of them from `at` on. */
  process(samples: Float64Array, at: number, frames: number): void {
    if (this.kind === 'low') this.processLow(samples, at, at + frames);
    else this.processOther(samples, at, at + frames);
  }

  private processLow(samples: Float64Array, from: number, to: number): void {
    const { bandOfBand, bandOfLow, bandOfInput, lowOfBand, lowOfLow, lowOfInput } = this;
    let { band, low } = this;
    for (let i = from; i < to; i++) {
      const x = samples[i]!;
      const nextBand = bandOfInput * x + bandOfLow * low + bandOfBand * band;
      const nextLow = lowOfInput * x + lowOfLow * low + lowOfBand * band;
      samples[i] = 0.5 * (low + nextLow);
      band = nextBand;
      low = nextLow;
    }
    this.band = band;
    this.low = low;
  }

  private processOther(samples: Float64Array, from: number, to: number): void {
    const { bandOfBand, bandOfLow, bandOfInput, lowOfBand, lowOfLow, lowOfInput, damping } = this;
    const isHigh = this.kind === 'high';
    let { band, low } = this;
    for (let i = from; i < to; i++) {
      const x = samples[i]!;
      const nextBand = bandOfInput * x + bandOfLow * low + bandOfBand * band;
      const nextLow = lowOfInput * x + lowOfLow * low + lowOfBand * band;
      // The band's peak is as high as its input at any resonance.
      const damped = damping * 0.5 * (band + nextBand);
      samples[i] = isHigh ? x - damped - 0.5 * (low + nextLow) : damped;
      band = nextBand;
      low = nextLow;
    }
    this.band = band;
    this.low = low;
  }
}
