import { counted } from '../counted';
import type { Kit } from '../document/kit';
import { MAX_NAME, MAX_SLOTS, MAX_TRACKS, PADS } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { freeTrackId, tracksOf, type BeatSet } from '../document/set';
import { newTrack, type Track } from '../document/track';
import { freeSlot, nextName } from '../edit/slots';
import { SAMPLE_RATE } from '../sample/levels';
import { piecesOf, playedPart } from './cuts';
import { kitOfPieces, pagesOf, patternOfPieces } from './toPads';

/** The pads on which pieces may be laid: those of the recording's own track, or those of a new one. */
export const LAID_ONTO = ['here', 'new'] as const;
export type LaidOnto = (typeof LAID_ONTO)[number];

/** Where pieces of a recording go: onto the pads of a track that there is, and onto new tracks. */
export interface PiecesLaid {
  here: { track: number; kit: Kit; slot: number; pattern: Pattern | null } | null;
  added: readonly Track[];
}

interface Options {
  onto: LaidOnto;
  /** Quarter notes per minute of the recording: patterns play its pieces in their order. Null: no patterns. */
  tempo: number | null;
  newId: () => number;
}

/**
 * Lays the pieces of a pad's recording onto pads: sixteen on the pads of the first track, and for each sixteen more a new track.
 * @returns where they go, or in a sentence why they cannot
 */
export function layPieces(
  set: BeatSet,
  place: { track: number; pad: number },
  { onto, tempo, newId }: Options,
): PiecesLaid | { problem: string } {
  const track = set.tracks[place.track]!;
  const { sound } = track.kit.pads[place.pad]!;
  if (!('sample' in sound.source)) return { problem: `${sound.name} is no recording.` };
  const { frames } = sound.source;
  const part = playedPart(sound.settings, frames);
  const pages = pagesOf(piecesOf(sound.cuts ?? [], part));
  const isHere = onto === 'here';
  const room = MAX_TRACKS - set.order.length;
  const needed = pages.length - (isHere ? 1 : 0);
  if (needed > room) {
    return { problem: `Its pieces need ${counted(needed, 'new track')}, and the set has room for ${room}. Make fewer cuts.` }; // prettier-ignore
  }
  const slot = isHere ? freeSlot(track, 0) : 0;
  if (tempo !== null && slot >= MAX_SLOTS) return { problem: `${track.name} has no free slot for the pattern.` };
  const order = { part, meter: set.meter, rate: SAMPLE_RATE, reverse: sound.settings.reverse === true, newId };
  const taken: { name: string }[] = tracksOf(set);
  const tracks = { ...set.tracks };
  const laid: { here: PiecesLaid['here']; added: Track[] } = { here: null, added: [] };
  pages.forEach((page, i) => {
    const kit = kitOfPieces(track.kit, sound, frames, page, i * PADS);
    const name = pages.length > 1 ? `${sound.name.slice(0, MAX_NAME - 4)} ${i + 1}` : sound.name;
    const pattern = tempo === null ? null : patternOfPieces(name, page, { ...order, tempo });
    if (isHere && i === 0) {
      laid.here = { track: track.id, kit, slot, pattern };
      return;
    }
    const id = freeTrackId({ tracks });
    const added = newTrack(taken.some((one) => one.name === name) ? nextName(name, taken) : name, id % 8, pattern ? [pattern] : []); // prettier-ignore
    tracks[id] = { ...added, id, kit: { ...kit, name: sound.name } };
    taken.push(added);
    laid.added.push(tracks[id]);
  });
  return laid;
}
