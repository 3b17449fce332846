import type { Patch } from '../sound/patch';
import { renderStroke } from './strokeSound';

/** Frames per second: enough for a picture. */
const RATE = 24000;
const LONGEST_SECONDS = 3;
/** What plays notes is let go after so long: so that its picture has an end, too. */
const HELD_SECONDS = 1;
/** What is softer than this share of the loudest is not drawn: 40 dB below. */
const DRAWN = 0.01;

/** How loud a sound is from its beginning to where it is all but silent. */
export interface SoundPeaks {
  /** 0..1, each the loudest of its share of the time. */
  peaks: number[];
  seconds: number;
}

/**
 * The picture of a stroke at full velocity.
 * @param note MIDI note, for what plays notes
 * @param columns how many peaks
 */
export function soundPeaks(patch: Patch, columns: number, note = 60): SoundPeaks {
  const { left, right } = renderStroke(patch, { rate: RATE, seconds: LONGEST_SECONDS, note, held: HELD_SECONDS });
  const sound = left.map((v, i) => Math.max(Math.abs(v), Math.abs(right[i]!)));
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
