import { METAL_FRAMES, metalTables, tableFor, type MetalTable } from './metal';
import { NOISE_SCALE } from './noise';
import type { LayerPart } from './parts';
import { soundMemory } from './soundMemory';
import type { Touch } from './touch';

/** Grains are counted against so many parts of chance. */
const CHANCE = 16777216;

/**
 * What a layer is made of, before its filter: noise, grains or metal. Metal at its own pitch is read where it lies; all else is made
 * first. One loop can read any of them so, and several at once.
 */
export class LayerSource {
  /** The samples opened last lie in `sound` from `at` on. */
  sound: Float32Array;
  at = 0;
  /** They lie where WebAssembly reaches them. */
  isShared = true;
  isNoise = false;
  /** What noise and grains are drawn from (xorshift; G. Marsaglia, Xorshift RNGs, 2003). Never 0. */
  chance = 1;

  private readonly tables: readonly MetalTable[];
  /** The metal, the place in it in frames, and frames of it to a frame of sound: as it was struck, and as it is bent. */
  private table: Float32Array;
  private place = 0;
  private struckStep = 1;
  private step = 1;
  /** Metal that is read between its frames, too. */
  private isPitched = false;
  /** A grain falls on a sample when chance is below this; 0 for noise and metal. */
  private grains = 0;
  private grainGain = 0;

  constructor(private readonly sampleRate: number) {
    this.tables = metalTables(sampleRate);
    this.table = this.sound = this.tables[0]!.sound;
  }

  /**
   * @param touch pitch is of the metal
   * @param seed of this layer of this stroke, a non-zero 32-bit integer
   */
  start(layer: LayerPart, touch: Touch, seed: number): void {
    const { sampleRate } = this;
    this.chance = seed;
    this.isNoise = layer.source === 'noise';
    this.grains = 0;
    this.isPitched = false;
    this.isShared = true;
    if (layer.source === 'metal') this.startMetal(layer, touch);
    if (layer.source !== 'grains') return;
    const perSecond = layer.grains;
    this.grains = Math.min(CHANCE, (perSecond / sampleRate) * CHANCE);
    // As loud as noise, however many there are, and at any rate: what is shorter must be so much louder.
    this.grainGain = Math.sqrt(sampleRate / Math.max(1, perSecond) / 3);
  }

  private startMetal(layer: LayerPart, { pitch, seed }: Touch): void {
    const table = tableFor(this.tables, pitch);
    this.table = table.sound;
    this.isShared = table.sound.buffer === soundMemory;
    // All layers of a stroke ring with the same metal: at places of their own they would cancel each other, now more, now less. What
    // is only at the sides is to have nothing in common with the middle.
    this.place = ((seed >>> 16) + (layer.isSide ? METAL_FRAMES / 2 : 0)) & (METAL_FRAMES - 1);
    this.step = this.struckStep = pitch / table.pitch;
    this.isPitched = this.step !== 1;
  }

  /** From the next sample on metal sounds so many times higher than it was struck. */
  bend(ratio: number): void {
    if (this.isNoise || this.grains > 0) return;
    this.isPitched = true;
    this.step = this.struckStep * ratio;
  }

  /**
   * Opens the next samples.
   * @param frames at most MAX_STRETCH: all tables go on for so long beyond their end
   * @param room where they are made if they do not lie ready; kept until they have been read
   */
  open(frames: number, room: Float32Array): void {
    if (this.isNoise) this.makeNoise(frames, room);
    else if (this.grains > 0) this.dropGrains(frames, room);
    else if (this.isPitched) this.readBetween(frames, room);
    else {
      this.sound = this.table;
      this.at = this.place;
      this.place = (this.place + frames) & (METAL_FRAMES - 1);
      return;
    }
    this.sound = room;
    this.at = 0;
  }

  /** The metal read faster or slower, through a cubic between its four nearest frames (Catmull-Rom). */
  private readBetween(frames: number, room: Float32Array): void {
    const { table, step } = this;
    const mask = METAL_FRAMES - 1;
    let { place } = this;
    for (let i = 0; i < frames; i++) {
      const whole = Math.floor(place);
      const t = place - whole;
      const before = table[(whole + mask) & mask]!;
      const left = table[whole & mask]!;
      const right = table[(whole + 1) & mask]!;
      const after = table[(whole + 2) & mask]!;
      const bend = 2 * before - 5 * left + 4 * right - after;
      room[i] = left + 0.5 * t * (right - before + t * (bend + t * (3 * (left - right) + after - before)));
      place += step;
      if (place >= METAL_FRAMES) place -= METAL_FRAMES;
    }
    this.place = place;
  }

  private makeNoise(frames: number, room: Float32Array): void {
    let { chance } = this;
    for (let i = 0; i < frames; i++) {
      chance ^= chance << 13;
      chance ^= chance >>> 17;
      chance ^= chance << 5;
      room[i] = chance * NOISE_SCALE;
    }
    this.chance = chance;
  }

  /** Single impulses at chance moments, up or down: small hard things that fall on each other. */
  private dropGrains(frames: number, room: Float32Array): void {
    const { grains, grainGain } = this;
    let { chance } = this;
    for (let i = 0; i < frames; i++) {
      chance ^= chance << 13;
      chance ^= chance >>> 17;
      chance ^= chance << 5;
      room[i] = chance >>> 8 >= grains ? 0 : chance & 1 ? grainGain : -grainGain;
    }
    this.chance = chance;
  }
}
