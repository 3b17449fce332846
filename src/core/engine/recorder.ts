import { SILENT, LaunchState } from '../launch/launchState';
import type { Launcher } from '../launch/launcher';
import type { Handlers } from '../protocol/commands';
import { nearestLine } from '../quantize/grid';
import { placedTick, type Snap } from '../quantize/place';
import { placeRecorded, type RecordedPlace, type StruckTick } from '../record/recordHit';
import type { PatternPlayer } from '../sequence/patternPlayer';
import { HIT_WIDTH, HIT } from '../sequence/hitRows';
import { SAME_TICKS } from '../time/ticks';
import type { Part } from './part';
import type { SoundRack } from './soundRack';
import type { Stroke } from './striker';
import type { Playing, TrackRack } from './trackRack';
import type { Transport } from './transport';
import type { EventQueue } from '../protocol/events';

/** Recorded strokes remembered so that they do not sound twice, and are not lost to a pattern message that crossed them. */
const STROKES_KEPT = 256;

/** One recorded stroke. */
interface Recorded {
  serial: number;
  track: number;
  slot: number;
  /** Song tick at which it would sound next had it not been heard live. */
  songTick: number;
  /** As the pattern plays it. */
  readonly row: Float64Array;
}

/** Which pattern a stroke belongs to, and where. */
interface Found {
  player: PatternPlayer;
  slot: number;
  /** Song tick at which tick 0 of the pattern lies in the pass of the stroke. */
  passTick: number;
  readonly place: RecordedPlace;
}

const newFound = (player: PatternPlayer): Found => ({
  player,
  slot: SILENT,
  passTick: 0.5,
  place: { pass: 0, struck: 0.5, placed: 0.5, keepsSnap: true },
});

/** Puts strokes that were heard while recording into the patterns that played. */
export class Recorder implements Part {
  /** How input quantize places a new hit; null while it is off. */
  inputSnap: Snap | null = { grid: 240, strength: 1 };
  /** The slot that the last stroke was recorded into, or would have been. */
  lastSlot = 0;
  private grid = 240;
  /** A ring: the next one overwrites the oldest. */
  private readonly strokes: readonly Recorded[];
  private serial = 0;
  // Structs that are filled in again and again: a stroke allocates nothing.
  private readonly first: Found;
  private readonly second: Found;
  private readonly playing: Playing;
  private readonly struck: StruckTick = { tick: 0.5, snap: null, placedBy: null, grid: 240, from: 0.5 };
  /** To look ahead in. */
  private readonly ahead = new LaunchState();

  constructor(
    private readonly transport: Transport,
    private readonly rack: TrackRack,
    private readonly sounds: SoundRack,
    private readonly launcher: Launcher,
    private readonly events: EventQueue,
  ) {
    this.strokes = Array.from({ length: STROKES_KEPT }, () => ({
      serial: 0,
      track: 0,
      slot: 0,
      songTick: NaN,
      row: new Float64Array(HIT_WIDTH),
    }));
    const { silence } = rack.tracks[0]!;
    this.first = newFound(silence);
    this.second = newFound(silence);
    this.playing = { player: silence, slot: SILENT, launchTick: 0.5 };
  }

  readonly commands: Handlers<'inputQuantize'> = {
    inputQuantize: ({ grid, on }) => {
      this.grid = grid;
      this.inputSnap = on ? { grid, strength: 1 } : null;
    },
  };

  /** Serial of the last recorded hit. */
  get lastSerial(): number {
    return this.serial;
  }

  /** Counts on from the serial of another recorder. */
  takeSerial(serial: number): void {
    this.serial = serial;
  }

  /** Song ticks come round again: what was heard live the last time must sound this time. */
  songStarts(): void {
    for (const stroke of this.strokes) stroke.songTick = NaN;
  }

  /**
   * Records a stroke if it was heard while recording, and sets its `placed`. Its pitch does not know the hand's octave yet.
   * @param snap the snap that it keeps in the document, or null
   * @param placedBy what places it now: the Feel of its pad, or the snap
   */
  record(stroke: Stroke, snap: Snap | null, placedBy: Snap | null): void {
    const { track: index } = stroke;
    this.lastSlot = Math.max(0, this.rack.tracks[index]!.slot);
    stroke.placed = NaN;
    const heard = this.transport.timeline.at(stroke.heard);
    if (stroke.through || !heard.playing || !heard.recording) return;
    this.struck.snap = snap;
    this.struck.placedBy = placedBy;
    const found = this.find(index, stroke.struck);
    if (!found) return;
    this.lastSlot = found.slot;
    stroke.placed = found.passTick + found.place.placed;
    const recorded = this.keep(stroke, found);
    found.player.insert(recorded.row);
    this.report(recorded, found, snap, placedBy);
  }

  /** A held pad was let go: what was recorded of it is so long, in ticks. */
  setLength(track: number, slot: number, id: number, length: number): void {
    this.rack.tracks[track]!.at(slot).hits.setLength(id, length);
    for (const { row } of this.strokes) if (row[HIT.ID] === id) row[HIT.LENGTH] = length;
  }

