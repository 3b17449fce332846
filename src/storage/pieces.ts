import { nanoid } from '@reduxjs/toolkit';
import type { Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';
import type { OpenSet } from '@/core/document/set';

/**
 * How a set lies in the storage. Were it one text, each stroke of a long recording would write megabytes; so it is cut into pieces,
 * and only those that changed are written:
 *
 * - a *record*, under the key of the set, is the set with the key of a piece in the place of each pattern;
 * - `pattern …` is a pattern, with the keys of pieces in the place of its hits;
 * - `hits …` is a list of hits that follow one another.
 *
 * A piece is never changed: what has changed is a new piece under a new key, and a key that a record no longer names never comes
 * back. So whatever is named by no record can be removed at any time, and several records may name one piece.
 */
const PATTERN = 'pattern ';
const HITS = 'hits ';
const PIECE = /\b(?:pattern|hits) [\w-]{21}/g;

/** Most hits of one piece, some 50 kB. A piece of less than half as many is joined with what comes beside it. */
export const MOST_HITS = 512;

interface HitsPiece {
  key: string;
  hits: readonly Hit[];
}

interface PatternPiece {
  key: string;
  pattern: Pattern;
  hits: readonly HitsPiece[];
}

/** What a set was cut into, by the places of its patterns. */
type Cut = Map<string, PatternPiece>;

/** The keys of pieces from which a pattern was put together, with the number of hits in each. */
export interface PieceKeys {
  key: string;
  /** The pattern as it was put together, before it was read. */
  plain: unknown;
  hits: readonly { key: string; count: number }[];
}

/** Whether a key of the storage is that of a piece. */
export function isPiece(key: string): boolean {
  return key.startsWith(PATTERN) || key.startsWith(HITS);
}

export function isPatternPiece(key: unknown): key is string {
  return typeof key === 'string' && key.startsWith(PATTERN);
}

export function isHitsPiece(key: unknown): key is string {
  return typeof key === 'string' && key.startsWith(HITS);
}

/** The keys of pieces that a stored text names, be it readable or not. */
export function namedPieces(text: string): string[] {
  return text.match(PIECE) ?? [];
}

/** Names the place of a pattern in a set. */
export function placeKey(track: number | string, slot: number): string {
  return `${track} ${slot}`;
}

/** The pieces of one set under one key of the storage: those that it consists of, and which of them are surely stored. */
export class SetPieces {
  /** What the set was cut into last, by the places of the patterns. */
  private cut: Cut = new Map();
  /** Keys of the pieces that the storage has, by its own word. */
  private stored = new Set<string>();
  /** Keys that were handed to the storage since. */
  private readonly sent = new Set<string>();
  /** Keys that other records name, too; null while they are not known, and nothing may be removed. */
  private held: Set<string> | null = null;

  /** @param key under which the record of the set is stored */
  constructor(readonly key: string) {}

  /** The pieces of a set that was read from them. */
  static ofStored(key: string, { set }: OpenSet, keys: ReadonlyMap<string, PieceKeys>): SetPieces {
    const pieces = new SetPieces(key);
    for (const id of set.order) {
      set.tracks[id]!.patterns.forEach((pattern, slot) => {
        const known = keys.get(placeKey(id, slot));
        // One that is another object was put right when it was read.
        if (!pattern || known?.plain !== pattern) return;
        let at = 0;
        const hits = known.hits.map((piece) => ({ key: piece.key, hits: pattern.hits.slice(at, (at += piece.count)) }));
        pieces.cut.set(placeKey(id, slot), { key: known.key, pattern, hits });
      });
    }
    pieces.stored = keysOf(pieces.cut);
    return pieces;
  }

  /** Texts to store so that the set is stored, by key: the record, and the pieces that are not stored yet. */
  entries({ set, stage }: OpenSet): Record<string, string> {
    const { cut, tracks } = this.cutAnew(set);
    this.cut = cut;
    const entries = this.missing(cut);
    for (const key of Object.keys(entries)) this.sent.add(key);
    return { ...entries, [this.key]: JSON.stringify({ ...set, tracks, stage }) };
  }

  /** Texts to store so that a set is stored under another key, too, and stays there whatever becomes of the set. */
  versionEntries(
    key: string,
    { set, stage }: { set: OpenSet['set']; stage?: OpenSet['stage'] },
  ): Record<string, string> {
    const { cut, tracks } = this.cutAnew(set);
    for (const piece of keysOf(cut)) this.held?.add(piece);
    return { ...this.missing(cut), [key]: JSON.stringify({ ...set, tracks, stage }) };
  }

  /** These keys, and no others until now, are named by other records. */
  hold(keys: Iterable<string>): void {
    this.held = new Set(keys);
  }

  /**
   * The storage has all that the last `entries` were, and no other write of this set is on its way.
   * @returns keys of pieces that the record names no more, to be removed
   */
  written(): string[] {
    const named = keysOf(this.cut);
    const { held } = this;
    const before = new Set([...this.stored, ...this.sent]);
    const gone = held ? [...before].filter((key) => !named.has(key) && !held.has(key)) : [];
    this.stored = named;
    this.sent.clear();
    return gone;
  }

  /** What was stored is gone: the next entries are all. */
  lost(): void {
    this.stored.clear();
  }

  /** Texts of the pieces that are not stored. */
  private missing(cut: Cut): Record<string, string> {
    const entries: Record<string, string> = {};
    const add = (key: string, piece: () => unknown) => {
      if (!this.stored.has(key)) entries[key] = JSON.stringify(piece());
    };
    for (const { key, pattern, hits } of cut.values()) {
      for (const piece of hits) add(piece.key, () => piece.hits);
      add(key, () => ({ ...pattern, hits: hits.map((piece) => piece.key) }));
    }
    return entries;
  }

  /** Cuts a set as near as can be to the last cut; its tracks with the keys of their patterns. */
  private cutAnew(set: OpenSet['set']) {
    const known = new Map([...this.cut.values()].map((piece) => [piece.pattern, piece]));
    const cut: Cut = new Map();
    const keyOf = (pattern: Pattern, place: string) => {
      const piece = known.get(pattern) ?? cutPattern(pattern, this.cut.get(place));
      cut.set(place, piece);
      return piece.key;
    };
    const tracks = Object.values(set.tracks).map((track) => {
      const patterns = track.patterns.map((pattern, slot) => pattern && keyOf(pattern, placeKey(track.id, slot)));
      return [track.id, { ...track, patterns }] as const;
    });
    return { cut, tracks: Object.fromEntries(tracks) };
  }
}

function keysOf(cut: Cut): Set<string> {
  return new Set([...cut.values()].flatMap(({ key, hits }) => [key, ...hits.map((piece) => piece.key)]));
}

function cutPattern(pattern: Pattern, before: PatternPiece | undefined): PatternPiece {
  const hits = pattern.hits === before?.pattern.hits ? before.hits : cutHits(pattern.hits, before?.hits ?? []);
  return { key: PATTERN + nanoid(), pattern, hits };
}

/** Cuts hits, and takes over every piece of an earlier cut that is in them as a whole. */
export function cutHits(frozen: readonly Hit[], before: readonly HitsPiece[]): HitsPiece[] {
  // Spread, since V8 takes several times as long to read the parts of a frozen list.
  const hits = [...frozen];
  const byFirst = new Map(before.map((piece) => [piece.hits[0], piece]));
  const isAt = (piece: HitsPiece | undefined, at: number): piece is HitsPiece =>
    piece !== undefined && piece.hits.every((hit, i) => hit === hits[at + i]);
  const pieces: HitsPiece[] = [];
  let start = 0;
  /** Cuts what has not been taken over, from `start` to before `end`. */
  const cutLoose = (end: number) => {
    for (; start < end; start = Math.min(start + MOST_HITS, end)) {
      const loose = hits.slice(start, Math.min(start + MOST_HITS, end));
      const same = byFirst.get(loose[0]);
      pieces.push(
        same?.hits.length === loose.length && isAt(same, start) ? same : { key: HITS + nanoid(), hits: loose },
      );
    }
  };
  for (let at = 0; at < hits.length;) {
    const piece = byFirst.get(hits[at]);
    if (isAt(piece, at) && piece.hits.length >= MOST_HITS / 2) {
      cutLoose(at);
      pieces.push(piece);
      start = at += piece.hits.length;
    } else at++;
  }
  cutLoose(hits.length);
  return pieces;
}
