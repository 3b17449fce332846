import type { MidiMessage } from '@/core/midi/message';

/** A message that came in from a device. */
export interface Heard {
  /** Counts them. */
  id: number;
  device: string;
  message: MidiMessage;
  /** When it happened, ms on the clock of `performance.now()`. */
  at: number;
  /** When it was taken here, ms. */
  takenAt: number;
}

const KEPT = 128;

/** What comes in from controllers, the newest last, for whoever looks. It never passes through Redux: there may be thousands a second. */
export class Monitor {
  readonly heard: Heard[] = [];
  /** How many have come so far. */
  count = 0;

  note(device: string, message: MidiMessage, at: number, takenAt: number): void {
    // The clock beats 24 times a quarter: it is told of by whoever follows it.
    if (message.type === 'clock') return;
    this.heard.push({ id: ++this.count, device, message, at, takenAt });
    if (this.heard.length > KEPT) this.heard.splice(0, this.heard.length - KEPT);
  }

  clear(): void {
    this.heard.length = 0;
  }
}
