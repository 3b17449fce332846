import { SILENT } from '../launch/launchState';
import type { CommandFields, Handlers } from '../protocol/commands';
import { nextLine } from '../quantize/grid';
import { SAME_TICKS } from '../time/ticks';
import type { TickPart } from './part';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';
import type { EventQueue } from '../protocol/events';
import { MAX_TRACKS } from '../document/limits';

/** Loop windows that wait for their line: one a track. */
export class LoopWindows implements TickPart {
  /** The window that waits for its slot, and the song tick at which it takes over; Infinity for none. */
  private readonly coming = Array.from({ length: MAX_TRACKS }, () => ({ slot: SILENT, start: 0, length: 0, tick: Infinity })); // prettier-ignore

  constructor(
    private readonly rack: TrackRack,
    private readonly transport: Transport,
    private readonly events: EventQueue,
  ) {}

  readonly commands: Handlers<'loopWindow'> = { loopWindow: (command) => this.change(command) };

  nextTick(): number {
    if (!this.transport.playing) return Infinity;
    let next = Infinity;
    for (const { tick } of this.coming) next = Math.min(next, tick);
    return next;
  }

  playTick(tick: number): void {
    // What the new window would have played before is not made up for.
    this.transport.playThrough(tick);
    for (let t = 0; t < this.coming.length; t++) if (this.coming[t]!.tick <= tick) this.apply(t);
  }

  songStops(): void {
    for (let t = 0; t < this.coming.length; t++) this.apply(t);
  }

  trackChanges(track: number): void {
    this.apply(track);
  }

  /** The loop window of a pattern changes, at once or, if it plays, on the next line of a grid. */
  private change({ track, slot, start, length, on }: CommandFields['loopWindow']): void {
    const { songTick, playing } = this.transport;
    const coming = this.coming[track]!;
    if (coming.slot === slot) this.forget(track);
    const waits = on > 0 && playing && slot === this.rack.tracks[track]!.slot;
    if (waits && this.rack.tracks[track]!.at(slot).hasWindow(start, length)) return;
    if (!waits) return this.takeOver(track, slot, start, length, songTick);
    coming.slot = slot;
    coming.start = start;
    coming.length = length;
    coming.tick = nextLine(songTick + SAME_TICKS, on);
    this.report(track);
  }

  /** The window that waits takes over. */
  private apply(track: number): void {
    const { slot, tick, start, length } = this.coming[track]!;
    if (tick === Infinity) return;
    this.forget(track);
    this.takeOver(track, slot, start, length, tick);
  }

  private takeOver(track: number, slot: number, start: number, length: number, tick: number): void {
    this.rack.tracks[track]!.at(slot).setWindow(start, length);
    if (slot === this.rack.tracks[track]!.slot) this.rack.reportLoop(track, tick);
  }

  private forget(track: number): void {
    const coming = this.coming[track]!;
    if (coming.tick === Infinity) return;
    coming.tick = Infinity;
    coming.start = 0;
    coming.length = 0;
    this.report(track);
  }

  private report(track: number): void {
    const { start, length, tick } = this.coming[track]!;
    const event = this.events.add('window', this.transport.frame);
    event.track = track;
    event.start = start;
    event.length = length;
    event.tick = tick;
  }
}
