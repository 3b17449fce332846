import type { Kit } from './kit';
import { CONTROLS, isHeldControl, type Control } from './moves';
import type { BeatSet } from './set';
import { sampleOf } from './sound';
import type { Track } from './track';

/** The samples that a kit's sounds name, each once. */
export function samplesOfKit({ pads }: Kit): string[] {
  return [...new Set(pads.flatMap(({ sound }) => sampleOf(sound.source) ?? []))];
}

/** The samples that the sounds of a set name, each once. */
export function samplesOfSet({ tracks }: Pick<BeatSet, 'tracks'>): string[] {
  return [...new Set(Object.values(tracks).flatMap(({ kit }) => samplesOfKit(kit)))];
}

const OF_MADE = CONTROLS.filter((control) => control !== 'start' && !isHeldControl(control));
const OF_SAMPLES = CONTROLS.filter((control) => !isHeldControl(control));
const OF_NOTES = CONTROLS.filter((control) => control !== 'start');

/** The controls that move something of what a pad of a track plays. */
export function controlsOf({ kit, tones }: Pick<Track, 'kit' | 'tones'>, pad: number): readonly Control[] {
  const source = kit.pads[pad]?.sound.source;
  if (tones) return OF_NOTES;
  return source && sampleOf(source) ? OF_SAMPLES : OF_MADE;
}
