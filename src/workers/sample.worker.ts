import { prepareSample, type PreparedSample, type Sample } from '@/core/sample/levels';
import { answering } from './answering';

/** Prepares samples for the engine, away from the page and from the audio thread. */
answering<Sample, PreparedSample>((sample) => {
  const prepared = prepareSample(sample);
  return [prepared, prepared.levels.flatMap(({ channels }) => channels)];
});