  /** Strokes that whoever sent a pattern did not know of yet lie in it again. */
  insertAgain(track: number, slot: number, seen: number): void {
    for (let i = 0; i < STROKES_KEPT; i++) {
      const stroke = this.strokes[(this.serial + i) % STROKES_KEPT]!; // oldest first
      if (stroke.serial > seen && stroke.track === track && stroke.slot === slot) {
        this.rack.tracks[track]!.at(slot).insert(stroke.row);
      }
    }
  }

  /** Whether the hit was struck by hand for this very moment, and has sounded. */
  alreadyHeard(id: number, songTick: number): boolean {
    for (const { row, songTick: heard } of this.strokes) {
      if (row[HIT.ID] === id && Math.abs(heard - songTick) <= SAME_TICKS) return true;
    }
    return false;
  }

  /** Remembers a stroke as its pattern will play it. */
  private keep(stroke: Stroke, { slot, player, place }: Found): Recorded {
    const recorded = this.strokes[this.serial % STROKES_KEPT]!;
    recorded.serial = ++this.serial;
    recorded.track = stroke.track;
    recorded.slot = slot;
    recorded.songTick = stroke.placed;
    const { row } = recorded;
    // Pulled round the loop's end it sounds at the other one.
    const placed = player.wrapped(place.placed);
    row.fill(0);
    row[HIT.TICK] = placed;
    row[HIT.STRUCK] = placed + place.struck - place.placed;
    row[HIT.PAD] = stroke.pad;
    row[HIT.VELOCITY] = stroke.velocity;
    row[HIT.ID] = stroke.id;
    row[HIT.PITCH] = stroke.pitch + this.sounds.tracks[stroke.track]!.handPitch;
    row[HIT.ODDS] = 1;
    row[HIT.LENGTH] = stroke.length < Infinity ? stroke.length : 1;
    return recorded;
  }

  private report(
    recorded: Recorded,
    { player, place, passTick }: Found,
    snap: Snap | null,
    placedBy: Snap | null,
  ): void {
    const { row } = recorded;
    const feel = player.feels[row[HIT.PAD]!] ?? null;
    const event = this.events.add('recorded', this.transport.frame);
    event.track = recorded.track;
    event.slot = recorded.slot;
    event.pad = row[HIT.PAD]!;
    event.velocity = row[HIT.VELOCITY]!;
    event.pitch = row[HIT.PITCH]!;
    event.id = row[HIT.ID]!;
    event.struck = place.struck;
    event.placed = row[HIT.TICK]!;
    event.snapGrid = place.keepsSnap ? (snap?.grid ?? 0) : 0;
    event.session = this.transport.session;
    event.pass = Math.round(passTick);
    event.serial = recorded.serial;
    event.length = row[HIT.LENGTH]!;
    // In the document the pad's Feel places the hit, unless it is said to stand on its own.
    const isPlacedByFeel = place.keepsSnap && placedBy === feel;
    event.asPlayed = feel !== null && !isPlacedByFeel && placedTick(place.struck, feel) !== place.placed;
  }

  /**
   * Which pattern a stroke belongs to, and where: the one that played when it was heard, unless it is placed where the next
   * one has taken over by then, on whose first step it was meant to be.
   */
  private find(index: number, songTick: number): Found | null {
    const { since, before } = this.rack.tracks[index]!;
    const isBefore = songTick < since - SAME_TICKS;
    const at = this.placeIn(isBefore ? before : this.now(index), songTick, this.transport.fromTick, this.first);
    const line = at ? at.passTick + at.place.placed : nearestLine(songTick, this.grid);
    const end = isBefore ? since : this.takeOverTick(index);
    if (end === Infinity || line < end - SAME_TICKS) return at;
    if (isBefore) return this.placeIn(this.now(index), songTick, end, this.second) ?? at;
    this.launcher.lookAhead(this.ahead, end);
    const next = this.ahead.slot[index]!;
    if (next === SILENT) return at;
    this.playing.player = this.rack.tracks[index]!.at(next);
    this.playing.slot = next;
    this.playing.launchTick = this.ahead.launchTick[index]!;
    return this.placeIn(this.playing, songTick, end, this.second) ?? at;
  }

  /** What plays on a track now. */
  private now(index: number): Playing {
    const { player, slot } = this.rack.tracks[index]!;
    this.playing.player = player;
    this.playing.slot = slot;
    this.playing.launchTick = player.launchTick;
    return this.playing;
  }

  private placeIn({ player, slot, launchTick }: Playing, songTick: number, from: number, out: Found): Found | null {
    if (player.span <= 0) return null;
    const { struck } = this;
    struck.tick = songTick - launchTick;
    struck.from = from - launchTick;
    struck.grid = this.grid;
    if (!placeRecorded(struck, player, out.place)) return null;
    out.player = player;
    out.slot = slot;
    out.passTick = launchTick + out.place.pass * player.span;
    return out;
  }

  /** The song tick at which something else takes over on a track; Infinity when nothing is to. */
  private takeOverTick(index: number): number {
    return this.transport.playing ? this.launcher.takeOverTick(index, this.ahead) : Infinity;
  }
}
