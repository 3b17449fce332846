import { instantiate } from '../soundMemory';
import type { MixBus } from './mixBus';
import { SEND_LOOP_WASM } from './sendLoopWasm';

interface Exports {
  send(frames: number, left: number, right: number, room: number, echo: number, l: number, r: number, toRoom: number, toEcho: number): void; // prettier-ignore
}

const fast = instantiate<Exports>(SEND_LOOP_WASM);

/** Where in the gains of a channel: of left and right, and the shares that go to room and echo. */
export const SENT = { left: 0, right: 1, room: 2, echo: 3 } as const;
export const SENT_NUMBERS = 4;
const NO_STEPS = new Float64Array(SENT_NUMBERS);

/** Pans frames of a bus in place, and adds what goes to room and echo. */
export function send(gains: Float64Array, bus: MixBus, from: number, frames: number): void {
  if (!fast) return sendMoving(gains, NO_STEPS, bus, from, frames);
  const at = 8 * from;
  fast.send(frames, bus.leftAt + at, bus.rightAt + at, bus.sendAt + at, bus.echoAt + at, gains[SENT.left]!, gains[SENT.right]!, gains[SENT.room]!, gains[SENT.echo]!); // prettier-ignore
}

/** The same, while its gains move by a step with each sample. */
export function sendMoving(
  gains: Float64Array,
  steps: Float64Array,
  { left, right, send: room, echo }: MixBus,
  from: number,
  frames: number,
): void {
  let l = gains[SENT.left]!;
  let r = gains[SENT.right]!;
  let toRoom = gains[SENT.room]!;
  let toEcho = gains[SENT.echo]!;
  const stepLeft = steps[SENT.left]!;
  const stepRight = steps[SENT.right]!;
  const stepRoom = steps[SENT.room]!;
  const stepEcho = steps[SENT.echo]!;
  for (let i = from; i < from + frames; i++) {
    const a = left[i]! * l;
    const b = right[i]! * r;
    left[i] = a;
    right[i] = b;
    room[i]! += (a + b) * toRoom;
    echo[i]! += (a + b) * toEcho;
    l += stepLeft;
    r += stepRight;
    toRoom += stepRoom;
    toEcho += stepEcho;
  }
  gains[SENT.left] = l;
  gains[SENT.right] = r;
  gains[SENT.room] = toRoom;
  gains[SENT.echo] = toEcho;
}
