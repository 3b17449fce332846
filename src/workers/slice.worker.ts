import type { SliceWanted } from '@/audio/slicer';
import { SAMPLE_RATE, type SampleAudio } from '@/core/sample/levels';
import { findOnsets, type SoundOnset } from '@/core/slice/onsets';
import { answering } from './answering';
import { stretched } from './stretch';

/** Finds what begins in recordings, and makes them longer and shorter. */
answering<SliceWanted, SoundOnset[] | SampleAudio>(async (wanted) => {
  if ('onsetsOf' in wanted) return [findOnsets(wanted.onsetsOf, SAMPLE_RATE), []];
  const audio = await stretched(wanted.stretch, wanted.frames);
  return [audio, audio.channels];
});
