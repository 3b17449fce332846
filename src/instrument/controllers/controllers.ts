import type { Device } from '@/core/midi/device';
import { MIDI_OFF, type MidiMessage } from '@/core/midi/message';
import { movedBy } from '@/core/midi/source';
import { JoinedPorts, type MidiPorts } from '@/midi/ports';
import { openWebMidi } from '@/midi/webMidi';
import { devicesWanted } from '@/store/devicesSlice';
import { midiChanged } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import type { Instrument } from '../instrument';
import { Mapping } from './mapping';
import { Monitor } from './monitor';
import type { PluggedDevices } from './pluggedDevices';

/** A stroke on a controller: velocity 1..127, when it happened in ms. */
export interface ControllerStroke {
  device: string;
  velocity: number;
  note: number;
  at: number;
}

/** The controllers, as the screen sees them: asked for, looked at, mapped, silenced. What they do is `PluggedDevices`'. */
export class Controllers {
  readonly monitor = new Monitor();
  readonly mapping: Mapping;
  private readonly ports = new JoinedPorts();
  private readonly strokeListeners = new Set<(stroke: ControllerStroke) => void>();
  private plugged: PluggedDevices | null = null;
  private loading: Promise<void> | null = null;
  private isOpen = false;

  constructor(
    private readonly store: Store,
    private readonly instrument: Instrument,
    /** Whether the page is in sight. */
    private readonly isSeen = () => document.visibilityState !== 'hidden',
  ) {
    this.mapping = new Mapping(store, () => this.layer);
    this.ports.onChange(() => void this.follow());
  }

  /** Asks the browser for its controllers: from the player's touch, or when they were asked for before. */
  async open(): Promise<void> {
    if (this.isOpen) return;
    this.isOpen = true;
    this.store.dispatch(midiChanged({ state: 'asking', problem: null }));
    const outcome = await openWebMidi();
    if ('problem' in outcome) {
      this.isOpen = false;
      this.store.dispatch(midiChanged({ state: 'failed', problem: outcome.problem }));
      return;
    }
    this.store.dispatch(devicesWanted(true));
    this.store.dispatch(midiChanged({ state: 'open', problem: null }));
    this.add(outcome.ports);
  }

  /** Ports of another kind, such as those of the Bench. */
  add(ports: MidiPorts): void {
    this.ports.add(ports);
  }

  /** Calls back with every stroke on a device, whatever it plays. @returns ends it */
  onStroke(listener: (stroke: ControllerStroke) => void): () => void {
    this.strokeListeners.add(listener);
    return () => void this.strokeListeners.delete(listener);
  }

  /** The layer that is held, 0 for none. */
  get layer(): number {
    return this.plugged?.layer ?? 0;
  }

  /** Keys that sound, of all devices. */
  get holding(): number {
    return this.plugged?.holding ?? 0;
  }

  /** All notes off, everywhere: here, and in whatever is plugged in. */
  panic(): void {
    this.plugged?.letGoOfAll();
    this.instrument.panic();
    for (const port of this.ports.outputs) for (const bytes of MIDI_OFF) port.send(bytes);
  }

  /** Ends all notes on what is plugged in, as when the page goes away. */
  endOuts(): void {
    this.plugged?.endOuts();
  }

  /** Ports were plugged in or out. Only who has a controller needs the code of what it does. */
  async follow(): Promise<void> {
    if (!this.plugged && this.ports.inputs.length + this.ports.outputs.length === 0) return;
    if (!this.plugged) await (this.loading ??= this.load());
    this.plugged!.follow(this.ports);
  }

  private async load(): Promise<void> {
    const { PluggedDevices: Plugged } = await import('./pluggedDevices');
    const { store, instrument, isSeen } = this;
    const onMessage = (device: Device, message: MidiMessage, at: number) => this.hear(device, message, at);
    this.plugged = new Plugged({ store, instrument, isSeen, onMessage });
  }

  /** A message came in. Returns whether somebody learns from it. */
  private hear(device: Device, message: MidiMessage, at: number): boolean {
    this.monitor.note(device.name, message, at, performance.now());
    if (message.type === 'noteOn') {
      const { velocity, note } = message;
      for (const listener of this.strokeListeners) listener({ device: device.name, velocity, note, at });
    }
    const moved = movedBy(message);
    // What is let go ends what it began.
    if (!this.mapping.isOn || !moved || message.type === 'noteOff') return false;
    this.mapping.learn({ device: device.name, source: moved.source, message });
    return true;
  }
}
