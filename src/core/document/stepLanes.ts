import type { Hit, NotePlace } from './hit';
import { lanesOf } from './lanes';
import { PADS } from './limits';
import { isInScale, isRoot, noteIn, noteName, padsOfNotes } from './tones';
import type { Track } from './track';

/** The highest note of MIDI. */
const MOST_NOTE = 127;

type OfTrack = Pick<Track, 'kit' | 'tones'>;
type Struck = Pick<Hit, 'pad' | 'pitch'>;

/** A lane of Steps: a pad of a kit with whatever is struck on it, or one note. */
export interface StepLane {
  /** The pad, or the MIDI note. */
  key: number;
  /** Of the drum, or of the note. */
  name: string;
  /** Where a hit lies that is entered here. */
  place: NotePlace;
  /** What a note is to the scale of its track; absent: a kit's pad. */
  degree?: 'root' | 'scale' | 'foreign';
}

/** A lane as it is chosen: by its pad, and of a track of notes by the MIDI note if that is not the pad's own. */
export interface ChosenLane {
  pad: number;
  note?: number;
}

/** What a lane is called, by its key. */
export function laneName(track: OfTrack, key: number): string {
  return track.tones ? noteName(key) : lanesOf(track)[key]!.name;
}

/** By what a lane is chosen. */
export function chosenBy({ key, place, degree }: StepLane): ChosenLane {
  return { pad: place.pad, ...(degree && place.pitch !== 0 && { note: key }) };
}

/** The lanes of hits: pads, or of a track of notes MIDI notes, to the nearest semitone. What lies beyond MIDI's notes is with the last of them. */
export function laneKeys(track: OfTrack): (hit: Struck) => number {
  if (!track.tones) return ({ pad }) => pad;
  const noteOf = noteIn(track.tones);
  return (hit) => Math.min(MOST_NOTE, Math.max(0, Math.round(noteOf(hit))));
}

/** Which hits lie in a lane. */
export function inLane(track: OfTrack, key: number): (hit: Struck) => boolean {
  const keyOf = laneKeys(track);
  return (hit) => keyOf(hit) === key;
}

/** The key of a chosen lane. A note counts only as long as it is found on the pad that is chosen with it. */
export function laneKey(track: OfTrack, { pad, note }: ChosenLane): number {
  if (!track.tones) return pad;
  return note !== undefined && padsOfNotes(track.tones)(note).pad === pad ? note : lanesOf(track)[pad]!.note;
}

/**
 * A track's lanes, the highest first. Those of notes are the notes of the scale from the lowest pad to the highest, or wider as the hits
 * are; a note between those of the scale has a lane if a hit has it, or if `all` are asked for.
 */
export function stepLanes(track: OfTrack, hits: readonly Struck[], all: boolean): StepLane[] {
  const { tones } = track;
  const pads = lanesOf(track);
  if (!tones) return pads.map(({ name }, pad) => ({ key: pad, name, place: { pad, pitch: 0 } })).reverse();
  const used = new Set(hits.map(laneKeys(track)));
  const placeOf = padsOfNotes(tones);
  const lanes: StepLane[] = [];
  const lowest = Math.min(pads[0]!.note, ...used);
  for (let note = Math.max(pads[PADS - 1]!.note, ...used); note >= lowest; note--) {
    const degree = isRoot(tones, note) ? 'root' : isInScale(tones, note) ? 'scale' : 'foreign';
    if (degree === 'foreign' && !all && !used.has(note)) continue;
    lanes.push({ key: note, name: noteName(note), place: placeOf(note), degree });
  }
  return lanes;
}
