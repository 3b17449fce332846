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
  private g = 0.5;
  private damping = 0.5;
  private scale = 0.5;
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
    this.g = tanHalfTurns(Math.min(HIGHEST, cutoff));
    this.scale = 1 / (1 + this.g * (this.g + this.damping));
  }

  /** Filters samples in place, `frames` of them from `at` on. */
  process(samples: Float64Array, at: number, frames: number): void {
    if (this.kind === 'low') this.processLow(samples, at, at + frames);
    else this.processOther(samples, at, at + frames);
  }

  private processLow(samples: Float64Array, from: number, to: number): void {
    const { g, damping, scale } = this;
    const feedback = damping + g;
    let { band, low } = this;
    for (let i = from; i < to; i++) {
      const high = (samples[i]! - low - feedback * band) * scale;
      const b = band + g * high;
      const l = low + g * b;
      band = b + g * high;
      low = l + g * b;
      samples[i] = l;
    }
    this.band = band;
    this.low = low;
  }

  private processOther(samples: Float64Array, from: number, to: number): void {
    const { g, damping, scale } = this;
    const feedback = damping + g;
    // The band's peak is as high as its input at any resonance.
    const ofBand = this.kind === 'band' ? damping : 0;
    const ofHigh = this.kind === 'high' ? 1 : 0;
    let { band, low } = this;
    for (let i = from; i < to; i++) {
      const high = (samples[i]! - low - feedback * band) * scale;
      const b = band + g * high;
      band = b + g * high;
      low = low + 2 * g * b;
      samples[i] = ofBand * b + ofHigh * high;
    }
    this.band = band;
    this.low = low;
  }
}
