/**
 * Elementary functions from + - * / alone. `Math.sin` and `Math.exp` differ in the last bits between engines and
 * versions, and a set must render to the same samples in every browser, in Node, today and next year.
 */

const TWO_PI = 6.283185307179586;

/** sin(2π · turns), for any `turns`; absolute error below 1e-7. */
export function sinTurns(turns: number): number {
  let x = turns - Math.floor(turns + 0.5);
  if (x > 0.25) x = 0.5 - x;
  else if (x < -0.25) x = -0.5 - x;
  const y = x * TWO_PI;
  const z = y * y;
  return (
    y *
    (1 +
      z *
        (-0.16666666666666666 +
          z *
            (0.008333333333333333 +
              z * (-0.0001984126984126984 + z * (2.7557319223985893e-6 - z * 2.505210838544172e-8)))))
  );
}

/** Turns become their sines, in place: where it is time for sound, a number that a function returns may take memory. */
export function sinesOf(turns: Float64Array): void {
  for (let i = 0; i < turns.length; i++) turns[i] = sinTurns(turns[i]!);
}

/** The whole powers of two from -LARGEST to LARGEST. */
const LARGEST = 1000;
const POWERS = new Float64Array(2 * LARGEST + 1).fill(1);
for (let n = 1; n <= LARGEST; n++) {
  POWERS[LARGEST + n] = POWERS[LARGEST + n - 1]! * 2;
  POWERS[LARGEST - n] = POWERS[LARGEST - n + 1]! / 2;
}

/** 2^x; relative error below 1e-8. Whole powers are exact. */
export function exp2(x: number): number {
  const whole = Math.floor(x + 0.5);
  const y = (x - whole) * 0.6931471805599453;
  const fraction =
    1 +
    y *
      (1 +
        y *
          (0.5 +
            y *
              (0.16666666666666666 +
                y *
                  (0.041666666666666664 +
                    y * (0.008333333333333333 + y * (0.001388888888888889 + y * 0.0001984126984126984))))));
  return fraction * POWERS[(whole < -LARGEST ? -LARGEST : whole > LARGEST ? LARGEST : whole) + LARGEST]!;
}

const bits = new DataView(new ArrayBuffer(8));

/**
 * The binary logarithm of a positive normal number; absolute error below 1e-9. By its exponent, and the series of the area hyperbolic tangent for
 * what is left.
 */
export function log2(x: number): number {
  bits.setFloat64(0, x);
  const high = bits.getUint32(0);
  let exponent = (high >>> 20) - 1023;
  // Between 1 and 2, and then between the root of a half and the root of two.
  bits.setUint32(0, (high & 0x000fffff) | 0x3ff00000);
  let m = bits.getFloat64(0);
  if (m > 1.4142135623730951) {
    m /= 2;
    exponent++;
  }
  const s = (m - 1) / (m + 1);
  const z = s * s;
  return (
    exponent +
    2.8853900817779268 *
      s *
      (1 + z * (0.3333333333333333 + z * (0.2 + z * (0.14285714285714285 + z * 0.1111111111111111))))
  );
}

/** tan(π · x) for 0 <= x < 0.5: the pre-warp of a filter with cutoff x · sample rate. */
export function tanHalfTurns(x: number): number {
  return sinTurns(x / 2) / sinTurns(x / 2 + 0.25);
}

/** Linear gain of a level in decibels: 10^(dB/20). */
export function decibels(dB: number): number {
  return exp2(dB * 0.16609640474436813);
}

/** Factor per frame by which a sound falls 60 dB in `seconds`. */
export function decayPerFrame(seconds: number, sampleRate: number): number {
  return exp2(-9.965784284662087 / (seconds * sampleRate));
}

/** A saturating curve, the cubic x - 4x³/27: odd, slope 1 at the origin, flat from ±1.5 on, where it is ±1. No division. */
export function softClip(x: number): number {
  if (x > 1.5) return 1;
  if (x < -1.5) return -1;
  return x * (1 - 0.14814814814814814 * x * x);
}

/** A 32-bit mix of three integers, for seeding generators (Murmur3's finaliser over a running product). Never 0. */
export function hash(a: number, b: number, c: number): number {
  let h =
    Math.imul(a ^ 0x9e3779b9, 0x85ebca6b) ^
    Math.imul(b + 0x7f4a7c15, 0xc2b2ae35) ^
    Math.imul(c + 0x165667b1, 0x27d4eb2f);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  h ^= h >>> 16;
  return h === 0 ? 1 : h;
}
