import { hash, sinTurns } from '../math';

/** Frames of the table; a power of two, so that reading wraps with a mask. */
export const METAL_FRAMES = 65536;
/** A multiple of three: so many are added in one pass. */
const PARTIALS = 210;
const LOWEST_HZ = 320;
const HIGHEST_HZ = 19500;

const tables = new Map<number, Float64Array>();

/**
 * The ringing of struck metal: some two hundred inharmonic partials, denser towards the top as in a cymbal, each a whole
 * number of periods long so that the table loops without a seam. Made once per sample rate.
 * @returns METAL_FRAMES samples with a root mean square of 0.35
 */
export function metalTable(sampleRate: number): Float64Array {
  let table = tables.get(sampleRate);
  if (!table) {
    table = build(sampleRate);
    tables.set(sampleRate, table);
  }
  return table;
}

function build(sampleRate: number): Float64Array {
  const table = new Float64Array(METAL_FRAMES);
  const ceiling = Math.min(HIGHEST_HZ, sampleRate * 0.45);
  let seed = hash(1, 2, 3);
  const random = () => {
    seed ^= seed << 13;
    seed ^= seed >>> 17;
    seed ^= seed << 5;
    return (seed >>> 0) / 4294967296;
  };
  const partials = Array.from({ length: PARTIALS }, (_, p): Rotor => {
    // The square root of the rank crowds the partials towards the ceiling.
    const rank = (p + random()) / PARTIALS;
    const hz = LOWEST_HZ + (ceiling - LOWEST_HZ) * Math.sqrt(rank);
    const turns = Math.round((hz * METAL_FRAMES) / sampleRate) / METAL_FRAMES;
    // Struck metal is darker at the top, and no two of its modes are equally strong.
    const level = (0.3 + 0.7 * random()) * (1 - 0.8 * rank);
    const phase = random();
    return {
      sin: sinTurns(phase) * level,
      cos: sinTurns(phase + 0.25) * level,
      turnSin: sinTurns(turns),
      turnCos: sinTurns(turns + 0.25),
    };
  });
  for (let p = 0; p < PARTIALS; p += 3) addThree(table, partials[p]!, partials[p + 1]!, partials[p + 2]!);
  let power = 0;
  for (let i = 0; i < METAL_FRAMES; i++) power += table[i]! * table[i]!;
  const gain = 0.35 / Math.sqrt(power / METAL_FRAMES);
  for (let i = 0; i < METAL_FRAMES; i++) table[i]! *= gain;
  return table;
}

/** A partial as a rotating vector: four multiplications a sample where a sine costs a polynomial. */
interface Rotor {
  sin: number;
  cos: number;
  /** Its turn from one sample to the next. */
  turnSin: number;
  turnCos: number;
}

/** Adds three partials in one pass, which reads and writes the table a third as often, one after the other in each sample. */
function addThree(table: Float64Array, a: Rotor, b: Rotor, c: Rotor): void {
  let { sin: sinA, cos: cosA } = a;
  let { sin: sinB, cos: cosB } = b;
  let { sin: sinC, cos: cosC } = c;
  const { turnSin: turnSinA, turnCos: turnCosA } = a;
  const { turnSin: turnSinB, turnCos: turnCosB } = b;
  const { turnSin: turnSinC, turnCos: turnCosC } = c;
  for (let i = 0; i < METAL_FRAMES; i++) {
    table[i] = table[i]! + sinA + sinB + sinC;
    const nextA = sinA * turnCosA + cosA * turnSinA;
    cosA = cosA * turnCosA - sinA * turnSinA;
    sinA = nextA;
    const nextB = sinB * turnCosB + cosB * turnSinB;
    cosB = cosB * turnCosB - sinB * turnSinB;
    sinB = nextB;
    const nextC = sinC * turnCosC + cosC * turnSinC;
    cosC = cosC * turnCosC - sinC * turnSinC;
    sinC = nextC;
  }
}
