import type { Binding } from '@/core/midi/binding';
import { placeOf } from '@/core/midi/binding';
import type { Device } from '@/core/midi/device';
import { isRelative } from '@/core/midi/encodings';
import { builtIn, FADER_TARGETS, FIRST_KNOB, gridTarget, KNOB_TARGETS } from '@/core/midi/layouts';
import { lightBytes, type Light } from '@/core/midi/lights';
import { sourceKey } from '@/core/midi/source';
import { FUNCTIONS, type Target } from '@/core/midi/target';
import type { MidiOutPort } from '@/midi/ports';
import type { Store } from '@/store/store';
import type { Instrument } from '../instrument';
import { lightMoment, lightOf } from './lightState';

/** No more messages than this in so long, ms: slow devices lose what comes faster. */
const MOST_MESSAGES = 50;
const IN_MS = 10;
/** A knob that hands moved is left alone for so long, ms. */
const HANDS_OFF_MS = 300;

/** A pad of the device that shows something. */
interface Lamp {
  note: number;
  channel: number;
  target: Target;
}

/** A knob or fader that goes where its function stands. */
type Ring = Binding;

/**
 * Lights one device: what each of its pads shows is computed anew whenever something has changed, and sent where it is another than
 * before.
 */
export class LightBoard {
  /** What each pad and control of the device shows, as text. */
  private readonly shown = new Map<string, string>();
  /** When the last messages were sent, ms, the oldest first. */
  private readonly sent: number[] = [];
  private lamps: readonly Lamp[] = [];
  private rings: readonly Ring[] = [];
  private told: { device: Device; layer: number } | null = null;

  constructor(
    readonly port: MidiOutPort,
    private readonly store: Store,
    private readonly instrument: Instrument,
    private readonly device: () => Device,
    private readonly layer: () => number,
    /** When hands moved a control of the device last, ms. */
    private readonly movedAt: (key: string) => number,
  ) {}

  /**
   * Sends what is new, as far as the rate allows.
   * @param now ms
   * @returns whether all of it is sent
   */
  update(now: number): boolean {
    this.learn();
    const moment = lightMoment(this.instrument, this.store.getState(), now);
    const { lights } = this.device();
    if (lights) {
      for (const { note, channel, target } of this.lamps) {
        const light = lightOf(target, moment);
        if (!this.show(`note ${note} ${channel}`, lightText(light), () => lightBytes(lights, channel, note, light), now)) return false; // prettier-ignore
      }
    }
    for (const ring of this.rings) if (!this.turn(ring, now)) return false;
    return true;
  }

  private turn(binding: Ring, now: number): boolean {
    const { source, target } = binding;
    const key = sourceKey(source);
    if (now - this.movedAt(key) < HANDS_OFF_MS) return true;
    const place = this.instrument.functions.placeOf(target);
    if (Number.isNaN(place)) return true;
    const x = standsAt(binding, place);
    const fine = binding.encoding === 'fine';
    const value = Math.round(x * (fine ? 16383 : 127));
    const status = 0xb0 | (source.channel - 1);
    const bytes = () =>
      fine
        ? [status, source.number, value >> 7, status, source.number + 32, value & 127]
        : [status, source.number, value];
    return this.show(key, String(value), bytes, now);
  }

  /** Which pads and controls there are, when the device's settings or the layer are others. */
  private learn(): void {
    const device = this.device();
    const layer = this.layer();
    if (this.told?.device === device && this.told.layer === layer) return;
    // Another scheme lights the same in another way.
    if (this.told?.device.lights !== device.lights) this.shown.clear();
    this.told = { device, layer };
    const works = (binding: Binding) => binding.layer === layer || binding.layer === 0;
    const own = new Map<string, Binding>();
    for (const binding of device.bindings.filter(works)) {
      const key = sourceKey(binding.source);
      const before = own.get(key);
      if (!before || binding.layer >= before.layer) own.set(key, binding);
    }
    this.lamps = lampsOf(device, own);
    this.rings = ringsOf(device, own);
  }

  /** Sends what a pad or control shows, if it is another; false if the rate does not allow it. */
  private show(key: string, text: string, bytes: () => number[], now: number): boolean {
    if (this.shown.get(key) === text) return true;
    const first = this.sent[this.sent.length - MOST_MESSAGES];
    if (first !== undefined && now - first < IN_MS) return false;
    this.sent.push(now);
    if (this.sent.length > MOST_MESSAGES) this.sent.shift();
    this.shown.set(key, text);
    this.port.send(bytes());
    return true;
  }
}

function lampsOf(device: Device, own: ReadonlyMap<string, Binding>): Lamp[] {
  const lamps: Lamp[] = [];
  const channel = device.channel || 1;
  for (let note = 0; note < 128; note++) {
    const mapped = own.get(sourceKey({ kind: 'note', channel, number: note }));
    const target = mapped?.target ?? gridTarget(device, note);
    if (target) lamps.push({ note, channel, target });
  }
  return lamps;
}

/** Controls that stand at places, mapped or as they come; encoders stand nowhere. */
function ringsOf(device: Device, own: ReadonlyMap<string, Binding>): Ring[] {
  const rings = [...own.values()].filter(
    ({ source, target, encoding }) =>
      source.kind === 'control' && FUNCTIONS[target.do].kind === 'value' && !isRelative(encoding),
  );
  // As they come, only where the device is known to have such knobs: a synthesiser would take them for something else.
  if (!device.lights) return rings;
  for (let i = 0; i < KNOB_TARGETS.length + FADER_TARGETS.length; i++) {
    const source = { kind: 'control', channel: device.channel || 1, number: FIRST_KNOB + i } as const;
    const comes = builtIn(source);
    if (comes && !own.has(sourceKey(source))) rings.push(comes);
  }
  return rings;
}

function lightText({ tone, level }: Light): string {
  return level === 0 ? 'dark' : `${tone} ${level}`;
}

const HALVINGS = 16;

/** Where a control stands whose function stands at a place: the way back of `placeOf`, found by halving. */
export function standsAt(binding: Pick<Binding, 'from' | 'to' | 'bend'>, place: number): number {
  const { from, to } = binding;
  if (from === to) return 0;
  let [low, high] = [0, 1];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    const isShort = from < to ? placeOf(binding, middle) < place : placeOf(binding, middle) > place;
    if (isShort) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
