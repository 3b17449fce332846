import { SILENT, type LaunchState } from '../launch/launchState';
import { PatternPlayer } from '../sequence/patternPlayer';
import type { Part } from './part';
import type { Transport } from './transport';
import type { EventQueue } from '../protocol/events';
import { MAX_TRACKS } from '../document/limits';

/** A pattern as it played: which slot, and where its tick 0 lay. */
export interface Playing {
  player: PatternPlayer;
  /** The slot, or SILENT. */
  slot: number;
  launchTick: number;
}

/** One track's patterns: what lies in its slots, what plays, and what played before. */
export class TrackSlots {
  /** What lies in its pattern slots, each where it was last used. */
  readonly slots: (PatternPlayer | null)[] = [];
  /** What plays while it is silent. */
  readonly silence = new PatternPlayer();
  slot = SILENT;
  player = this.silence;
  /** Song tick at which it took over, and what played before, for strokes that were heard then. */
  since = 0;
  readonly before: Playing = { player: this.silence, slot: SILENT, launchTick: 0 };

  /** The player of a slot; one that was never used is made. */
  at(slot: number): PatternPlayer {
    return (this.slots[slot] ??= new PatternPlayer());
  }
}

/** The tracks and what plays on each. The launcher decides; this is what follows it and is played from. */
export class TrackRack implements Part {
  readonly tracks: readonly TrackSlots[] = Array.from({ length: MAX_TRACKS }, () => new TrackSlots());

  constructor(
    private readonly transport: Transport,
    private readonly events: EventQueue,
  ) {}

  /** Another slot plays on a track, or the same one from another tick on. */
  takeOver(index: number, slot: number, launchTick: number, since: number): void {
    const track = this.tracks[index]!;
    track.before.player = track.player;
    track.before.slot = track.slot;
    track.before.launchTick = track.player.launchTick;
    track.slot = slot;
    track.player = slot === SILENT ? track.silence : track.at(slot);
    track.player.launchTick = launchTick;
    track.since = since;
    this.reportLoop(index, since);
  }

  /** Tells the page what goes round on a track from a song tick on. */
  reportLoop(index: number, tick: number): void {
    const { slot, player } = this.tracks[index]!;
    const event = this.events.add('loop', this.transport.frame);
    event.track = index;
    event.slot = slot;
    event.launchTick = player.launchTick;
    event.start = player.start;
    event.span = player.span;
    event.tick = tick;
  }

  /** While the song stands still: what is launched is what the launcher says. */
  takeData({ slot, launchTick, since }: LaunchState): void {
    for (let t = 0; t < this.tracks.length; t++) this.takeOver(t, slot[t]!, launchTick[t]!, since[t]!);
  }

  songStarts(startTick: number): void {
    for (const track of this.tracks) {
      track.before.player = track.silence;
      track.before.slot = SILENT;
      track.since = startTick;
    }
  }

  trackRemoved(index: number): void {
    this.tracks[index]!.slots.length = 0;
  }
}
