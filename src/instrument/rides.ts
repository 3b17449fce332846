import type { Control } from '@/core/document/moves';
import { SILENT } from '@/core/launch/launchState';
import type { Instruction } from '@/core/protocol/commands';
import type { Store } from '@/store/store';
import { MoveRecorder } from './moveRecorder';
import type { Performance } from './performance';

/** A control that hands hold. */
interface Held {
  track: number;
  pad: number;
  control: Control;
  value: number;
  /** It has been ridden since recording began. */
  isWritten: boolean;
  /** Time stamp of the last movement, ms. */
  at: number;
  /** A knob is never let go: it rests. */
  byKnob: boolean;
}

/** A hand that has not moved a control for so long rests, ms. */
const RESTS_MS = 250;
/** A control that is written on although nobody moves it gets a point every so many ticks: a sixteenth. */
const WRITTEN_EVERY = 240;

/**
 * Hands on the controls of pads. What they hold takes the place of the pattern's Moves until they let go. While recording it is
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
  valueOf(track: number, pad: number, control: Control): number | undefined {
    return this.held.get(keyOf(track, pad, control))?.value;
  }

  /**
   * A hand turns a control of a pad.
   * @param value in the control's range
   * @param timeStamp of the event, ms
   * @param byKnob of a controller: there is no finger to be lifted
   */
  ride(track: number, pad: number, control: Control, value: number, timeStamp: number, byKnob = false): void {
    this.send({ type: 'turn', track, pad, control, value });
    const key = keyOf(track, pad, control);
    const held = this.held.get(key) ?? { track, pad, control, value, isWritten: false, at: timeStamp, byKnob };
    Object.assign(held, { value, at: timeStamp, byKnob });
    this.held.set(key, held);
    this.write(held, timeStamp);
  }

  /** A finger is lifted: it lets go, unless what it rode is written on. */
  release(track: number, pad: number, control: Control): void {
    const isWritten = this.held.get(keyOf(track, pad, control))?.isWritten === true;
    if (!isWritten || this.store.getState().settings.ridesWrite === 'touch') this.letGo(track, pad, control);
  }

  /** The hand lets go, and the Moves have the control again. */
  letGo(track: number, pad: number, control: Control): void {
    if (!this.held.delete(keyOf(track, pad, control))) return;
    this.send({ type: 'turn', track, pad, control, value: NaN });
    this.recorder.end(track, pad, control);
  }

  letGoOfAll(): void {
    for (const { track, pad, control } of [...this.held.values()]) this.letGo(track, pad, control);
  }

  /** Time has gone on: what rests is let go, or written on. */
  follow(now: number): void {
    if (!this.isWriting || this.held.size === 0) return;
    const written = [...this.held.values()].filter(({ isWritten }) => isWritten);
    if (this.store.getState().settings.ridesWrite === 'touch') {
      const resting = written.filter(({ at, byKnob }) => byKnob && now - at > RESTS_MS);
      for (const { track, pad, control } of resting) this.letGo(track, pad, control);
      return;
    }
    const tick = this.performance.tickHeard(now);
    if (Math.abs(tick - this.writtenTo) < WRITTEN_EVERY) return;
    this.writtenTo = tick;
    for (const held of written) this.write(held, now);
  }

  /** Recording has ended: what was written is the pattern's, and the Moves have it. */
  recordingEnds(): void {
    for (const { track, pad, control, isWritten } of [...this.held.values()]) {
      if (isWritten) this.letGo(track, pad, control);
    }
    this.recorder.end();
  }

  private get isWriting(): boolean {
    const { playing, recording } = this.performance.anchor;
    return playing && recording;
  }

  private write(held: Held, timeStamp: number): void {
    const { performance } = this;
    if (!this.isWriting) return;
    const { track, pad, control, value } = held;
    const songTick = performance.tickHeard(timeStamp);
    const slot = performance.loopAt(songTick, track)?.slot ?? SILENT;
    if (slot === SILENT) return;
    held.isWritten = true;
    const tick = performance.positionAt(songTick, track);
    const isOver = this.store.getState().settings.ridesWrite === 'over';
    this.recorder.note({ track, slot }, pad, control, { tick, value }, isOver);
  }
}

function keyOf(track: number, pad: number, control: Control): string {
  return `${track} ${pad} ${control}`;
}
