import type { MixBus } from '../sound/mix/mixBus';

/** Numbers that a tape has room for at first. */
const FIRST_ROOM = 1 << 16;
/** What is written before a bus. */
const [EMPTY, DRY, WITH_ECHO] = [0, 1, 2] as const;

/**
 * What the tracks of one engine sounded like, for another one that is told the same at the same frames and mixes them: so two threads
 * share a render. It holds the buses in the order in which they were rendered, and after each stretch which voices had ended in it. Both
 * engines must be asked for the same numbers of frames, by which stretches are cut.
 */
export class TrackTape {
  private at = 0;

  /** @param numbers of a tape that was written, or room for one */
  constructor(private numbers = new Float64Array(FIRST_ROOM)) {}

  /** What was written, and all the room there is. */
  get whole(): Float64Array<ArrayBuffer> {
    return this.numbers;
  }

  write(number: number): void {
    this.makeRoom(1);
    this.numbers[this.at++] = number;
  }

  read(): number {
    return this.numbers[this.at++]!;
  }

  /** @param bus null: there is nothing in it */
  writeBus(bus: MixBus | null, frames: number): void {
    if (bus === null) return this.write(EMPTY);
    this.write(bus.hasEcho ? WITH_ECHO : DRY);
    this.makeRoom(4 * frames);
    this.writeChannel(bus.left, frames);
    this.writeChannel(bus.right, frames);
    this.writeChannel(bus.send, frames);
    if (bus.hasEcho) this.writeChannel(bus.echo, frames);
  }

  /** @returns whether there is anything in it; if not, the bus stays as it was */
  readBus(bus: MixBus, frames: number): boolean {
    const kind = this.read();
    if (kind === EMPTY) return false;
    bus.clear(frames);
    this.readChannel(bus.left, frames);
    this.readChannel(bus.right, frames);
    this.readChannel(bus.send, frames);
    bus.hasEcho = kind === WITH_ECHO;
    if (bus.hasEcho) this.readChannel(bus.echo, frames);
    return true;
  }

  private writeChannel(channel: Float64Array, frames: number): void {
    this.numbers.set(channel.subarray(0, frames), this.at);
    this.at += frames;
  }

  private readChannel(channel: Float64Array, frames: number): void {
    channel.set(this.numbers.subarray(this.at, this.at + frames));
    this.at += frames;
  }

  private makeRoom(count: number): void {
    if (this.at + count <= this.numbers.length) return;
    const larger = new Float64Array(2 * (this.at + count));
    larger.set(this.numbers);
    this.numbers = larger;
  }
}
