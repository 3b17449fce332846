import { readPlainSet, readSet, type ReadSet } from '@/core/document/readSet';
import { SCHEMA_VERSION } from '@/core/document/set';
import { isPlain, type Plain } from '@/core/plain';
import { isHitsPiece, isPatternPiece, isPiece, namedPieces, placeKey, type PieceKeys } from './pieces';
import { namesNoPieces, type Storage } from './records';

/** A set as it was found in the storage, put together from its pieces. */
export interface StoredSet {
  /** The record, as it was found. */
  record: string;
  /** The whole set; a text, if that cannot be read. What is missing or damaged of it stands in it as it was found. */
  plain: unknown;
  /** The pieces of its patterns, by their places. */
  keys: Map<string, PieceKeys>;
}

/** Reads a set that was found: the set, or what is wrong with it. */
export function readStored({ plain }: StoredSet): ReadSet {
  return typeof plain === 'string' ? readSet(plain) : readPlainSet(plain);
}

/** The text of the whole set, to keep or to export. */
export function textOf({ record, plain }: StoredSet): string {
  return namedPieces(record).length === 0 || typeof plain === 'string' ? record : JSON.stringify(plain);
}

/** So often a set is read again that changed while it was read. */
const READINGS = 5;

/** Looks for a set. A pattern or hits of which a piece is missing or damaged leave a text in their place, which no set can have. */
export async function findSet(storage: Storage, key: string): Promise<StoredSet | null> {
  for (let reading = 1; ; reading++) {
    const record = await storage.getItem(key);
    if (record === null) return null;
    const found = await putTogether(storage, record);
    // Another tab may have stored the set anew meanwhile, and removed what it named before.
    if (found.isWhole || reading === READINGS || (await storage.getItem(key)) === record) return found;
  }
}

/** Removes a set with its pieces. */
export async function removeSet(storage: Storage, key: string): Promise<void> {
  const record = await storage.getItem(key);
  await storage.removeItem(key);
  if (record !== null) await storage.removeMany([...(await allNamed(storage, [record]))]);
}

/**
 * Removes pieces that no record names, as a page leaves them that goes between a write and the removal of what it replaced. Tabs
 * may go on writing meanwhile: what they write they name at once, and no key comes back.
 */
export async function sweepPieces(storage: Storage): Promise<void> {
  const pieces = (await storage.getAllKeys()).filter(isPiece);
  if (pieces.length === 0) return;
  const records = (await storage.getAllKeys()).filter((key) => !isPiece(key) && !namesNoPieces(key));
  const named = await allNamed(storage, Object.values(await storage.getMany(records)));
  const loose = pieces.filter((key) => !named.has(key));
  if (loose.length > 0) await storage.removeMany(loose);
}

/** The keys of pieces that records name, and those that these name. */
export async function allNamed(storage: Storage, records: readonly (string | null)[]): Promise<Set<string>> {
  const named = new Set(records.flatMap((text) => namedPieces(text ?? '')));
  const patterns = await storage.getMany([...named].filter(isPatternPiece));
  for (const text of Object.values(patterns)) for (const key of namedPieces(text ?? '')) named.add(key);
  return named;
}

async function putTogether(storage: Storage, record: string): Promise<StoredSet & { isWhole: boolean }> {
  const keys = new Map<string, PieceKeys>();
  const set = parsed(record);
  const places = isPlain(set) && isPlain(set.tracks) ? patternPlaces(set.tracks) : [];
  const read = new PieceReader(storage);
  const patterns = await read.all(places.map(({ key }) => key));
  const lists = patterns.map((pattern) => (isPlain(pattern) && Array.isArray(pattern.hits) ? pattern.hits : []));
  const hits = await read.all(lists.flat().filter(isHitsPiece));
  places.forEach(({ key, track, slot, owner }, i) => {
    const pattern = patterns[i];
    owner[slot] = pattern;
    if (!isPlain(pattern) || !Array.isArray(pattern.hits)) return;
    const of = lists[i]!.map((name) =>
      isHitsPiece(name) ? { key: name, list: hits.shift() } : { key: '', list: name },
    );
    pattern.hits = of.flatMap(({ list }) => list);
    const counted = of.map(({ key: name, list }) => ({ key: name, count: Array.isArray(list) ? list.length : 1 }));
    keys.set(placeKey(track, slot), { key, plain: pattern, hits: counted });
  });
  // The pieces of an older document are not what it has become by its migration.
  if (isPlain(set) && set.schema !== SCHEMA_VERSION) keys.clear();
  return { record, plain: set, keys, isWhole: read.isWhole };
}

/** Where the record of a set names a pattern. */
interface NamedPattern {
  key: string;
  track: string;
  slot: number;
  /** The list of slots that names it. */
  owner: unknown[];
}

function patternPlaces(tracks: Plain): NamedPattern[] {
  return Object.entries(tracks).flatMap(([track, plain]) => {
    const owner = isPlain(plain) && Array.isArray(plain.patterns) ? (plain.patterns as unknown[]) : [];
    return owner.flatMap((key, slot) => (isPatternPiece(key) ? [{ key, track, slot, owner }] : []));
  });
}

class PieceReader {
  isWhole = true;

  constructor(private readonly storage: Storage) {}

  /** What lies under each of some keys: the key itself where there is nothing, and the text where that cannot be read. */
  async all(keys: readonly string[]): Promise<unknown[]> {
    const texts = await this.storage.getMany([...keys]);
    return keys.map((key) => {
      const text = texts[key] ?? null;
      if (text === null) this.isWhole = false;
      return text === null ? key : parsed(text);
    });
  }
}

/** A text as JSON, or the text itself where it is none. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
