import { SAME_TICKS } from '@/core/time/ticks';
import type { Pattern, PatternPlace } from '@/core/document/pattern';
import type { Roll } from '@/core/document/roll';
import { difference } from '@/core/difference';
import type { Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import { movesInstruction, nextRevision, patternInstruction, windowInstruction } from '@/core/protocol/fromDocument';
import { hitRows } from '@/core/sequence/hitRows';
import { hitAt, isTreatedAlike, soundingHits, type SoundingHit } from '@/core/sequence/soundingHits';

/** A change of more hits than this, or than a quarter of them, is told as a whole pattern. */
const MOST_EDITS = 64;

/** Length in ticks of a hit whose pad is still held. */
const UNKNOWN_LENGTH = 1;

type Recorded = Extract<EngineEvent, { kind: 'recorded' }>;

/**
 * What the engine knows of one slot, and what it must be told to know the document's. What the engine recorded itself it
 * knows already: once the document has it too, nothing is sent.
 */
export class SlotFollower {
  /** The pattern as it was told last; null: an empty slot. */
  private told: Pattern | null = null;
  /** The hits that the engine plays, by id. */
  private hits = new Map<number, SoundingHit>();
  /** What the pattern sounded like when it was told last, and the hits of which the engine has said more since then, by id. */
  private sounding: readonly SoundingHit[] = [];
  private readonly touched = new Set<number>();
  /** Ids of hits whose pads are still held, and of those that were told meanwhile: the engine may have known better how long. */
  private readonly held = new Set<number>();
  private readonly toldWhileHeld = new Set<number>();

  constructor(private readonly place: PatternPlace) {}

  /** Whether the slot must be told as a whole, which may wait for its turn. */
  isNew(pattern: Pattern | null): boolean {
    return this.told === null && pattern !== null;
  }

  /** The engine has recorded a hit. */
  recorded({ id, pad, velocity, pitch, placed, length }: Recorded): void {
    // It takes the place of another: one that was told, or one that the engine has said since.
    const told = hitAt(this.sounding, placed, pad);
    for (const other of told ? [told.id, ...this.touched] : this.touched) {
      const hit = this.hits.get(other);
      if (hit?.pad !== pad || hit.tick !== placed) continue;
      this.hits.delete(other);
      this.touched.add(other);
    }
    this.touched.add(id);
    if (length === UNKNOWN_LENGTH) this.held.add(id);
    // The struck tick is not compared: it is the engine's own.
    this.hits.set(id, { id, pad, velocity, pitch, tick: placed, struck: NaN, length, odds: 1, roll: null });
  }

  /** The engine knows how long a hit was held. */
  released(id: number, length: number): void {
    const hit = this.hits.get(id);
    this.touched.add(id);
    this.held.delete(id);
    // A message that told its length may have crossed the pad's coming up: it is told again.
    if (this.toldWhileHeld.delete(id)) this.hits.delete(id);
    else if (hit) this.hits.set(id, { ...hit, length });
  }

  /**
   * What the engine must be told.
   * @param seen serial of the last recorded hit that the document has
   * @param windowOn step of song ticks at whose next line a loop window that was moved takes over, 0 for at once
   */
  changes(pattern: Pattern | null, seen: number, windowOn: number): Instruction[] {
    const { told, place } = this;
    if (pattern === told) return [];
    this.told = pattern;
    const out: Instruction[] = [];
    const sameHits = pattern?.hits === told?.hits && isSameTape(pattern, told);
    if (!sameHits) out.push(...this.hitChanges(pattern, told, seen));
    if (pattern?.window !== told?.window) {
      // Other hits bring their own window along; only one that was moved over the same tape waits.
      out.push(windowInstruction(place, pattern, sameHits ? windowOn : 0));
    }
    if ((pattern?.moves ?? null) !== (told?.moves ?? null)) out.push(movesInstruction(place, pattern));
    return out;
  }

  private hitChanges(pattern: Pattern | null, told: Pattern | null, seen: number): Instruction[] {
    const sounding = pattern ? soundingHits(pattern) : [];
    const edit = pattern && isSameTape(pattern, told) ? this.edit(sounding) : null;
    if (!edit) this.hits = new Map(sounding.map((hit) => [hit.id, hit]));
    this.sounding = sounding;
    this.touched.clear();
    if (!edit || edit.hits.length > 0) for (const id of this.held) this.toldWhileHeld.add(id);
    if (!edit) return [patternInstruction(this.place, pattern, seen)];
    return edit.removed.length + edit.hits.length > 0 ? [edit] : [];
  }

  /**
   * What changed, or null when it is so much that the whole is told. One hit more among thousands leaves those before and after
   * it the same objects: only what lies between, and what the engine has said more of, is looked at.
   */
  private edit(sounding: readonly SoundingHit[]): Instruction<'patternEdit'> | null {
    const { start, end, oldEnd } = difference(this.sounding, sounding);
    const looked = sounding.slice(start, end);
    const ids = new Set(looked.map(({ id }) => id));
    const elsewhere = new Set([...this.touched].filter((id) => !ids.has(id)));
    if (elsewhere.size > 0) {
      for (const hit of sounding) if (elsewhere.has(hit.id)) looked.push(hit);
      for (const { id } of looked) ids.add(id);
    }
    const changed = looked.filter((hit) => !isSame(this.hits.get(hit.id), hit));
    const before = new Set([...this.sounding.slice(start, oldEnd).map(({ id }) => id), ...this.touched]);
    const removed = [...before].filter((id) => this.hits.has(id) && !ids.has(id));
    if (changed.length + removed.length > Math.max(MOST_EDITS, sounding.length / 4)) return null;
    for (const id of removed) this.hits.delete(id);
    for (const hit of looked) this.hits.set(hit.id, hit);
    return {
      type: 'patternEdit',
      ...this.place,
      revision: nextRevision(),
      removed: Float64Array.from(removed),
      hits: hitRows(changed),
    };
  }
}

function isSameTape(a: Pattern | null, b: Pattern | null): boolean {
  return a !== null && b !== null && isTreatedAlike(a, b);
}

function isSame(a: SoundingHit | undefined, b: SoundingHit): boolean {
  if (a === b) return true;
  return (
    a !== undefined &&
    Math.abs(a.tick - b.tick) <= SAME_TICKS &&
    !(Math.abs(a.struck - b.struck) > SAME_TICKS) && // NaN is not compared
    a.pad === b.pad &&
    a.velocity === b.velocity &&
    a.pitch === b.pitch &&
    a.odds === b.odds &&
    a.length === b.length &&
    isSameRoll(a.roll, b.roll)
  );
}

function isSameRoll(a: Roll | null, b: Roll | null): boolean {
  if (a === b) return true;
  return a?.strokes === b?.strokes && a?.over === b?.over && a?.swell === b?.swell && a?.glide === b?.glide;
}
