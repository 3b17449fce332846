import { DrumVoice, PLAIN } from '../sound/drumVoice';
import { metalTable } from '../sound/metal';
import type { Patch } from '../sound/patch';
import { MAX_STRETCH } from '../sound/stretch';
import { anchorLike } from '../time/timeline';

/** Frames per second: enough for a picture. */
const RATE = 24000;
const LONGEST_SECONDS = 3;
/** What is softer than this share of the loudest is not drawn: 40 dB below. */
const DRAWN = 0.01;

/** How loud a sound is from its beginning to where it is all but silent. */
export interface SoundPeaks {
  /** 0..1, each the loudest of its share of the time. */
  peaks: number[];
  seconds: number;
}

const STILL = { frame: 0, tick: 0, framesPerTick: RATE / 1920, playing: false, recording: false };
const CLOCK = { now: STILL, startFrame: 0, repeatClock: anchorLike(STILL, { playing: true }) };

/**
 * The picture of a stroke at full velocity.
 * @param note MIDI note, for what plays notes
 * @param columns how many peaks
 */
export function soundPeaks(patch: Patch, columns: number, note = 60): SoundPeaks {
  const voice = new DrumVoice(RATE);
  voice.start(patch, { track: 0, pad: 0, velocity: 1 }, 0, CLOCK, { ...PLAIN, note: patch.recipe.tone ? note : NaN });
  const frames = LONGEST_SECONDS * RATE;
  const sound = new Float32Array(frames);
  const mono = new Float64Array(MAX_STRETCH);
  const [left, right, send] = [new Float64Array(MAX_STRETCH), new Float64Array(MAX_STRETCH), new Float64Array(MAX_STRETCH)]; // prettier-ignore
  const metal = metalTable(RATE);
  for (let done = 0; done < frames && voice.active; done += MAX_STRETCH) {
    left.fill(0);
    right.fill(0);
    const run = Math.min(MAX_STRETCH, frames - done);
    voice.render(mono, { left, right, send }, run, metal, CLOCK);
    for (let i = 0; i < run; i++) sound[done + i] = Math.max(Math.abs(left[i]!), Math.abs(right[i]!));
  }
  return peaksOf(sound, columns);
}

function peaksOf(sound: Float32Array, columns: number): SoundPeaks {
  const loudest = sound.reduce((most, x) => Math.max(most, x), 0);
  let end = sound.length;
  while (end > 1 && sound[end - 1]! <= loudest * DRAWN) end--;
  const peaks = Array.from({ length: columns }, (_, column) => {
    let most = 0;
    const to = Math.ceil(((column + 1) * end) / columns);
    for (let i = Math.floor((column * end) / columns); i < to; i++) most = Math.max(most, sound[i]!);
    return Math.min(1, most);
  });
  return { peaks, seconds: end / RATE };
}
