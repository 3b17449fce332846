import { exp2, hash, sinTurns } from '../math';
import { copyInto, energyOf, fourierOf } from './fourier';
import { tableRoom } from './soundMemory';
import { MAX_STRETCH } from './stretch';

/** Frames of a table; a power of two, so that reading wraps with a mask. */
export const METAL_FRAMES = 32768;

/**
 * A thin plate has as many modes in each kHz as in the next one; a bronze plate of 15 inches some 50 to 65 (N. Fletcher and
 * T. Rossing, The Physics of Musical Instruments, on plates and cymbals; from memory).
 */
const MODES_PER_KHZ = 45;
const LOWEST_HZ = 250;
const HIGHEST_HZ = 19500;
/** Partials fall off above this. */
const KNEE_HZ = 3000;
const ROOT_MEAN_SQUARE = 0.35;
/** Tables lie half an octave apart: from so many half octaves below the metal's own pitch to so many above. */
const LOWEST_TABLE = -2;
const HIGHEST_TABLE = 3;

/** The metal at one of the pitches for which there is a table. */
export interface MetalTable {
  /** METAL_FRAMES of sound that goes round without a seam, and the first stretch of it once more: what is read never wraps. */
  sound: Float32Array;
  /** Its pitch against the metal's own. */
  pitch: number;
}

const made = new Map<number, readonly MetalTable[]>();

/** The metal for a sample rate, from low to high: made once for each rate. */
export function metalTables(sampleRate: number): readonly MetalTable[] {
  let tables = made.get(sampleRate);
  if (!tables) {
    tables = makeTables(sampleRate);
    made.set(sampleRate, tables);
  }
  return tables;
}

/**
 * The lowest table that need not be read faster than frame by frame: read slower, nothing of it can come to lie above half the
 * sample rate.
 * @param pitch against the metal's own
 */
export function tableFor(tables: readonly MetalTable[], pitch: number): MetalTable {
  for (const table of tables) if (table.pitch >= pitch) return table;
  return tables[tables.length - 1]!;
}

/** A mode of the metal, at its own pitch. */
interface Mode {
  hz: number;
  cosine: number;
  sine: number;
}

/** The modes up to a frequency: at even distances, more or less, and no two struck equally hard. */
function modesUpTo(ceiling: number): Mode[] {
  const modes: Mode[] = [];
  const spacing = 1000 / MODES_PER_KHZ;
  for (let mode = 0; ; mode++) {
    const hz = LOWEST_HZ + (mode + share(mode, 1)) * spacing;
    if (hz > ceiling) return modes;
    const level = (0.25 + 0.75 * share(mode, 2)) / (1 + hz / KNEE_HZ);
    const phase = share(mode, 4);
    modes.push({ hz, cosine: level * sinTurns(phase + 0.25), sine: level * sinTurns(phase) });
  }
}

/** One transform makes two tables: one of its real part, one of its imaginary part. */
function makeTables(sampleRate: number): MetalTable[] {
  const fourier = fourierOf(METAL_FRAMES);
  const { real, imaginary } = fourier;
  const ceiling = Math.min(HIGHEST_HZ, sampleRate * 0.44);
  const modes = modesUpTo(ceiling / exp2(LOWEST_TABLE / 2));
  const tables: MetalTable[] = [];
  for (let step = LOWEST_TABLE; step < HIGHEST_TABLE; step += 2) {
    const low = exp2(step / 2);
    const high = exp2((step + 1) / 2);
    fourier.clear();
    const framesPerHz = METAL_FRAMES / sampleRate;
    for (const mode of modes) {
      if (mode.hz <= ceiling / low) addPartial(Math.round(mode.hz * low * framesPerHz), mode, real, imaginary, 1);
      if (mode.hz <= ceiling / high) addPartial(Math.round(mode.hz * high * framesPerHz), mode, imaginary, real, -1);
    }
    fourier.transform();
    tables.push({ sound: levelled(real), pitch: low }, { sound: levelled(imaginary), pitch: high });
  }
  return tables;
}

/**
 * Sets the two bins of a mode, as in the spectrum of a real signal: with `turn` the other way round, it is the imaginary part of the
 * transform that is such a signal.
 */
function addPartial(bin: number, mode: Mode, cosines: Float64Array, sines: Float64Array, turn: 1 | -1): void {
  const fourier = fourierOf(METAL_FRAMES);
  const place = fourier.placeOf(bin);
  const mirror = fourier.placeOf(METAL_FRAMES - bin);
  const sine = turn * mode.sine;
  cosines[place]! += mode.cosine;
  cosines[mirror]! += mode.cosine;
  sines[place]! += sine;
  sines[mirror]! -= sine;
}

/** A number from 0 to 1 that is always the same for a mode. */
function share(mode: number, which: number): number {
  return 0.5 + hash(mode, which, 3) / 4294967296;
}

function levelled(sound: Float64Array): Float32Array {
  const out = tableRoom(METAL_FRAMES + MAX_STRETCH);
  copyInto(out, sound, ROOT_MEAN_SQUARE / Math.sqrt(energyOf(sound) / METAL_FRAMES));
  out.copyWithin(METAL_FRAMES, 0, MAX_STRETCH);
  return out;
}
