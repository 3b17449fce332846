import type { SampleAudio } from '@/core/sample/levels';
import { audioPeaks } from '@/core/sample/tidy';
import type { Piece } from '@/core/slice/cuts';

/** Frames of a sound that are one number where it is seen from afar. */
const COARSE = 256;

const coarse = new WeakMap<SampleAudio, SampleAudio>();

/** The loudest of each of so many columns of a stretch of a sound. From afar they are those of the sound made coarse, once. */
export function viewPeaks(audio: SampleAudio, columns: number, { from, to }: Piece): number[] {
  if (to - from < columns * COARSE * 2) return audioPeaks(audio, columns, from, to);
  let small = coarse.get(audio);
  if (!small) {
    small = { channels: [Float32Array.from(audioPeaks(audio, Math.ceil(audio.channels[0]!.length / COARSE)))] };
    coarse.set(audio, small);
  }
  return audioPeaks(small, columns, from / COARSE, to / COARSE);
}
