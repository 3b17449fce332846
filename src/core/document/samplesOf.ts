import type { Kit } from './kit';
import type { BeatSet } from './set';
import { sampleOf } from './sound';

/** The samples that a kit's sounds name, each once. */
export function samplesOfKit({ pads }: Kit): string[] {
  return [...new Set(pads.flatMap(({ sound }) => sampleOf(sound.source) ?? []))];
}

/** The samples that the sounds of a set name, each once. */
export function samplesOfSet({ tracks }: Pick<BeatSet, 'tracks'>): string[] {
  return [...new Set(Object.values(tracks).flatMap(({ kit }) => samplesOfKit(kit)))];
}
