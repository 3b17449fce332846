import { newDevice, type Device } from '@/core/midi/device';
import { MIDI_OFF, type MidiMessage } from '@/core/midi/message';
import { movedBy } from '@/core/midi/source';
import { JoinedPorts, type MidiPorts } from '@/midi/ports';
import { openWebMidi } from '@/midi/webMidi';
import { deviceMet, devicesWanted } from '@/store/devicesSlice';
import { midiChanged, noticed, pluggedIn } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import type { Instrument } from '../instrument';
import { ConnectedDevice, type Surroundings } from './connectedDevice';
import { Mapping } from './mapping';
import { Monitor } from './monitor';

/** A stroke on a controller: velocity 1..127, when it happened in ms. */
export interface ControllerStroke {
  device: string;
  velocity: number;
  note: number;
  at: number;
}

/** The controllers that are plugged in: they come and go, and each does what its settings say. */
export class Controllers {
  readonly monitor = new Monitor();
  readonly ports = new JoinedPorts();
  readonly mapping: Mapping;
  private readonly strokeListeners = new Set<(stroke: ControllerStroke) => void>();
  private readonly connected = new Map<string, ConnectedDevice>();
  /** How often each layer is held. */
  private readonly layers = [0, 0, 0, 0];
  private isOpen = false;
  private readonly around: Surroundings;

  constructor(
    private readonly store: Store,
    private readonly instrument: Instrument,
  ) {
    this.around = {
      store,
      instrument,
      layer: () => this.layer,
      onLayer: (layer, down) => {
        this.layers[layer] = Math.max(0, this.layers[layer]! + (down ? 1 : -1));
      },
      onMessage: (device, message, at) => this.hear(device, message, at),
    };
    this.mapping = new Mapping(store, () => this.layer);
    this.ports.onChange(() => this.follow());
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

  /** Calls back with every stroke on a device, whatever it plays. @returns ends it */
  onStroke(listener: (stroke: ControllerStroke) => void): () => void {
    this.strokeListeners.add(listener);
    return () => void this.strokeListeners.delete(listener);
  }

  /** Ports of another kind, such as those of the Bench. */
  add(ports: MidiPorts): void {
    this.ports.add(ports);
  }

  /** The layer that is held, 0 for none. */
  get layer(): number {
    return Math.max(
      0,
      this.layers.findLastIndex((held) => held > 0),
    );
  }

  /** Keys that sound, of all devices. */
  get holding(): number {
    return [...this.connected.values()].reduce((sum, { player }) => sum + player.holding, 0);
  }

  /** All notes off, everywhere: here, and in whatever is plugged in. */
  panic(): void {
    for (const device of this.connected.values()) device.letGoOfAll();
    this.layers.fill(0);
    this.instrument.panic();
    for (const port of this.ports.outputs) for (const bytes of MIDI_OFF) port.send(bytes);
  }

  /** Ports were plugged in or out: what is gone lets go, what is new is met. */
  private follow(): void {
    const { inputs, outputs } = this.ports;
    for (const [id, device] of [...this.connected]) {
      if (inputs.some((port) => port === device.port)) continue;
      this.connected.delete(id);
      device.end();
      this.store.dispatch(noticed(`${device.port.name} was unplugged: what it held is let go.`));
    }
    for (const port of inputs) {
      if (this.connected.has(port.id)) continue;
      if (!this.known(port.name)) this.store.dispatch(deviceMet(port.name));
      this.connected.set(port.id, new ConnectedDevice(port, this.around, () => this.deviceOf(port.name)));
    }
    for (const { name } of outputs) if (!this.known(name)) this.store.dispatch(deviceMet(name));
    const names = [...new Set([...inputs, ...outputs].map(({ name }) => name))];
    const sends = new Set(inputs.map(({ name }) => name));
    const hears = new Set(outputs.map(({ name }) => name));
    this.store.dispatch(pluggedIn(names.map((name) => ({ name, sends: sends.has(name), hears: hears.has(name) }))));
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

  private known(name: string): Device | undefined {
    return this.store.getState().devices.known.find((device) => device.name === name);
  }

  /** A device that was forgotten while it is plugged in is as if it were new. */
  private deviceOf(name: string): Device {
    return this.known(name) ?? newDevice(name);
  }
}
