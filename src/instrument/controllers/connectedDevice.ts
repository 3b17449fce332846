import { newBinding, type Binding } from '@/core/midi/binding';
import type { Device } from '@/core/midi/device';
import { builtIn, gridTarget } from '@/core/midi/layouts';
import { CC, type MidiMessage } from '@/core/midi/message';
import { MidiParser } from '@/core/midi/parser';
import { movedBy, sourceKey, type Source } from '@/core/midi/source';
import { FUNCTIONS, type Target } from '@/core/midi/target';
import type { MidiInPort } from '@/midi/ports';
import type { Store } from '@/store/store';
import type { Instrument } from '../instrument';
import { pressLaunchPad } from '../launches';
import { trackOf } from '../functions/desk';
import { DevicePlayer } from './player';
import { DOWN, Workings, type Movement } from './workings';

/** What devices share. */
export interface Surroundings {
  store: Store;
  instrument: Instrument;
  /** The layer that is held. */
  layer: () => number;
  onLayer: (layer: number, down: boolean) => void;
  /** A message came in. Returns whether somebody learns from it: then it works nothing. */
  onMessage: (device: Device, message: MidiMessage, at: number) => boolean;
}

/** Controls of the fine halves of 14-bit pairs (MIDI 1.0). */
const isFineHalf = ({ kind, number }: Source) => kind === 'control' && number >= 32 && number < 64;

/** One device that is plugged in: reads its bytes, and does what its settings and its map say. */
export class ConnectedDevice {
  readonly player: DevicePlayer;
  private readonly workings: Workings;
  private readonly parser = new MidiParser();
  /** What each note and button that is down works: it is let go there, whatever the map and the layer are by then. */
  private readonly down = new Map<string, readonly Binding[]>();
  /** What controls do that nobody has mapped. */
  private readonly unmapped = new Map<string, Binding>();
  private readonly unlisten: () => void;

  constructor(
    readonly port: MidiInPort,
    private readonly around: Surroundings,
    private readonly device: () => Device,
  ) {
    const { store, instrument, onLayer } = around;
    this.player = new DevicePlayer(store, instrument, device);
    this.workings = new Workings(instrument.functions, onLayer);
    this.unlisten = port.listen((bytes, at) => {
      for (const message of this.parser.push(bytes)) this.take(message, at);
    });
  }

  /** Lets go of everything that the device holds. */
  letGoOfAll(): void {
    const now = performance.now();
    this.player.letGoOfAll(now);
    this.workings.letGoOfAll(now);
    this.down.clear();
  }

  /** The device is unplugged. */
  end(): void {
    this.unlisten();
    this.letGoOfAll();
  }

  private take(message: MidiMessage, at: number): void {
    const device = this.device();
    if (this.around.onMessage(device, message, at)) return;
    if (device.channel !== 0 && 'channel' in message && message.channel !== device.channel) return;
    const moved = movedBy(message);
    if (moved && this.move(moved.source, { ...movementOf(message, moved.value), at })) return;
    this.play(message, at);
  }

  /** @returns whether the control is mapped */
  private move(source: Source, movement: Movement): boolean {
    const key = sourceKey(source);
    // Strokes are corrected where they are struck.
    const at = movement.at - this.device().latencyMs;
    if (isFineHalf(source)) {
      const coarse = this.bindingsOf({ ...source, number: source.number - 32 }).filter((b) => b.encoding === 'fine');
      if (coarse.length > 0) {
        this.workings.moveFine(coarse, movement.raw, at);
        return true;
      }
    }
    const bindings = this.followedDown(key, this.bindingsOf(source), movement);
    if (bindings.length === 0) return false;
    const { simple } = this.around.store.getState().settings;
    // The simple view has pads: whatever else is touched changes nothing.
    const works = simple.on ? [] : bindings.filter(({ target }) => FUNCTIONS[target.do].kind !== 'strike');
    for (const { target } of bindings) if (target.do === 'pad') this.strike(key, target, movement);
    if (works.length > 0) this.workings.move(key, works, { ...movement, at });
    return true;
  }

  /** What a movement works: what it works now; a note or button that is let go, what it worked when it went down. */
  private followedDown(key: string, now: readonly Binding[], { value, isNote }: Movement): readonly Binding[] {
    const isDown = isNote ? value > 0 : value >= DOWN;
    const then = this.down.get(key);
    if (!isDown) this.down.delete(key);
    else if (isNote || !then) this.down.set(key, now);
    if (!then || (isNote && isDown)) return now;
    // A knob goes on with what it works now; only what it pressed waits to be let go.
    return isNote ? then : [...now.filter(isRange), ...then.filter((binding) => !isRange(binding))];
  }

