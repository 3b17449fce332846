import type { Handlers } from '../protocol/commands';
import type { PreparedSample } from '../sample/levels';
import type { Part } from './part';

/** The samples that can be played, by the names of their audio. What rings of one that goes rings on. */
export class SampleBank implements Part {
  private readonly samples = new Map<string, PreparedSample>();

  readonly commands: Handlers<'sample' | 'dropSample'> = {
    sample: ({ sample }) => {
      // In a log it stands without its audio.
      if (sample.levels.length > 0) this.samples.set(sample.id, sample);
    },
    dropSample: ({ id }) => void this.samples.delete(id),
  };

  /** A sample; undefined as long as it has not come. */
  find(id: string): PreparedSample | undefined {
    return this.samples.get(id);
  }
}
