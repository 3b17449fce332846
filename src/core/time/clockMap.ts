/**
 * Maps event time stamps (ms of `performance.now()`) to the audio frame that was being heard at that moment.
 *
 * A fresh pair of the two clocks is a little noisy, so the median offset of the recent pairs is used; when a
 * fresh pair disagrees with it by more than 2 ms the audio clock has really moved (an underrun), and the history is dropped.
 */
export class ClockMap {
  private offsets: number[] = [];

  /** @param sampleRate frames per second of the audio clock */
  constructor(private readonly sampleRate: number) {}

  /**
   * Takes a pair of simultaneous readings.
   * @param contextSeconds audio clock, in seconds, of the sound leaving the device
   * @param performanceMs the system clock at that moment, in ms
   */
  addPair(contextSeconds: number, performanceMs: number): void {
    if (!(contextSeconds > 0) || !(performanceMs > 0)) return;
    const offset = contextSeconds * 1000 - performanceMs;
    if (this.offsets.length > 0 && Math.abs(offset - this.offset()) > JUMP_MS) this.offsets = [];
    this.offsets.push(offset);
    if (this.offsets.length > PAIRS_KEPT) this.offsets.shift();
  }

  get ready(): boolean {
    return this.offsets.length > 0;
  }

  /** Audio frame (a float) heard at `performanceMs`. Call only when `ready`. */
  frameAt(performanceMs: number): number {
    return ((performanceMs + this.offset()) / 1000) * this.sampleRate;
  }

  /** The system clock (ms) at which an audio frame is heard. Call only when `ready`. */
  timeAt(frame: number): number {
    return (frame / this.sampleRate) * 1000 - this.offset();
  }

  private offset(): number {
    const sorted = [...this.offsets].sort((a, b) => a - b);
    return sorted[sorted.length >> 1]!;
  }
}

const JUMP_MS = 2;
const PAIRS_KEPT = 15;
