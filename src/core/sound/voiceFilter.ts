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

  /** Filters the first `frames` samples in place. */
  process(samples: Float64Array, frames: number): void {
    const { g, damping, scale, kind } = this;
    let { band, low } = this;
    const [isLow, isBand] = [kind === 'low', kind === 'band'];
    for (let i = 0; i < frames; i++) {
      const high = (samples[i]! - low - (damping + g) * band) * scale;
      const b = band + g * high;
      const l = low + g * b;
      band = b + g * high;
      low = l + g * b;
      // The band's peak is as high as its input at any resonance.
      samples[i] = isLow ? l : isBand ? b * damping : high;
    }
    this.band = band;
    this.low = low;
  }
}
