import { decayPerFrame, exp2 } from '../math';

/** Delay lines of the room, in seconds: mutually prime at 48 kHz, about the walls of a small wooden hall. */
const LINE_SECONDS = [0.01977, 0.02452, 0.02981, 0.03544];
const PRE_DELAY_SECONDS = 0.006;
const DECAY_SECONDS = 0.42;
const DAMPING_HZ = 5200;
const INPUT_HIGH_PASS_HZ = 180;
/** With nothing sent for this long the tail is far below hearing, and the room sleeps. */
const SLEEP_SECONDS = 1.5;
const TINY = 1e-15;

/** A short room: four damped delay lines that feed each other through an orthogonal (Householder) matrix. */
export class Room {
  private readonly lines: Float64Array[];
  private readonly at = new Int32Array(4);
  private readonly gains: Float64Array;
  private readonly pre: Float64Array;
  private preAt = 0;
  private readonly damp: number;
  private readonly damped = new Float64Array(4);
  private readonly highPass: number;
  private low = 0;
  private quietFrames: number;
  private readonly sleepAfter: number;

  constructor(sampleRate: number) {
    this.lines = LINE_SECONDS.map((s) => new Float64Array(Math.round(s * sampleRate) | 1));
    this.gains = Float64Array.from(this.lines, (line) => decayPerFrame((DECAY_SECONDS * sampleRate) / line.length, 1));
    this.pre = new Float64Array(Math.max(1, Math.round(PRE_DELAY_SECONDS * sampleRate)));
    this.damp = 1 - exp2((-9.06472028 * DAMPING_HZ) / sampleRate);
    this.highPass = 1 - exp2((-9.06472028 * INPUT_HIGH_PASS_HZ) / sampleRate);
    this.sleepAfter = Math.round(SLEEP_SECONDS * sampleRate);
    this.quietFrames = this.sleepAfter;
  }

  get isAsleep(): boolean {
    return this.quietFrames >= this.sleepAfter;
  }

  /** Adds the room's answer to `send` to `left` and `right`. Sleeps, sample-exactly, once nothing has been sent for long. */
  process(send: Float64Array, left: Float64Array, right: Float64Array, frames: number): void {
    const line0 = this.lines[0]!;
    const line1 = this.lines[1]!;
    const line2 = this.lines[2]!;
    const line3 = this.lines[3]!;
    const { pre, damp, highPass } = this;
    const { at: pos, gains, damped } = this;
    for (let i = 0; i < frames; i++) {
      const x = send[i]!;
      if (x !== 0) this.quietFrames = 0;
      else if (this.quietFrames >= this.sleepAfter) continue;
      else if (++this.quietFrames === this.sleepAfter) {
        this.clear();
        continue;
      }
      this.low += (x - this.low) * highPass;
      if (this.low < TINY && this.low > -TINY) this.low = 0;
      const delayed = pre[this.preAt]!;
      pre[this.preAt] = x - this.low;
      if (++this.preAt === pre.length) this.preAt = 0;

      damped[0]! += (line0[pos[0]!]! - damped[0]!) * damp;
      damped[1]! += (line1[pos[1]!]! - damped[1]!) * damp;
      damped[2]! += (line2[pos[2]!]! - damped[2]!) * damp;
      damped[3]! += (line3[pos[3]!]! - damped[3]!) * damp;
      const a = damped[0]! * gains[0]!;
      const b = damped[1]! * gains[1]!;
      const c = damped[2]! * gains[2]!;
      const d = damped[3]! * gains[3]!;
      const half = (a + b + c + d) * 0.5;
      line0[pos[0]!] = flush(delayed + a - half);
      line1[pos[1]!] = flush(delayed + b - half);
      line2[pos[2]!] = flush(delayed + c - half);
      line3[pos[3]!] = flush(delayed + d - half);
      if (++pos[0]! === line0.length) pos[0] = 0;
      if (++pos[1]! === line1.length) pos[1] = 0;
      if (++pos[2]! === line2.length) pos[2] = 0;
      if (++pos[3]! === line3.length) pos[3] = 0;
      left[i]! += a - c + 0.4 * (b - d);
      right[i]! += b - d + 0.4 * (a - c);
    }
  }

  private clear(): void {
    for (const line of this.lines) line.fill(0);
    this.pre.fill(0);
    this.damped.fill(0);
    this.low = 0;
  }
}

/** The audio thread does not flush denormals, and arithmetic on them is many times slower. */
function flush(x: number): number {
  return x < TINY && x > -TINY ? 0 : x;
}