  /** A mapped pad is struck, or let go. */
  private strike(key: string, target: Target, { value, at, isNote }: Movement): void {
    const { store, instrument } = this.around;
    const held = `${key} ${target.row ?? ''} ${target.pad}`;
    if (isNote ? value === 0 : value < DOWN) return this.player.letGo(held, at);
    const { padsLaunch } = store.getState().session;
    if (padsLaunch && target.row === undefined) return pressLaunchPad(store, instrument, padsLaunch, target.pad!);
    const track = trackOf(store.getState(), target);
    if (track !== null) this.player.strike(held, { track, pad: target.pad! }, Math.round(value * 127), at);
  }

  /** What is not mapped plays, as the device is said to play. */
  private play(message: MidiMessage, at: number): void {
    const { player } = this;
    const { instrument } = this.around;
    const device = this.device();
    const { plays } = device;
    switch (message.type) {
      case 'noteOn': {
        const { track } = player;
        const isPlayed = plays === 'shown' || plays === 'track';
        if (isPlayed && track !== null) player.strikeNote(noteKey(message), track, message.note, message.velocity, at);
        return;
      }
      case 'noteOff':
        return player.letGo(noteKey(message), at);
      case 'polyPressure':
        return this.press(message, message.pressure / 127, at);
      case 'channelPressure':
        return player.press(null, message.pressure / 127, at);
      case 'control':
        if (message.control === CC.sustain) player.sustain(message.value >= 64, at);
        else if (message.control === CC.allNotesOff || message.control === CC.allSoundOff) this.letGoOfAll();
        return;
      // A clock that is followed has its own way to begin.
      case 'start':
        if (device.followed) return;
        if (!instrument.performance.anchor.playing) instrument.playFrom(0);
        return;
      case 'continue':
        if (device.followed) return;
        if (!instrument.performance.anchor.playing) instrument.play();
        return;
      case 'stop':
        if (device.followed) return;
        if (instrument.performance.anchor.playing) instrument.stop();
        return;
      default:
        return;
    }
  }

  private press(message: { note: number; channel: number }, pressure: number, at: number): void {
    const source: Source = { kind: 'note', channel: message.channel, number: message.note };
    const key = sourceKey(source);
    const bindings = this.down.get(key) ?? [];
    if (bindings.length === 0) this.player.press(noteKey(message), pressure, at);
    for (const { target } of bindings) {
      if (target.do === 'pad') this.player.press(`${key} ${target.row ?? ''} ${target.pad}`, pressure, at);
    }
  }

  /** What a control works now: as it is mapped on the layer that is held, else on the first, else as it comes. */
  private bindingsOf(source: Source): readonly Binding[] {
    const key = sourceKey(source);
    const own = this.device().bindings.filter((binding) => sourceKey(binding.source) === key);
    const layer = this.around.layer();
    const onLayer = own.filter((binding) => binding.layer === layer);
    if (onLayer.length > 0) return onLayer;
    const first = own.filter((binding) => binding.layer === 0);
    if (first.length > 0) return first;
    const comes = this.asItComes(source);
    return comes ? [comes] : [];
  }

  /** What a control does that nobody has mapped. */
  private asItComes(source: Source): Binding | null {
    const target = source.kind === 'note' ? gridTarget(this.device(), source.number) : builtIn(source)?.target;
    if (!target) return null;
    const binding = newBinding(source, target);
    // The same one for as long as it is the same, so that it knows where it stands and whether it is down.
    const key = `${sourceKey(source)} ${JSON.stringify(target)}`;
    const known = this.unmapped.get(key) ?? binding;
    this.unmapped.set(key, known);
    return known;
  }
}

/** Whether it works a function with a range. */
function isRange({ target }: Binding): boolean {
  return FUNCTIONS[target.do].kind === 'value';
}

function noteKey({ note, channel }: { note: number; channel: number }): string {
  return `key ${note} ${channel}`;
}

function movementOf(message: MidiMessage, value: number): Omit<Movement, 'at'> {
  const isNote = message.type === 'noteOn' || message.type === 'noteOff';
  return { value, isNote, raw: message.type === 'control' ? message.value : -1 };
}
