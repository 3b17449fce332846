/** Damping of the first of two filters in a row that are together of the fourth order and flat (Butterworth: Q 0.541 and 1.307). */
const FIRST_DAMPING = 1 / 0.541;
const SECOND_SHARE = 1.307 / Math.SQRT1_2;

/**
 * The low-pass of a note, of the second or the fourth order: state-variable with trapezoidal integrators (Zavalishin, The Art of VA
 * Filter Design, 2012, 4.5). Its cutoff moves with every sample, in a line to where it is to be.
 */
export class ToneFilter {
  private isSteep = false;
  private damping = 1;
  private g = 0;
  private slope = 0;
  private band = 0;
  private low = 0;
  private secondBand = 0;
  private secondLow = 0;

  /**
   * @param g tangent of half the cutoff's turns a sample
   * @param q 0.707 is flat
   */
  start(g: number, q: number, isSteep: boolean): void {
    this.isSteep = isSteep;
    this.damping = 1 / (isSteep ? q * SECOND_SHARE : q);
    this.g = g;
    this.slope = 0;
    this.band = this.low = this.secondBand = this.secondLow = 0;
  }

  /** In so many samples its cutoff will be there. */
  moveTo(g: number, frames: number): void {
    this.slope = (g - this.g) / frames;
  }

  /** Filters the first `frames` samples in place. */
  process(samples: Float64Array, frames: number): void {
    if (this.isSteep) this.processSteep(samples, frames);
    else this.processPlain(samples, frames);
  }

  private processPlain(samples: Float64Array, frames: number): void {
    const { slope, damping } = this;
    let { g, band, low } = this;
    for (let i = 0; i < frames; i++) {
      const scale = 1 / (1 + g * (g + damping));
      const high = (samples[i]! - low - (damping + g) * band) * scale;
      const b = band + g * high;
      const l = low + g * b;
      band = b + g * high;
      low = l + g * b;
      samples[i] = l;
      g += slope;
    }
    this.g = g;
    this.band = band;
    this.low = low;
  }

  private processSteep(samples: Float64Array, frames: number): void {
    const { slope, damping } = this;
    let { g, band, low, secondBand, secondLow } = this;
    for (let i = 0; i < frames; i++) {
      const first = (samples[i]! - low - (FIRST_DAMPING + g) * band) / (1 + g * (g + FIRST_DAMPING));
      const b = band + g * first;
      const l = low + g * b;
      band = b + g * first;
      low = l + g * b;
      const second = (l - secondLow - (damping + g) * secondBand) / (1 + g * (g + damping));
      const b2 = secondBand + g * second;
      const l2 = secondLow + g * b2;
      secondBand = b2 + g * second;
      secondLow = l2 + g * b2;
      samples[i] = l2;
      g += slope;
    }
    this.g = g;
    this.band = band;
    this.low = low;
    this.secondBand = secondBand;
    this.secondLow = secondLow;
  }
}
