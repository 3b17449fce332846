import { newPattern, type Pattern, type PatternPlace } from '@/core/document/pattern';
import { patternAt, tracksOf, type BeatSet } from '@/core/document/set';
import { trackStage, type Stage } from '@/core/document/stage';
import type { Track } from '@/core/document/track';
import type { Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import { setChanges, trackChanges } from '@/core/protocol/documentChanges';
import { MAX_SLOTS } from '@/core/document/limits';
import { SlotFollower } from './slotFollower';

/** How much one message tells of patterns that do not play: few enough that their arrival costs the audio thread little. */
const PORTION_SLOTS = 64;
const PORTION_HITS = 4000;

const keyOf = ({ track, slot }: PatternPlace) => track * MAX_SLOTS + slot;

/**
 * Tells the engine what is new in the document since it was last told. What plays is told at once; the rest of a set that was
 * opened goes over in portions, one for each message that comes back, so that the audio thread never has too much at a time.
 */
export class DocumentFollower {
  private told: BeatSet | null = null;
  private toldStage: Stage | null = null;
  /** Serial of the engine's last recorded hit that the document has. */
  private seen = 0;
  private readonly slots = new Map<number, SlotFollower>();
  /** Places whose patterns are new, and wait for their turn. */
  private readonly waiting = new Map<number, PatternPlace>();
  private readonly empties = new Map<string, Pattern>();

  /** @param send tells the engine several things at one frame */
  constructor(private readonly send: (instructions: readonly Instruction[]) => void) {}

  /**
   * Tells what changed.
   * @param windowOn step of song ticks at whose next line a loop window that was moved takes over, 0 for at once
   */
  follow(set: BeatSet, stage: Stage, windowOn = 0): void {
    const before = this.told;
    if (set === before && stage.tracks === this.toldStage?.tracks) return;
    this.told = set;
    this.toldStage = stage;
    const out = setChanges(before, set);
    for (const { id } of before ? tracksOf(before) : []) if (!set.tracks[id]) out.push(...this.removed(id));
    for (const track of tracksOf(set)) {
      const old = before?.tracks[track.id];
      if (track !== old) out.push(...trackChanges(old, track));
      out.push(...this.slotChanges(old, track, windowOn));
    }
    this.send(out);
  }

  /** Whether the engine knows all of the document. */
  get isTold(): boolean {
    return this.told !== null && this.waiting.size === 0;
  }

  /** Tells the next portion of what waits. Call it when the engine has answered. */
  followOn(): void {
    if (this.waiting.size === 0) return;
    const out: Instruction[] = [];
    let slots = 0;
    let hits = 0;
    for (const place of this.waiting.values()) {
      if (slots >= PORTION_SLOTS || hits >= PORTION_HITS) break;
      out.push(...this.tell(place));
      slots++;
      hits += this.heard(place)?.hits.length ?? 0;
    }
    this.send(out);
  }

  /** Tells what lies at these places before anything else: it is about to play. */
  tellFirst(places: readonly PatternPlace[]): void {
    this.send(places.filter((place) => this.waiting.has(keyOf(place))).flatMap((place) => this.tell(place)));
  }

  /** The engine has recorded a hit, which it need not be told again. */
  recorded(event: Extract<EngineEvent, { kind: 'recorded' }>): void {
    this.seen = event.serial;
    this.slot(event).recorded(event);
  }

  /** The engine knows how long a hit was held. */
  released(event: Extract<EngineEvent, { kind: 'released' }>): void {
    this.slot(event).released(event.id, event.length);
  }

  private slotChanges(old: Track | undefined, track: Track, windowOn: number): Instruction[] {
    const out: Instruction[] = [];
    const { slot: current } = trackStage(this.toldStage!, track.id);
    if (track === old) return this.tell({ track: track.id, slot: current }, windowOn);
    const slots = Math.max(track.patterns.length, old?.patterns.length ?? 0);
    for (let slot = 0; slot < slots; slot++) {
      const place = { track: track.id, slot };
      // The slot that the track is on changes its pattern too when the track comes to it: an empty one can be played into.
      if (slot !== current && track.patterns[slot] === old?.patterns[slot]) continue;
      if (slot !== current && this.slot(place).isNew(this.heard(place))) this.waiting.set(keyOf(place), place);
      else out.push(...this.tell(place, windowOn));
    }
    return out;
  }

  private tell(place: PatternPlace, windowOn = 0): Instruction[] {
    this.waiting.delete(keyOf(place));
    return this.slot(place).changes(this.heard(place), this.seen, windowOn);
  }

  /** What a slot sounds like. The empty slot that a track is on is an empty pattern, so that strokes find a place in it. */
  private heard(place: PatternPlace): Pattern | null {
    const pattern = patternAt(this.told!, place);
    if (pattern || trackStage(this.toldStage!, place.track).slot !== place.slot) return pattern;
    const { meter } = this.told!;
    const key = `${place.slot} ${meter.beats}/${meter.unit}`;
    let empty = this.empties.get(key);
    if (!empty) this.empties.set(key, (empty = newPattern(place.slot, meter)));
    return empty;
  }

  private slot(place: PatternPlace): SlotFollower {
    const key = keyOf(place);
    let slot = this.slots.get(key);
    if (!slot) this.slots.set(key, (slot = new SlotFollower({ track: place.track, slot: place.slot })));
    return slot;
  }

  private removed(track: number): Instruction[] {
    for (let slot = 0; slot < MAX_SLOTS; slot++) {
      this.slots.delete(keyOf({ track, slot }));
      this.waiting.delete(keyOf({ track, slot }));
    }
    return [
      { type: 'removeTrack', track },
      { type: 'muteSolo', track, mute: 0, solo: 0, on: 0 },
    ];
  }
}
