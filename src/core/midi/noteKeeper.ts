import type { MidiMessage } from './message';

/** Sends a message at a time, ms. */
export type SendAt = (message: MidiMessage, at: number) => void;

/** A note that was begun on an output and not ended yet. */
interface Begun {
  channel: number;
  note: number;
  /** The hit whose note it is. */
  id: number;
  /** When it begins and is to end, ms; Infinity until it is known. */
  from: number;
  to: number;
}

/** Between the end of a note and its new beginning, ms: devices want to see both. */
const APART_MS = 1;

/** The notes that sound on one output: whatever happens, each of them is ended. */
export class NoteKeeper {
  private readonly begun: Begun[] = [];

  constructor(private readonly send: SendAt) {}

  /** How many notes sound. */
  get count(): number {
    return this.begun.length;
  }

  /** @param velocity 1..127 */
  begin({ channel, note, id, from, to }: Begun, velocity: number): void {
    // The same key cannot go down twice.
    for (const other of this.begun.filter((one) => one.channel === channel && one.note === note)) {
      this.end(other, Math.max(other.from, from - APART_MS));
    }
    this.begun.push({ channel, note, id, from, to });
    this.send({ type: 'noteOn', channel, note, velocity }, from);
  }

  /** The key of a hit was let go. */
  release(id: number, at: number): void {
    for (const note of this.begun) if (note.id === id) note.to = Math.min(note.to, Math.max(at, note.from + APART_MS));
  }

  /** Ends what is due by a time, at its own time. */
  endUntil(at: number): void {
    for (const note of this.begun.filter(({ to }) => to <= at)) this.end(note, note.to);
  }

  /** Ends all that is begun. */
  endAll(at: number): void {
    for (const note of [...this.begun]) this.end(note, Math.max(at, note.from + APART_MS));
  }

  private end(note: Begun, at: number): void {
    this.begun.splice(this.begun.indexOf(note), 1);
    this.send({ type: 'noteOff', channel: note.channel, note: note.note, velocity: 64 }, at);
  }
}
