import type { LfoShape } from '../document/lfo';
import { hash, sinTurns } from '../math';
import { tickAt, type Anchor } from '../time/timeline';
import type { LfoPatch } from './patch';

/** What waves that are locked to the song look at. */
export interface SongClock {
  /** The song's time now. */
  readonly now: Anchor;
  /** Frame at which it was started last. */
  readonly startFrame: number;
  /** Ticks that pass while it stands still are as long as at its tempo. */
  readonly repeatClock: Anchor;
}

/** A jump takes so long, so that it is no click. */
const EDGE_SECONDS = 0.003;

/**
 * A wave at a place in its cycle.
 * @param turns how many cycles have passed
 * @param edge share of the cycle that a jump takes
 * @param seed of the random steps
 * @returns 0 at its lowest, 1 at its highest
 * @example lfoWave('sawUp', 2.25, 0, 1) // 0.25
 */
export function lfoWave(shape: LfoShape, turns: number, edge: number, seed: number): number {
  const cycle = Math.floor(turns);
  const phase = turns - cycle;
  switch (shape) {
    case 'sine':
      return 0.5 + 0.5 * sinTurns(phase);
    case 'triangle':
      // As the sine, it begins in the middle and goes up.
      return phase < 0.25 ? 0.5 + 2 * phase : phase < 0.75 ? 1.5 - 2 * phase : 2 * phase - 1.5;
    case 'sawUp':
      return jump(1, phase, phase, edge);
    case 'sawDown':
      return jump(0, 1 - phase, phase, edge);
    case 'square':
      return phase < 0.5 ? jump(0, 1, phase, edge) : jump(1, 0, phase - 0.5, edge);
    case 'random':
      return jump(step(cycle - 1, seed), step(cycle, seed), phase, edge);
  }
}

/** From one value to another, in a curve that begins and ends level. */
function jump(from: number, to: number, phase: number, edge: number): number {
  if (phase >= edge) return to;
  const x = phase / edge;
  return from + (to - from) * x * x * (3 - 2 * x);
}

function step(cycle: number, seed: number): number {
  return (hash(cycle, seed, 5) >>> 0) / 4294967295;
}

/** One slow wave of a sounding voice. */
export class LfoVoice {
  private patch!: LfoPatch;
  private seed = 0;
  private startFrame = 0;
  /** Where it was when it was last looked at. */
  private frame = 0;
  private ticks = 0.5;

  constructor(private readonly sampleRate: number) {}

  /**
   * A stroke begins.
   * @param seed names the pad and the wave
   */
  start(patch: LfoPatch, frame: number, seed: number): void {
    this.patch = patch;
    // Steps that begin with the stroke are others with each.
    this.seed = patch.ofSong ? seed : hash(seed, frame, 3);
    this.startFrame = frame;
    this.frame = frame;
    this.ticks = 0;
  }

  /**
   * Its value at a frame, which is never before the one asked for last. A wave of the song depends on nothing but the song's tick
   * there: however the sound is cut into blocks, it is the same.
   */
  valueAt(frame: number, clock: SongClock): number {
    const { patch } = this;
    const perSecond = patch.ticks > 0 ? this.sampleRate / (clock.repeatClock.framesPerTick * patch.ticks) : patch.hz;
    const edge = Math.min(0.25, EDGE_SECONDS * perSecond);
    return patch.low + (patch.high - patch.low) * lfoWave(patch.shape, this.turnsAt(frame, clock), edge, this.seed);
  }

  private turnsAt(frame: number, clock: SongClock): number {
    const { patch } = this;
    const { now } = clock;
    const isWithSong = patch.ofSong && now.playing;
    if (patch.ticks === 0) {
      return (patch.hz * (frame - (isWithSong ? clock.startFrame : this.startFrame))) / this.sampleRate;
    }
    // While the song stands still, the wave goes on from where it was, or begins with the stroke.
    if (isWithSong) this.ticks = tickAt(now, frame);
    else this.ticks += (frame - this.frame) / clock.repeatClock.framesPerTick;
    this.frame = frame;
    return this.ticks / patch.ticks;
  }
}
