import type { Meter } from '../time/ticks';
import { SCHEMA_VERSION, type BeatSet, type OpenSet } from './set';
import { FIRST_STAGE } from './stage';
import { emptyPattern } from './pattern';
import { newTrack, type Track } from './track';
import { FIRST_LAUNCHING } from './launching';

const FOUR_FOUR: Meter = { beats: 4, unit: 4 };

/** A set of these tracks, from top to bottom. */
export function newSet(name: string, tempo: number, tracks: readonly Track[]): BeatSet {
  return {
    schema: SCHEMA_VERSION,
    name,
    tempo,
    meter: FOUR_FOUR,
    metronome: { on: false, level: 0.7, sound: 'wood', when: 'always', between: null },
    countIn: 1,
    inputQuantize: { on: true, grid: '1/16' },
    tracks: Object.fromEntries(tracks.map((track) => [track.id, track])),
    order: tracks.map((track) => track.id),
    launching: FIRST_LAUNCHING,
    sections: [],
  };
}

/** A set with one drum track and one empty bar. */
export function emptySet(): OpenSet {
  const set = newSet('New set', 120, [newTrack('Drums', 0, [emptyPattern('Pattern 1', FOUR_FOUR)])]);
  return { set, stage: { shown: 0, tracks: { 0: FIRST_STAGE } } };
}
