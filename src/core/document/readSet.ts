import { MAX_HITS, MAX_SLOTS, MAX_TRACKS } from './limits';
import type { Kit } from './kit';
import { kitProblem } from './kitSchema';
import { migrate } from './migrations/migrate';
import { isPlain } from '../plain';
import type { Pattern } from './pattern';
import { PatternSchema } from './patternSchema';
import { mixProblem } from './mix';
import { SCHEMA_VERSION, tracksOf, type BeatSet, type OpenSet } from './set';
import { SetSchema, TrackStageSchema } from './setSchema';
import { FIRST_STAGE, type Stage } from './stage';
import type { Track } from './track';
import { TrackSchema } from './trackSchema';
import { check } from './validation';

/** Longer texts are no set that hands could have made; reading them would freeze the page. */
const MAX_TEXT = 60_000_000;

export type ReadSet = OpenSet | { error: string };

/** What is wrong with a set, in a sentence. */
class Problem extends Error {}

/** A set as it is stored: one text with how it is being performed. */
export function writeSet({ set, stage }: OpenSet): string {
  return JSON.stringify({ ...set, stage });
}

/**
 * Reads a stored set.
 * @returns the set and how it is being performed, or one sentence that says what is wrong and where; never throws
 */
export function readSet(text: string): ReadSet {
  if (text.length > MAX_TEXT)
    return { error: `It is ${Math.round(text.length / 1e6)} MB long, more than a set can be.` };
  let plain: unknown;
  try {
    plain = JSON.parse(text);
  } catch {
    return { error: 'It is cut off or not a set at all (the text cannot be read as JSON).' };
  }
  return readPlainSet(plain);
}

/** Reads a stored set from JSON that is parsed; like `readSet`. */
export function readPlainSet(plain: unknown): ReadSet {
  try {
    return readPlain(plain);
  } catch (error) {
    if (error instanceof Problem) return { error: error.message };
    return { error: 'Its parts are nested in a way that no set is.' };
  }
}

function readPlain(plain: unknown): OpenSet {
  if (!isPlain(plain)) throw new Problem('It holds no set.');
  const { schema } = plain;
  if (typeof schema === 'number' && schema > SCHEMA_VERSION) {
    throw new Problem(`It was made by a newer Chaffinch (version ${schema}; this one reads up to ${SCHEMA_VERSION}).`);
  }
  const whole = read(SetSchema, migrate(plain), '');
  const tracks: Record<number, Track> = {};
  whole.order.forEach((id, i) => (tracks[id] = readTrack(whole.tracks[id], id, `tracks ${i + 1}`)));
  const { stage, ...rest } = whole;
  const set = { ...rest, tracks } as BeatSet;
  checkLinks(set, stage.shown);
  return { set, stage: readStage(stage, set) };
}

function read<T extends object>(schema: new () => T, plain: unknown, path: string): T {
  const checked = check(schema, plain, path);
  if ('problem' in checked) throw new Problem(checked.problem);
  return checked.value;
}

function readTrack(plain: unknown, id: number, path: string): Track {
  const slots = isPlain(plain) && Array.isArray(plain.patterns) ? plain.patterns.length : 0;
  if (slots > MAX_SLOTS) throw new Problem(`At ${path}: it has ${slots} pattern slots; ${MAX_SLOTS} is the most.`);
  const track = read(TrackSchema, plain, path);
  if (track.id !== id) throw new Problem(`At ${path}: its number is ${track.id}, and it stands in the place of ${id}.`);
  const problem = kitProblem(track.kit as Kit, `${path}, kit`);
  if (problem) throw new Problem(problem);
  const patterns = track.patterns.map((slot, i) =>
    slot === null ? null : readPattern(slot, `${path}, patterns ${i + 1}`),
  );
  return { ...track, patterns } as Track;
}

function readPattern(plain: unknown, path: string): Pattern {
  // Lists that are too long are refused before each of their parts is looked at.
  const hits = isPlain(plain) && Array.isArray(plain.hits) ? plain.hits.length : 0;
  if (hits > MAX_HITS) throw new Problem(`At ${path}: it has ${hits} hits; ${MAX_HITS} is the most.`);
  return read(PatternSchema, plain, path) as Pattern;
}

/** How each track is being performed. One of which nothing was stored begins anew; a slot that is gone is the first. */
function readStage({ shown, tracks }: { shown: number; tracks: Record<string, unknown> }, set: BeatSet): Stage {
  const stage: Stage = { shown, tracks: {} };
  set.order.forEach((id, i) => {
    const own = tracks[id] === undefined ? FIRST_STAGE : read(TrackStageSchema, tracks[id], `stage, tracks ${i + 1}`);
    const slots = set.tracks[id]!.patterns.length;
    if (own.slot >= slots) throw new Problem(`At tracks ${i + 1}: the current slot ${own.slot + 1} does not exist.`);
    stage.tracks[id] = own;
  });
  return stage;
}

/** What no single field can tell. */
function checkLinks(set: BeatSet, shown: number): void {
  const ids = new Set<number>();
  const mixed = mixProblem(set.mix, tracksOf(set));
  if (mixed) throw new Problem(mixed);
  if (set.order.length > MAX_TRACKS) throw new Problem(`It has ${set.order.length} tracks; ${MAX_TRACKS} is the most.`);
  if (!set.tracks[shown]) throw new Problem(`At stage, shown: there is no track of number ${shown}.`);
  const sections = new Set(set.sections.map((section) => section.id));
  if (sections.size < set.sections.length) throw new Problem('Two of its sections have the same number.');
  set.order.forEach((id, t) => {
    for (const pattern of set.tracks[id]!.patterns) {
      for (const hit of pattern?.hits ?? []) {
        if (ids.has(hit.id)) throw new Problem(`Two hits of track ${t + 1} have the same number ${hit.id}.`);
        ids.add(hit.id);
      }
    }
  });
}
