import { lanesOf } from '@/core/document/lanes';
import { PADS } from '@/core/document/limits';
import { padNote, padsOfNotes } from '@/core/document/tones';
import { curvedVelocity } from '@/core/midi/curve';
import type { Device } from '@/core/midi/device';
import { nearestPad } from '@/core/formats/gmDrums';
import { selectSet, selectShown } from '@/store/selectors';
import type { Store } from '@/store/store';
import type { Instrument } from '../instrument';

/** What sounds under a key of a device. */
interface Sounding {
  track: number;
  pad: number;
}

/**
 * The strokes of one device: which of its keys hold which pads. Whatever happens, what was struck is let go where it was struck.
 */
export class DevicePlayer {
  /** By what holds it: a key of the device, or a mapped control. */
  private readonly held = new Map<string, Sounding>();
  /** Let go while the pedal was down. */
  private readonly sustained = new Set<string>();
  private pedal = false;

  constructor(
    private readonly store: Store,
    private readonly instrument: Instrument,
    private readonly device: () => Device,
  ) {}

  /** How many keys sound. */
  get holding(): number {
    return this.held.size;
  }

  /**
   * A pad of a track is struck.
   * @param velocity as it was sent, 1..127
   * @param at when, ms
   */
  strike(key: string, where: Sounding, velocity: number, at: number, pitch = 0): void {
    this.letGoAt(key, at);
    const { velocity: curve, records, latencyMs } = this.device();
    const { on, value } = this.store.getState().settings.fixedVelocity;
    const hard = on ? value : curvedVelocity(curve, velocity);
    this.held.set(key, where);
    this.instrument.hands.strike({ ...where, velocity: hard, at: at - latencyMs, pitch, through: !records });
  }

  /** A note is played on a track: on the pad that has it, or that is nearest to it, as far away as it is. */
  strikeNote(key: string, track: number, note: number, velocity: number, at: number): void {
    const place = this.placeOfNote(track, note);
    if (place) this.strike(key, { track, pad: place.pad }, velocity, at, place.pitch);
  }

  /** A key is let go; the pedal may hold what it struck. */
  letGo(key: string, at: number): void {
    if (!this.held.has(key)) return;
    if (this.pedal) this.sustained.add(key);
    else this.letGoAt(key, at);
  }

  /** The pressure on one key, or on all that are down, 0..1. */
  press(key: string | null, pressure: number, at: number): void {
    const velocity = Math.max(1 / 127, pressure);
    const heldAt = at - this.device().latencyMs;
    for (const [one, where] of this.held) {
      if (key === null || one === key) this.instrument.hands.press({ ...where, velocity, pressure, at: heldAt });
    }
  }

  sustain(down: boolean, at: number): void {
    this.pedal = down;
    if (down) return;
    for (const key of [...this.sustained]) this.letGoAt(key, at);
  }

  /** The device is gone, or asked for it: nothing goes on. */
  letGoOfAll(at: number): void {
    this.pedal = false;
    for (const key of [...this.held.keys()]) this.letGoAt(key, at);
  }

  private letGoAt(key: string, at: number): void {
    this.sustained.delete(key);
    const held = this.held.get(key);
    if (!held) return;
    this.held.delete(key);
    // Two keys may hold one pad: it sounds until the last is let go.
    if ([...this.held.values()].some((other) => other.track === held.track && other.pad === held.pad)) return;
    this.instrument.hands.letGo({ ...held, at: at - this.device().latencyMs });
  }

  private placeOfNote(track: number, note: number): { pad: number; pitch: number } | null {
    const found = selectSet(this.store.getState()).tracks[track];
    if (!found) return null;
    const { tones } = found;
    if (!tones) {
      // A kit's own notes first; then what General MIDI has there.
      const own = lanesOf(found).findIndex((pad) => pad.note === note);
      const pad = own >= 0 ? own : nearestPad(note);
      return pad === null ? null : { pad, pitch: 0 };
    }
    // Hands play as many octaves higher as the player has set: a keyboard plays the note that is on its key.
    const meant = note - 12 * tones.octave;
    const best = padsOfNotes(tones)(meant);
    const isFree = (pad: number) => ![...this.held.values()].some((held) => held.track === track && held.pad === pad);
    if (isFree(best.pad)) return best;
    // Its pad already sounds with another note: the nearest that is free takes it.
    const free = Array.from({ length: PADS }, (_, pad) => pad).filter(isFree);
    const pad = free.sort((a, b) => Math.abs(a - best.pad) - Math.abs(b - best.pad))[0];
    return pad === undefined ? best : { pad, pitch: meant - padNote(tones, pad) };
  }

  /** Id of the track that the device plays, or null where the list is shorter. */
  get track(): number | null {
    const state = this.store.getState();
    const { plays, row } = this.device();
    return plays === 'track' ? (selectSet(state).order[row] ?? null) : selectShown(state);
  }
}
