import { SILENT, LaunchState } from '../launch/launchState';
import type { Launcher } from '../launch/launcher';
import type { Handlers } from '../protocol/commands';
import { nearestLine } from '../quantize/grid';
import { placedTick, type Snap } from '../quantize/place';
import { placeRecorded, type RecordedPlace } from '../record/recordHit';
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
interface Found extends Playing {
  /** Song tick at which the first time round of its loop began. */
  origin: number;
  readonly place: RecordedPlace;
}

const found = (rack: TrackRack): Found => ({
  player: rack.tracks[0]!.silence,
  slot: SILENT,
  launchTick: 0.5,
  origin: 0.5,
  place: { pass: 0, struck: 0.5, placed: 0.5 },
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
  private readonly first: Found;
  private readonly next: Found;
  private readonly after: Playing;
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
    this.first = found(rack);
    this.next = found(rack);
    this.after = found(rack);
  }

  readonly commands: Handlers<'inputQuantize'> = {
    inputQuantize: ({ grid, on }) => {
      this.grid = grid;
      this.inputSnap = on ? { grid, strength: 1 } : null;
    },
  };

  /** Song ticks come round again: what was heard live the last time must sound this time. */
  songStarts(): void {
    for (const stroke of this.strokes) stroke.songTick = NaN;
  }

  /**
   * Records a stroke if it was heard while recording, and sets its `placed`.
   * @param snap what places it now
   * @param snapGrid grid in ticks of the snap that it keeps in the document, 0 for none
   */
  record(stroke: Stroke, snap: Snap | null, snapGrid: number): void {
    const { track: index } = stroke;
    const track = this.rack.tracks[index]!;
    this.lastSlot = Math.max(0, track.slot);
    stroke.placed = NaN;
    const heard = this.transport.timeline.at(stroke.heard);
    if (!heard.playing || !heard.recording) return;
    const at = this.find(index, stroke.struck, snap);
    if (!at) return;
    const { slot, player, origin, place } = at;
    const { start, span } = player;
    this.lastSlot = slot;

    const placed = start + (place.placed < 0 ? place.placed + span : place.placed);
    // Just before a window's start lies more of the tape: what sounds at the window's end is kept there.
    const inWindow = span < player.length && place.placed < 0 ? place.struck + span : place.struck;
    const struck = start + inWindow;
    const passTick = origin + place.pass * span;
    stroke.placed = passTick + place.placed;
    const recorded = this.strokes[this.serial % STROKES_KEPT]!;
    recorded.serial = ++this.serial;
    recorded.track = index;
    recorded.slot = slot;
    recorded.songTick = stroke.placed;
    const { row } = recorded;
    row.fill(0);
    row[HIT.TICK] = placed;
    row[HIT.STRUCK] = placed + place.struck - place.placed;
    row[HIT.PAD] = stroke.pad;
    row[HIT.VELOCITY] = stroke.velocity;
    row[HIT.ID] = stroke.id;
    row[HIT.PITCH] = this.sounds.tracks[index]!.handPitch;
    row[HIT.ODDS] = 1;
    row[HIT.LENGTH] = stroke.length < Infinity ? stroke.length : 1;
    player.insert(row);
    const feel = player.feels[stroke.pad];
    const event = this.events.add('recorded', this.transport.frame);
    event.track = index;
    event.slot = slot;
    event.pad = stroke.pad;
    event.velocity = stroke.velocity;
    event.pitch = row[HIT.PITCH];
    event.id = stroke.id;
    event.struck = struck;
    event.placed = placed;
    event.snapGrid = snapGrid;
    event.session = this.transport.session;
    event.pass = Math.round(passTick);
    event.serial = recorded.serial;
    event.length = row[HIT.LENGTH];
    // In the document the pad's Feel places the hit, unless it is said to stand on its own.
    event.asPlayed = !!feel && snap !== feel && placedTick(struck, feel) !== placed;
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

  /**
   * Which pattern a stroke belongs to, and where: the one that played when it was heard, unless it is placed where the next
   * one has taken over by then, on whose first step it was meant to be.
   */
  private find(index: number, songTick: number, snap: Snap | null): Found | null {
    const { since, before } = this.rack.tracks[index]!;
    const isBefore = songTick < since - SAME_TICKS;
    this.now(index);
    const at = this.placeIn(isBefore ? before : this.after, songTick, snap, this.transport.fromTick, this.first);
    const sounds = at ? at.origin + at.place.pass * at.player.span + at.place.placed : NaN;
    const line = at ? sounds : nearestLine(songTick, this.grid);
    const end = isBefore ? since : this.changeTick(index);
    if (end === Infinity || line < end - SAME_TICKS) return at;
    if (isBefore) return this.placeIn(this.now(index), songTick, snap, end, this.next) ?? at;
    this.ahead.copyFrom(this.launcher.live);
    this.launcher.runState(this.ahead, end);
    const next = this.ahead.slot[index]!;
    if (next === SILENT) return at;
    this.after.player = this.rack.tracks[index]!.at(next);
    this.after.slot = next;
    this.after.launchTick = this.ahead.launchTick[index]!;
    return this.placeIn(this.after, songTick, snap, end, this.next) ?? at;
  }

  /** What plays on a track now. */
  private now(index: number): Playing {
    const { player, slot } = this.rack.tracks[index]!;
    this.after.player = player;
    this.after.slot = slot;
    this.after.launchTick = player.launchTick;
    return this.after;
  }

  private placeIn(tape: Playing, songTick: number, snap: Snap | null, from: number, out: Found): Found | null {
    const { player, slot, launchTick } = tape;
    if (player.span <= 0) return null;
    out.player = player;
    out.slot = slot;
    out.origin = launchTick + player.start;
    const inLoop = songTick - out.origin;
    return placeRecorded(inLoop, player.span, snap, this.grid, from - out.origin, out.place) ? out : null;
  }

  /** The song tick at which another pattern takes over on a track; Infinity when none is to. */
  private changeTick(index: number): number {
    return this.transport.playing ? this.launcher.changeTick(this.launcher.live, index) : Infinity;
  }
}
