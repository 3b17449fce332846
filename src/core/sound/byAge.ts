import type { DrumVoice } from './drumVoice';
import { NONE } from './ringing';

/**
 * Which voices give way when too many sound: the oldest first, and of those that began at once the first of the pool. All are looked at
 * once for a frame, however many strokes fall on it.
 */
export class ByAge {
  /** Places of those that sounded, in the order of the pool, and the frames at which they began. */
  private readonly places: Int16Array;
  private readonly begun: Float64Array;
  private count = 0;
  /** All that are older than this frame have given way, and of those that began at it, all before `at`. */
  private age = -Infinity;
  private at = 0;

  constructor(private readonly voices: readonly DrumVoice[]) {
    this.places = new Int16Array(voices.length);
    this.begun = new Float64Array(voices.length);
  }

  /** Looks at all voices. @returns how many sound, and do not fade */
  look(): number {
    const { voices, places, begun } = this;
    let count = 0;
    for (let place = 0; place < voices.length; place++) {
      const voice = voices[place]!;
      if (!voice.active || voice.fading) continue;
      places[count] = place;
      begun[count++] = voice.startFrame;
    }
    this.count = count;
    this.age = -Infinity;
    this.at = count;
    return count;
  }

  /** Place of the oldest that sounds still and began before a frame; NONE if there is none. */
  oldest(frame: number): number {
    for (; this.age < frame; this.growYounger(frame)) {
      for (; this.at < this.count; this.at++) {
        if (this.begun[this.at] !== this.age) continue;
        const place = this.places[this.at]!;
        const { active, fading } = this.voices[place]!;
        if (active && !fading) return place;
      }
    }
    return NONE;
  }

  private growYounger(frame: number): void {
    let age = frame;
    for (let i = 0; i < this.count; i++) if (this.begun[i]! > this.age && this.begun[i]! < age) age = this.begun[i]!;
    this.age = age;
    this.at = 0;
  }
}
