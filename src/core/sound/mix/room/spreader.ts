import { flushed } from '../../flushed';

const GAIN = 0.62;

/** An all-pass of one delay, which lets all tones pass equally loud and blurs them in time (M. Schroeder, 1962). */
export class Spreader {
  private readonly line: Float64Array;
  private at = 0;

  constructor(frames: number) {
    this.line = new Float64Array(frames);
  }

  /** In place. */
  process(sound: Float64Array, frames: number): void {
    const { line } = this;
    let { at } = this;
    for (let i = 0; i < frames; i++) {
      const old = line[at]!;
      const into = sound[i]! - GAIN * old;
      line[at] = flushed(into);
      if (++at === line.length) at = 0;
      sound[i] = old + GAIN * into;
    }
    this.at = at;
  }

  clear(): void {
    this.line.fill(0);
    this.at = 0;
  }
}
