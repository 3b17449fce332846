import { FIRST_GROUP_CHANNEL, WHOLE_CHANNEL } from '@/core/document/mix';
import {
  HELD_CONTROLS,
  isOfReturn,
  movedKey,
  type HeldControl,
  type Moved,
  type MovedMix,
} from '@/core/document/moves';
import { SILENT } from '@/core/launch/launchState';
import type { Instruction } from '@/core/protocol/commands';
import type { Store } from '@/store/store';
import { selectSet } from '@/store/selectors';
import { MoveRecorder } from './moveRecorder';
import type { Performance } from './performance';

/** A control that hands hold. */
interface Held {
  track: number;
  moved: Moved;
  value: number;
  /** It has been ridden since recording began. */
  isWritten: boolean;
  /** Time stamp of the last movement, ms. */
  at: number;
  /** A knob is never let go: it rests. What is done to a key is for itself: that of others stays. */
  by: 'finger' | 'knob' | 'key';
}

/** A hand that has not moved a control for so long rests, ms. */
const RESTS_MS = 250;
/** A control that is written on although nobody moves it gets a point every so many ticks: a sixteenth. */
const WRITTEN_EVERY = 240;

/**
 * Hands on the controls of pads and of the mix. What they hold takes the place of the pattern's Moves until they let go. While recording it is
 * written into the Moves of the pattern that is heard, in one of three ways: *touch* writes while a control is moved, and then the
 * Moves have it again; *latch* writes on where it was left until recording ends; *over* does so too, and takes the place of the
 * control's whole course.
 */
export class Rides {
  private readonly held = new Map<string, Held>();
  private readonly recorder: MoveRecorder;
  private writtenTo = -Infinity;

  constructor(
    private readonly store: Store,
    private readonly performance: Performance,
    private readonly send: (instruction: Instruction) => void,
  ) {
    this.recorder = new MoveRecorder(store);
  }

  /** Where a hand holds a control, in the control's range; undefined where none does. */
  valueOf(track: number, moved: Moved): number | undefined {
    return this.held.get(keyOf(track, moved))?.value;
  }

  /**
   * A hand turns a control of a pad of a track, or of a channel as the track's patterns move it.
   * @param value in the control's range
   * @param timeStamp of the event, ms
   * @param by a knob of a controller has no finger that could be lifted
   */
  ride(track: number, moved: Moved, value: number, timeStamp: number, by: Held['by'] = 'finger'): void {
    this.tell(track, moved, value);
    const key = keyOf(track, moved);
    const held = this.held.get(key) ?? { track, moved, value, isWritten: false, at: timeStamp, by };
    Object.assign(held, { value, at: timeStamp, by });
    this.held.set(key, held);
    this.write(held, timeStamp);
  }

  /**
   * A finger that holds a pad presses its key or slides on it. While recording that is written from when it begins until the key is let
   * go, and what lies around is as if nobody had touched it.
   * @param value in the control's range
   */
  moveKey(track: number, moved: { pad: number; control: HeldControl }, value: number, timeStamp: number): void {
    if (value !== 0 || this.held.has(keyOf(track, moved))) this.ride(track, moved, value, timeStamp, 'key');
  }

  /** The key of a pad goes up, and with it what was done to it. */
  letGoOfKey(track: number, pad: number, timeStamp: number): void {
    for (const control of HELD_CONTROLS) {
      const moved: Moved = { pad, control };
      const held = this.held.get(keyOf(track, moved));
      if (held?.by !== 'key') continue;
      // As long as it was held still.
      if (held.isWritten) this.write(held, timeStamp);
      this.letGo(track, moved);
    }
  }

  /** A finger is lifted: it lets go, unless what it rode is written on. */
  release(track: number, moved: Moved): void {
    const isWritten = this.held.get(keyOf(track, moved))?.isWritten === true;
    if (!isWritten || this.store.getState().settings.ridesWrite === 'touch') this.letGo(track, moved);
  }

  /** The hand lets go, and the Moves have the control again. */
  letGo(track: number, moved: Moved): void {
    if (!this.held.delete(keyOf(track, moved))) return;
    this.tell(track, moved, NaN);
    this.recorder.end(track, moved);
  }

  letGoOfAll(): void {
    for (const { track, moved } of [...this.held.values()]) this.letGo(track, moved);
  }

  /** Time has gone on: what rests is let go, or written on. */
  follow(now: number): void {
    if (!this.isWriting || this.held.size === 0) return;
    const written = [...this.held.values()].filter(({ isWritten }) => isWritten);
    if (this.store.getState().settings.ridesWrite === 'touch') {
      const resting = written.filter(({ at, by }) => by === 'knob' && now - at > RESTS_MS);
      for (const { track, moved } of resting) this.letGo(track, moved);
      return;
    }
    const tick = this.performance.tickHeard(now);
    if (Math.abs(tick - this.writtenTo) < WRITTEN_EVERY) return;
    this.writtenTo = tick;
    for (const held of written) this.write(held, now);
  }

  /** Recording has ended: what was written is the pattern's, and the Moves have it. */
  recordingEnds(): void {
    for (const { track, moved, isWritten } of [...this.held.values()]) {
      if (isWritten) this.letGo(track, moved);
    }
    this.recorder.end();
  }

  /** @param value NaN: the hand lets go */
  private tell(track: number, moved: Moved, value: number): void {
    if ('pad' in moved) return this.send({ type: 'turn', track, ...moved, value });
    if (isOfReturn(moved)) return this.send({ type: 'rideReturn', ...moved, value });
    const channel = this.channelOf(track, moved);
    if (channel !== undefined) this.send({ type: 'ride', channel, control: moved.control, value });
  }

  /** The engine's channel that a track's patterns mean; undefined: the track goes to no group. */
  private channelOf(track: number, { on }: MovedMix): number | undefined {
    if (on === 'track') return track;
    if (on === 'whole') return WHOLE_CHANNEL;
    const group = selectSet(this.store.getState()).tracks[track]?.goesTo;
    return group === undefined ? undefined : FIRST_GROUP_CHANNEL + group;
  }

  private get isWriting(): boolean {
    const { playing, recording } = this.performance.anchor;
    return playing && recording;
  }

  private write(held: Held, timeStamp: number): void {
    const { performance } = this;
    if (!this.isWriting) return;
    const { track, moved, value, by } = held;
    const songTick = performance.tickHeard(timeStamp);
    // The song is counted in: nothing of it plays yet.
    if (songTick < performance.fromTick) return;
    const slot = performance.loopAt(songTick, track)?.slot ?? SILENT;
    if (slot === SILENT) return;
    held.isWritten = true;
    const tick = performance.positionAt(songTick, track);
    const isOver = this.store.getState().settings.ridesWrite === 'over';
    this.recorder.note({ track, slot }, moved, { tick, value }, by === 'key' ? by : isOver ? 'over' : undefined);
  }
}

function keyOf(track: number, moved: Moved): string {
  return `${track} ${movedKey(moved)}`;
}
