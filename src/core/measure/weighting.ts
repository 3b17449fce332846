/** A second-order section (transposed direct form II): b0, b1, b2, a1, a2. */
type Section = readonly [number, number, number, number, number];

/**
 * The weighting of BS.1770: a shelf for the head and a high pass. The standard gives coefficients for 48 kHz; those of any rate follow
 * from the frequencies, gain and Qs below, which give the standard's to ten digits (from memory).
 */
export class Weighting {
  private readonly shelf: Section;
  private readonly highPass: Section;
  /** What the two sections remember. */
  private readonly memory = new Float64Array(4);

  constructor(sampleRate: number) {
    {
      const k = Math.tan((Math.PI * 1681.974450955533) / sampleRate);
      const q = 0.7071752369554196;
      const high = Math.pow(10, 3.999843853973347 / 20);
      const band = Math.pow(high, 0.4996667741545416);
      const a0 = 1 + k / q + k * k;
      const b = [high + (band * k) / q + k * k, 2 * (k * k - high), high - (band * k) / q + k * k] as const;
      this.shelf = [b[0] / a0, b[1] / a0, b[2] / a0, (2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0];
    }
    const k = Math.tan((Math.PI * 38.13547087602444) / sampleRate);
    const q = 0.5003270373238773;
    const a0 = 1 + k / q + k * k;
    this.highPass = [1, -2, 1, (2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0];
  }

  /** The sum of the squares of some weighted samples. All in local variables: it is done for every sample of a file. */
  energy(samples: Float32Array, from: number, to: number): number {
    const { shelf, highPass, memory } = this;
    const b0 = shelf[0];
    const b1 = shelf[1];
    const b2 = shelf[2];
    const a1 = shelf[3];
    const a2 = shelf[4];
    const c0 = highPass[0];
    const c1 = highPass[1];
    const c2 = highPass[2];
    const d1 = highPass[3];
    const d2 = highPass[4];
    let s1 = memory[0]!;
    let s2 = memory[1]!;
    let h1 = memory[2]!;
    let h2 = memory[3]!;
    let energy = 0;
    for (let i = from; i < to; i++) {
      const x = samples[i]!;
      const y = b0 * x + s1;
      s1 = b1 * x - a1 * y + s2;
      s2 = b2 * x - a2 * y;
      const z = c0 * y + h1;
      h1 = c1 * y - d1 * z + h2;
      h2 = c2 * y - d2 * z;
      energy += z * z;
    }
    memory[0] = s1;
    memory[1] = s2;
    memory[2] = h1;
    memory[3] = h2;
    return energy;
  }
}
