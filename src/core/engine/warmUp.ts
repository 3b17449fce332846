import { at, NOW, type Instruction } from '../protocol/commands';
import { Engine } from './engine';
import { changes, everything, mixChanges, opening, strokes } from './warmUpScene';

/** Rounds that are played at once, each on an engine of its own, and the steps of one. */
const ROUNDS = 2;
const STEPS = 40;
/** Frames of a step. Code becomes fast by being called often, and the same calls cost less with fewer frames to render. */
const FRAMES_AT_ONCE = 32;
const FRAMES = 4;
/** Steps from one change of what is set to the next. */
const STEPS_OF_A_CHANGE = 5;

/**
 * Plays everything, unheard, on an engine of its own, so that the code is compiled and the tables are made before the first
 * stroke. To make it costs some 200 to 500 ms of the thread that does.
 *
 * More of it at once would not help: V8 compiles what is called often beside this thread, and while the app opens no core is
 * free for that. So it can be played on, a little at a time, as long as there is nothing to be heard.
 */
export class WarmUp {
  private readonly left = new Float32Array(FRAMES_AT_ONCE);
  private readonly right = new Float32Array(FRAMES_AT_ONCE);
  private engine!: Engine;
  private step = 0;

  /** @param sampleRate frames per second */
  constructor(sampleRate: number) {
    for (let round = 0; round < ROUNDS; round++) {
      this.engine = new Engine(sampleRate);
      this.tell(everything());
      for (let i = 0; i < STEPS; i++) {
        if (i % 10 === 0) this.tell(opening());
        this.play(FRAMES_AT_ONCE);
      }
    }
  }

  /** Plays on for one step: much less than a quantum's work. */
  play(frames = FRAMES): void {
    const change = Math.floor(this.step / STEPS_OF_A_CHANGE);
    if (this.step % STEPS_OF_A_CHANGE === 0) this.tell(changes(change));
    if (this.step % STEPS_OF_A_CHANGE === 2) this.tell(mixChanges(change));
    this.tell(strokes(this.step));
    this.engine.process(this.left, this.right, frames);
    this.engine.events.drain();
    this.step++;
  }

  private tell(instructions: readonly Instruction[]): void {
    for (const instruction of instructions) this.engine.post(at(NOW, asIfSent(instruction)));
  }
}

/**
 * A copy with the shape of what comes from the page in messages: V8 makes these one field after the other, and that is another shape
 * than that of an object which is written in the code as a whole.
 */
function asIfSent<T>(value: T): T {
  if (Array.isArray(value)) return value.map(asIfSent) as T;
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return value;
  const copy: Record<string, unknown> = {};
  for (const [key, part] of Object.entries(value)) copy[key] = asIfSent(part);
  return copy as T;
}
