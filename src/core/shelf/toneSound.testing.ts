import type { SoundSettings } from '../document/sound';
import type { ToneSource } from '../document/toneVoices';
import { Engine } from '../engine/engine';
import type { Stereo } from '../engine/offline';
import { at } from '../protocol/commands';

export const RATE = 48000;

/** How a note is played. */
interface Played {
  /** Frames per second. */
  rate?: number;
  /** Seconds that are heard, and after which it is let go. */
  seconds?: number;
  held?: number;
  /** 0..1 */
  velocity?: number;
  settings?: SoundSettings;
}

/** One note with its share of the room, at full track level, before the limiter. @param note MIDI note */
export function noteOf(source: ToneSource, note: number, played: Played = {}): Stereo {
  const { rate = RATE, seconds = 1.5, held = Infinity, velocity = 0.8, settings = {} } = played;
  const engine = new Engine(rate);
  engine.hear({ track: null, limited: false });
  const notes = Float64Array.from({ length: 16 }, () => note);
  engine.post(at(0, { type: 'notes', track: 0, layout: { ...source, notes, octave: 0, settings } }));
  engine.post(at(0, { type: 'trackLevel', track: 0, level: 1 }));
  engine.post(at(0, { type: 'padDown', track: 0, pad: 0, velocity, heard: 0, id: 1 }));
  if (held < seconds) engine.post(at(Math.round(held * rate), { type: 'padUp', track: 0, pad: 0, heard: NaN }));
  const frames = Math.round(seconds * rate);
  const sound = { left: new Float32Array(frames), right: new Float32Array(frames) };
  engine.process(sound.left, sound.right, frames);
  return sound;
}
