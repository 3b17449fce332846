import { newDevice, type Device } from '@/core/midi/device';
import type { MidiMessage } from '@/core/midi/message';
import { movedBy, sourceKey } from '@/core/midi/source';
import type { EngineEvent } from '@/core/protocol/events';
import type { MidiOutPort, MidiPorts } from '@/midi/ports';
import { deviceMet } from '@/store/devicesSlice';
import { noticed, pluggedIn } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import type { Instrument } from '../instrument';
import { ClockIn } from './clockIn';
import { ConnectedDevice, type Surroundings } from './connectedDevice';
import { DeviceOut } from './deviceOut';
import { LightBoard } from './lightBoard';

/** How often what goes out is looked after while the song plays, ms. */
const OUT_EVERY_MS = 10;
/** What a device could not take yet is sent after so long, ms. */
const LIGHT_AGAIN_MS = 10;

/** What the devices need of those around them. */
interface Around {
  store: Store;
  instrument: Instrument;
  /** A message came in. Returns whether somebody learns from it: then it works nothing. */
  onMessage: Surroundings['onMessage'];
  /** Whether the page is in sight. */
  isSeen: () => boolean;
}

/** The devices that are plugged in: what each plays and works, what it shows, what it gets to hear. Loaded with the first of them. */
export class PluggedDevices {
  private readonly connected = new Map<string, ConnectedDevice>();
  private readonly boards = new Map<string, LightBoard>();
  private readonly outs = new Map<string, DeviceOut>();
  private clock: { name: string; follows: ClockIn } | null = null;
  /** When each control was moved last, ms, by device and control. */
  private readonly moved = new Map<string, number>();
  private waits = false;
  private goesOn: ReturnType<typeof setTimeout> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  /** How often each layer is held. */
  private readonly layers = [0, 0, 0, 0];
  private readonly store: Store;
  private readonly instrument: Instrument;
  private readonly around: Surroundings;

  constructor(private readonly given: Around) {
    const { store, instrument } = given;
    this.store = store;
    this.instrument = instrument;
    this.around = {
      store,
      instrument,
      layer: () => this.layer,
      onLayer: (layer, down) => {
        this.layers[layer] = Math.max(0, this.layers[layer]! + (down ? 1 : -1));
        this.lightSoon();
      },
      onMessage: (device, message, at) => this.hear(device, message, at),
    };
    // What lights show changes with the document, and with what plays.
    store.subscribe(() => {
      this.followClock();
      this.lightSoon();
    });
    instrument.onTold((events) => this.take(events));
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

  letGoOfAll(): void {
    for (const device of this.connected.values()) device.letGoOfAll();
    this.layers.fill(0);
    this.endOuts();
  }

  /** Ends all notes on what is plugged in. */
  endOuts(): void {
    for (const out of this.outs.values()) out.end(performance.now());
  }

  /** Ports were plugged in or out: what is gone lets go, what is new is met. */
  follow({ inputs, outputs }: MidiPorts): void {
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
    this.followOutputs(outputs);
    this.light();
    const names = [...new Set([...inputs, ...outputs].map(({ name }) => name))];
    const sends = new Set(inputs.map(({ name }) => name));
    const hears = new Set(outputs.map(({ name }) => name));
    this.store.dispatch(pluggedIn(names.map((name) => ({ name, sends: sends.has(name), hears: hears.has(name) }))));
  }

  private hear(device: Device, message: MidiMessage, at: number): boolean {
    if (device.name === this.clock?.name) this.clock.follows.take(message, at - device.latencyMs);
    const moved = movedBy(message);
    if (moved?.source.kind === 'control') this.moved.set(`${device.name} ${sourceKey(moved.source)}`, at);
    return this.given.onMessage(device, message, at);
  }

  /** A device that is plugged in again is lit anew. */
  private followOutputs(outputs: readonly MidiOutPort[]): void {
    for (const [id, board] of [...this.boards]) if (!outputs.includes(board.port)) this.boards.delete(id);
    for (const [id, out] of [...this.outs]) if (!outputs.includes(out.port)) this.outs.delete(id);
    for (const port of outputs) {
      if (this.boards.has(port.id)) continue;
      const { name } = port;
      const movedAt = (key: string) => this.moved.get(`${name} ${key}`) ?? -Infinity;
      const board = new LightBoard(
        port,
        this.store,
        this.instrument,
        () => this.deviceOf(name),
        () => this.layer,
        movedAt,
      );
      this.boards.set(port.id, board);
      this.outs.set(
        port.id,
        new DeviceOut(port, this.store, this.instrument, () => this.deviceOf(name), this.given.isSeen),
      );
    }
  }

  /** What the engine told goes out, and the clock that is followed leads on. */
  private take(events: readonly EngineEvent[]): void {
    const now = performance.now();
    for (const out of this.outs.values()) out.take(events, now);
    this.clock?.follows.follow(now);
    this.light();
    this.goOnSoon();
  }

  /** While the song plays, clocks and ends of notes go out between what the engine tells, too. */
  private goOnSoon(): void {
    if (this.goesOn !== null || this.outs.size === 0 || !this.instrument.performance.anchor.playing) return;
    this.goesOn = setTimeout(() => {
      this.goesOn = null;
      const now = performance.now();
      for (const out of this.outs.values()) out.goOn(now);
      this.goOnSoon();
    }, OUT_EVERY_MS);
  }

  /** Another device's clock is followed, or none. */
  private followClock(): void {
    const { devices, session } = this.store.getState();
    const followed = devices.known.find(
      ({ name, followed: is }) => is && session.plugged.some((one) => one.name === name),
    );
    if (followed?.name === this.clock?.name) return;
    this.clock?.follows.end();
    const name = followed?.name;
    this.clock = name === undefined ? null : { name, follows: new ClockIn(this.store, this.instrument, name) };
  }

  private lightSoon(): void {
    if (this.waits || this.boards.size === 0) return;
    this.waits = true;
    queueMicrotask(() => this.light());
  }

  /** Lights show what there is now. What the rate does not allow yet follows. */
  private light(): void {
    this.waits = false;
    const now = performance.now();
    const isDone = [...this.boards.values()].map((board) => board.update(now)).every(Boolean);
    if (isDone || this.timer !== null) return;
    this.timer = setTimeout(() => {
      this.timer = null;
      this.light();
    }, LIGHT_AGAIN_MS);
  }

  private known(name: string): Device | undefined {
    return this.store.getState().devices.known.find((device) => device.name === name);
  }

  /** A device that was forgotten while it is plugged in is as if it were new. */
  private deviceOf(name: string): Device {
    return this.known(name) ?? newDevice(name);
  }
}
