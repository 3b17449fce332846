import { MOST_LFOS } from '../document/lfo';
import { LfoVoice, type SongClock } from './lfoVoice';
import type { LfoPatch } from './patch';

/** The slow waves of one sounding voice, and what those that move the same thing add up to. */
export class VoiceWaves {
  /** Where they have moved the sound, at the frame looked at last: semitones, octaves, dB, -1..1. */
  pitch = 0;
  filter = 0;
  level = 0;
  pan = 0;

  /** Whether one of them moves the pitch, or level or pan. */
  movePitch = false;
  moveLevel = false;

  private patches: readonly LfoPatch[] = [];
  private readonly waves: readonly LfoVoice[];

  constructor(sampleRate: number) {
    this.waves = Array.from({ length: MOST_LFOS }, () => new LfoVoice(sampleRate));
  }

  /** Whether there are none. */
  get areStill(): boolean {
    return this.patches.length === 0;
  }

  /**
   * A stroke begins.
   * @param seed names its pad
   * @returns octaves by which its decay is longer: what moves the decay acts once, where the stroke begins
   */
  start(patches: readonly LfoPatch[], frame: number, seed: number, clock: SongClock): number {
    this.patches = patches;
    this.movePitch = false;
    this.moveLevel = false;
    let decay = 0;
    for (let i = 0; i < patches.length; i++) {
      this.waves[i]!.start(patches[i]!, frame, seed * MOST_LFOS + i);
      const { moves } = patches[i]!;
      if (moves === 'pitch') this.movePitch = true;
      if (moves === 'level' || moves === 'pan') this.moveLevel = true;
      if (moves === 'decay') decay += this.waves[i]!.valueAt(frame, clock);
    }
    this.look(frame, clock);
    return decay;
  }

  /** Looks where they are at a frame, which is never before the one looked at last. */
  look(frame: number, clock: SongClock): void {
    const { patches } = this;
    let pitch = 0;
    let filter = 0;
    let level = 0;
    let pan = 0;
    for (let i = 0; i < patches.length; i++) {
      const { moves } = patches[i]!;
      if (moves === 'decay') continue;
      const value = this.waves[i]!.valueAt(frame, clock);
      if (moves === 'pitch') pitch += value;
      else if (moves === 'filter') filter += value;
      else if (moves === 'level') level += value;
      else pan += value;
    }
    this.pitch = pitch;
    this.filter = filter;
    this.level = level;
    this.pan = pan;
  }
}
