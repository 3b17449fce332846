import { bytesOf, type MidiMessage } from '@/core/midi/message';
import { MidiParser } from '@/core/midi/parser';
import type { MidiInPort, MidiOutPort } from '../ports';
import { LATE_MS, Misbehaviour, type Fault } from './misbehaviour';

type OnBytes = Parameters<MidiInPort['listen']>[0];

/** A message that a stand-in got, and when it was meant for, ms. */
export interface Got {
  message: MidiMessage;
  at: number;
}

const GOT_KEPT = 256;
/** A flood: so many messages so often, of a control that nobody uses. */
const FLOOD_EVERY_MS = 4;
const FLOOD_EACH = 20;
const FLOOD_CONTROL = 90;
let plugs = 0;

/** A stand-in for a device: it speaks and hears real MIDI bytes. */
export class BenchDevice {
  readonly misbehaviour = new Misbehaviour();
  /** What it got last, the newest last. */
  readonly got: Got[] = [];
  /** How many messages it has got. */
  gotCount = 0;
  /** The velocity that lights each note, and the value of each control, as it was told last. */
  readonly lights = new Map<number, number>();
  readonly values = new Map<number, number>();
  input: MidiInPort | null = null;
  output: MidiOutPort | null = null;
  private readonly hearers = new Set<OnBytes>();
  private readonly listeners = new Set<() => void>();
  private flood: ReturnType<typeof setInterval> | null = null;
  private parser = new MidiParser();

  constructor(
    readonly name: string,
    private readonly has: { input: boolean; output: boolean },
  ) {}

  /** It is played, and does not only hear. */
  get isSending(): boolean {
    return this.has.input;
  }

  get isPlugged(): boolean {
    return this.input !== null || this.output !== null;
  }

  /** It is another port each time, as the browser has it. */
  plug(): void {
    if (this.isPlugged) return;
    const id = `bench ${++plugs}`;
    const { name } = this;
    if (this.has.input) {
      const listen = (hearer: OnBytes) => {
        this.hearers.add(hearer);
        return () => void this.hearers.delete(hearer);
      };
      this.input = { id: `${id} in`, name, listen };
    }
    if (this.has.output) this.output = { id: `${id} out`, name, send: (bytes, at) => this.take(bytes, at) };
    this.lights.clear();
    this.values.clear();
    this.parser = new MidiParser();
    this.tell();
  }

  unplug(): void {
    this.input = this.output = null;
    this.tell();
  }

  /** Sends a message that happens now, or happened at a time, ms. */
  send(message: MidiMessage, at = performance.now()): void {
    if (!this.input) return;
    const bytes = this.misbehaviour.spoil(bytesOf(message));
    if (this.misbehaviour.on.has('late')) setTimeout(() => this.sendBytes(bytes, at), LATE_MS);
    else this.sendBytes(bytes, at);
  }

  sendBytes(bytes: readonly number[], at = performance.now()): void {
    if (bytes.length === 0) return;
    for (const hearer of [...this.hearers]) hearer(Uint8Array.from(bytes), at);
  }

  /** What it does wrong is switched on or off. */
  setFault(fault: Fault, on: boolean): void {
    if (on) this.misbehaviour.on.add(fault);
    else this.misbehaviour.on.delete(fault);
    if (fault !== 'flood') return;
    if (this.flood !== null) clearInterval(this.flood);
    this.flood = on ? setInterval(() => this.sendFlood(), FLOOD_EVERY_MS) : null;
  }

  private sendFlood(): void {
    for (let i = 0; i < FLOOD_EACH; i++) {
      this.sendBytes(bytesOf({ type: 'control', channel: 16, control: FLOOD_CONTROL, value: i % 128 }));
    }
  }

  /** Calls back when it was plugged in or out, or got something. @returns ends it */
  onChange(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  private take(bytes: readonly number[], at = performance.now()): void {
    if (!this.output) return;
    for (const message of this.parser.push(bytes)) {
      this.gotCount++;
      this.got.push({ message, at });
      if (message.type === 'noteOn') this.lights.set(message.note, message.velocity);
      if (message.type === 'noteOff') this.lights.delete(message.note);
      if (message.type === 'control') this.values.set(message.control, message.value);
      if (message.type === 'control' && message.control >= 120) this.lights.clear();
    }
    if (this.got.length > GOT_KEPT) this.got.splice(0, this.got.length - GOT_KEPT);
    this.tell();
  }

  private tell(): void {
    for (const listener of [...this.listeners]) listener();
  }
}
