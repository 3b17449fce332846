import type { SampleAudio } from '@/core/sample/levels';
import type { SoundOnset } from '@/core/slice/onsets';
import { AskedWorker } from './askedWorker';

/** What the worker for slices is asked: where something begins in a sound, or the sound at another length. */
export type SliceWanted = { onsetsOf: SampleAudio } | { stretch: SampleAudio; frames: number };

const worker = new AskedWorker<SliceWanted, SoundOnset[] | SampleAudio>('/workers/slice.worker.js');

/** The onsets of a sound: see `findOnsets`. */
export function onsetsOf(audio: SampleAudio): Promise<SoundOnset[]> {
  return worker.ask<SoundOnset[]>({ onsetsOf: audio });
}

/** A sound made longer or shorter without a change of pitch: see `stretched`. */
export function stretch(audio: SampleAudio, frames: number): Promise<SampleAudio> {
  return worker.ask<SampleAudio>({ stretch: audio, frames });
}
