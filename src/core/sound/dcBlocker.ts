import { flushed } from './flushed';

const CUTOFF_HZ = 6;

/** Takes a constant offset out of one channel: y[n] = x[n] - x[n-1] + R y[n-1], a high-pass at 6 Hz. */
export class DcBlocker {
  private lastIn = 0;
  private lastOut = 0;
  private readonly r: number;

  constructor(sampleRate: number) {
    this.r = 1 - (6.283185307179586 * CUTOFF_HZ) / sampleRate;
  }

  get isSilent(): boolean {
    return this.lastIn === 0 && this.lastOut === 0;
  }

  process(samples: Float64Array, frames: number): void {
    let { lastIn, lastOut } = this;
    for (let i = 0; i < frames; i++) {
      const x = samples[i]!;
      const y = flushed(x - lastIn + this.r * lastOut);
      samples[i] = y;
      lastIn = x;
      lastOut = y;
    }
    this.lastIn = lastIn;
    this.lastOut = lastOut;
  }
}
