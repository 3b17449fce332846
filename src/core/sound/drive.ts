import { softClip } from '../math';

/**
 * Half-band filters of two branches of three all-passes each: flat up to 0.38 of the sample rate, 85 dB down from 0.62 of it on
 * (R. Valenzuela and A. Constantinides, Digital signal processing schemes for efficient interpolation and decimation, 1983; the
 * coefficients follow from its elliptic design with six all-passes and a transition of 0.06).
 */
const A0 = 0.054217525755;
const A1 = 0.383087327291;
const A2 = 0.748720944436;
const B0 = 0.196797969814;
const B1 = 0.573136411148;
const B2 = 0.914293709685;

/**
 * Saturation at twice the sample rate: harmonics above half the sample rate are taken away before they can fold down. For what has a
 * pitch; in noise nobody hears what folds.
 */
export class Drive {
  private gain = 1;
  private makeUp = 1;
  /** What each branch holds on its way up and on its way down: its input, and the output of each all-pass. */
  private readonly up = new Float64Array(8);
  private readonly down = new Float64Array(8);

  /** @param gain into the saturation, linear; full scale comes out as full scale */
  start(gain: number): void {
    this.gain = gain;
    this.makeUp = 1 / softClip(gain);
    this.up.fill(0);
    this.down.fill(0);
  }

  /** Saturates the first `frames` samples in place. */
  process(sound: Float64Array, frames: number): void {
    const { gain, up, down } = this;
    const half = 0.5 * this.makeUp;
    let u0 = up[0]!;
    let u1 = up[1]!;
    let u2 = up[2]!;
    let u3 = up[3]!;
    let v0 = up[4]!;
    let v1 = up[5]!;
    let v2 = up[6]!;
    let v3 = up[7]!;
    let d0 = down[0]!;
    let d1 = down[1]!;
    let d2 = down[2]!;
    let d3 = down[3]!;
    let e0 = down[4]!;
    let e1 = down[5]!;
    let e2 = down[6]!;
    let e3 = down[7]!;
    for (let i = 0; i < frames; i++) {
      const x = sound[i]! * gain;
      let next = A0 * (x - u1) + u0;
      u0 = x;
      let after = A1 * (next - u2) + u1;
      u1 = next;
      const first = A2 * (after - u3) + u2;
      u2 = after;
      u3 = first;
      next = B0 * (x - v1) + v0;
      v0 = x;
      after = B1 * (next - v2) + v1;
      v1 = next;
      const second = B2 * (after - v3) + v2;
      v2 = after;
      v3 = second;

      const a = softClip(second);
      next = A0 * (a - d1) + d0;
      d0 = a;
      after = A1 * (next - d2) + d1;
      d1 = next;
      const one = A2 * (after - d3) + d2;
      d2 = after;
      d3 = one;
      const b = softClip(first);
      next = B0 * (b - e1) + e0;
      e0 = b;
      after = B1 * (next - e2) + e1;
      e1 = next;
      const other = B2 * (after - e3) + e2;
      e2 = after;
      e3 = other;
      sound[i] = (one + other) * half;
    }
    up[0] = u0;
    up[1] = u1;
    up[2] = u2;
    up[3] = u3;
    up[4] = v0;
    up[5] = v1;
    up[6] = v2;
    up[7] = v3;
    down[0] = d0;
    down[1] = d1;
    down[2] = d2;
    down[3] = d3;
    down[4] = e0;
    down[5] = e1;
    down[6] = e2;
    down[7] = e3;
  }
}
