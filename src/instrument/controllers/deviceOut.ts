import { lanesOf } from '@/core/document/lanes';
import { CONTROL_RANGES } from '@/core/document/moves';
import type { Track } from '@/core/document/track';
import { CONTROLLERS } from '@/core/formats/controllers';
import { ClockOut } from '@/core/midi/clockOut';
import type { Device, OutTrack } from '@/core/midi/device';
import { bytesOf, type MidiMessage } from '@/core/midi/message';
import { NoteKeeper } from '@/core/midi/noteKeeper';
import type { EngineEvent } from '@/core/protocol/events';
import type { MidiOutPort } from '@/midi/ports';
import { selectSet } from '@/store/selectors';
import type { Store } from '@/store/store';
import type { Instrument } from '../instrument';

/**
 * Clocks are sent so far ahead of when they are heard, ms. A change of tempo is told about as long before it is heard as the output is
 * late: what is sent further ahead would not know of it. A page out of sight is called less often.
 */
const AHEAD_MS = 30;
const AHEAD_UNSEEN_MS = 120;
/** A note whose end nobody tells of, such as a drum's under a finger, lasts no longer, ms. */
const LONGEST_MS = 10_000;

type Sounded = Extract<EngineEvent, { kind: 'sounded' }>;

/** What one device gets to hear: tracks that play it, and the song's clock. Everything goes out with the time at which it is heard. */
export class DeviceOut {
  private readonly notes: NoteKeeper;
  private readonly clock: ClockOut;
  /** What each controller of each channel was told last. */
  private readonly controls = new Map<string, number>();
  private wasPlaying = false;

  constructor(
    readonly port: MidiOutPort,
    private readonly store: Store,
    private readonly instrument: Instrument,
    private readonly device: () => Device,
    private readonly isSeen: () => boolean,
  ) {
    this.notes = new NoteKeeper((message, at) => this.send(message, at));
    this.clock = new ClockOut((message, at) => this.send(message, at));
  }

  /** Takes what the engine told. @param now ms */
  take(events: readonly EngineEvent[], now: number): void {
    for (const event of events) {
      if (event.kind === 'sounded') this.sound(event);
      else if (event.kind === 'released') this.notes.release(event.id, this.instrument.timeHeard(event.frame));
      else if (event.kind === 'anchor') this.follow(event);
    }
    this.goOn(now);
  }

  /** Time has gone on: what is due soon goes out. */
  goOn(now: number): void {
    const until = now + (this.isSeen() ? AHEAD_MS : AHEAD_UNSEEN_MS);
    this.notes.endUntil(until);
    this.clock.until(until, this.timeOf);
  }

  /** Ends what sounds, as when the device is let go of or the page goes away. */
  end(now: number): void {
    this.notes.endAll(now);
    this.clock.stop(now);
    this.wasPlaying = false;
  }

  private sound(event: Sounded): void {
    const { outs } = this.device();
    if (outs.length === 0) return;
    const set = selectSet(this.store.getState());
    for (const out of outs) {
      const track = set.tracks[set.order[out.row] ?? -1];
      if (track?.id === event.track) this.play(out, track, event);
    }
  }

  private play(out: OutTrack, track: Track, event: Sounded): void {
    const { channel } = out;
    const own = out.notes?.[event.pad] ?? lanesOf(track)[event.pad]!.note;
    // Of a drum the note says which it is; of a note, its pitch too.
    const note = own + (track.tones ? Math.round(event.bend) : 0);
    if (note < 0 || note > 127) return;
    const from = this.instrument.timeHeard(event.frame);
    if (out.moves) this.move(channel, event, from);
    const msPerTick = this.msPerTick;
    const known = event.length < Infinity ? event.length * msPerTick : LONGEST_MS;
    const velocity = Math.min(127, Math.max(1, Math.round(event.velocity * 127)));
    this.notes.begin({ channel, note, id: event.id, from, to: from + Math.min(LONGEST_MS, known) }, velocity);
  }

  /** What the stroke has of its controls, where it is another than before. */
  private move(channel: number, event: Sounded, at: number): void {
    for (const control of ['level', 'pan', 'filter', 'decay'] as const) {
      const { min, max } = CONTROL_RANGES[control];
      const value = Math.round(Math.min(1, Math.max(0, (event[control] - min) / (max - min))) * 127);
      const number = CONTROLLERS[control];
      const key = `${channel} ${number}`;
      if (this.controls.get(key) === value) continue;
      this.controls.set(key, value);
      this.send({ type: 'control', channel, control: number, value }, at);
    }
  }

  /** The song has begun, stopped, or goes on at another tempo. */
  private follow(event: Extract<EngineEvent, { kind: 'anchor' }>): void {
    const { clocked } = this.device();
    if (event.playing && !this.wasPlaying && clocked) this.clock.start(Math.max(0, event.fromTick), this.timeOf);
    if (!event.playing && this.wasPlaying) {
      const at = this.instrument.timeHeard(event.frame);
      this.clock.stop(at);
      this.notes.endAll(at);
    }
    this.wasPlaying = event.playing;
  }

  /** When a song tick is heard, ms; never while the song stands still. */
  private readonly timeOf = (tick: number): number => {
    return this.instrument.timeHeard(this.instrument.performance.frameOf(tick));
  };

  private get msPerTick(): number {
    const { anchor } = this.instrument.performance;
    const { timeHeard } = this.instrument;
    return (timeHeard.call(this.instrument, anchor.frame + 1e6 * anchor.framesPerTick) - timeHeard.call(this.instrument, anchor.frame)) / 1e6; // prettier-ignore
  }

  private send(message: MidiMessage, at: number): void {
    this.port.send(bytesOf(message), at);
  }
}
