import { alike } from '../alike';
import { emptySet } from '../document/create';
import { demoSet } from '../document/demo';
import { tracksOf, type BeatSet, type OpenSet } from '../document/set';
import { trackStage, type Stage } from '../document/stage';
import { soundingHits } from '../sequence/soundingHits';

/** A set as it was, under a name of its own or kept by itself. */
export interface KeptVersion {
  /** Under which it is stored. */
  key: string;
  /** When, as ISO 8601. */
  at: string;
  /** What is different in it, in the player's words. */
  note?: string;
  /** It was kept by itself, as the set was when it was opened. */
  auto?: boolean;
}

/** What the list of sets shows of one. */
export interface SetFacts {
  name: string;
  note?: string;
  from?: { id: string; name: string };
  /** Quarter notes per minute. */
  tempo: number;
  tracks: number;
  patterns: number;
  hits: number;
  /** Characters of the whole set as one text. */
  letters: number;
  picture: SetPicture;
}

/** A set in the bin stays there for so many days. */
export const BIN_DAYS = 30;

/** A set in the library of this device. */
export interface LibrarySet extends SetFacts {
  id: string;
  /** When it was changed last, as ISO 8601. */
  at: string;
  /** Key of the version as which it is opened again; of the open set, as which it was opened, or null if it is new. */
  latest: string | null;
  /** The newest first. */
  versions: KeptVersion[];
  /** When it was put into the bin, as ISO 8601. */
  binned?: string;
}

/** What each track plays, as a row of cells that are struck or not. */
export interface SetPicture {
  rows: { colour: number; cells: string }[];
}

const CELLS = 32;
const ROWS = 8;

/**
 * What the list of sets shows of a set.
 * @param letters of the whole set as one text; to count them costs some 10 ms for each MB
 */
export function factsOf({ set, stage }: OpenSet, letters = JSON.stringify(set).length): SetFacts {
  const tracks = tracksOf(set);
  const patterns = tracks.flatMap((track) => track.patterns.filter((pattern) => pattern !== null));
  return {
    name: set.name,
    ...(set.note !== undefined && { note: set.note }),
    ...(set.from && { from: set.from }),
    tempo: set.tempo,
    tracks: tracks.length,
    patterns: patterns.length,
    hits: patterns.reduce((sum, { hits }) => sum + hits.length, 0),
    letters,
    picture: pictureOf(set, stage),
  };
}

/** The patterns that the first tracks are on; of a track whose slot is empty, its first pattern. */
function pictureOf(set: BeatSet, stage: Stage): SetPicture {
  const rows = tracksOf(set).slice(0, ROWS).flatMap(({ id, colour, patterns }) => {
    const pattern = patterns[trackStage(stage, id).slot] ?? patterns.find((one) => one !== null);
    if (!pattern) return [];
    const cells = new Array<string>(CELLS).fill('-');
    for (const { tick } of soundingHits(pattern)) {
      cells[Math.min(CELLS - 1, Math.floor((tick / pattern.length) * CELLS))] = 'x';
    }
    return [{ colour: pattern.colour ?? colour, cells: cells.join('') }];
  }); // prettier-ignore
  return { rows };
}

/** Whether a set is as it comes with the app: nothing was made of it, and it can be had again at any time. */
export function isUntouched(set: BeatSet): boolean {
  return [emptySet(), demoSet()].some((fresh) => set.name === fresh.set.name && alike({ ...set, id: undefined }, fresh.set)); // prettier-ignore
}

/** So many versions that were kept by themselves stay with a set; those that hands have kept all do. */
export const MOST_AUTO = 12;

/** The versions of a set with one more; the oldest that were kept by themselves make way. */
export function withVersion(versions: readonly KeptVersion[], version: KeptVersion): KeptVersion[] {
  let autos = 0;
  return [version, ...versions].filter(({ auto }) => !auto || ++autos <= MOST_AUTO);
}
