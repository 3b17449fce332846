import { parseMidi, type MidiEvent } from 'midi-file';
import { counted } from '../counted';
import { MAX_NAME } from '../document/limits';
import { METERS } from '../document/set';
import { nextName } from '../edit/slots';
import { clampTempo } from '../time/tempo';
import { PPQ, type Meter } from '../time/ticks';
import { CLOSEST_TICKS } from './keyPressure';
import { fromLatin1 } from './midiEvents';
import { midiChunks, soundBytes, type MidiChunk } from './midiChunks';

/** A note of a file. */
export interface MidiNote {
  /** Ticks of 960 to the quarter, with their fraction. */
  tick: number;
  length: number;
  /** 0..127 */
  key: number;
  /** 0..1 */
  velocity: number;
}

/** The notes of one channel in one track of a file. */
export interface MidiPart {
  name: string;
  /** 0..15; General MIDI percussion is 9. */
  channel: number;
  /** General MIDI program, 0..127, of its first note; null if none was chosen. */
  program: number | null;
  /** In order of time. */
  notes: MidiNote[];
  /** How its keys were pressed, likewise; absent: they were not. */
  pressures?: MidiPressure[];
}

/** From a tick on a key is pressed so hard. */
export interface MidiPressure {
  tick: number;
  /** Null: all of the channel. */
  key: number | null;
  /** 0..1 */
  value: number;
}

/** What a standard MIDI file holds that Chaffinch can take. */
export interface MidiSong {
  name: string;
  meter: Meter;
  /** Quarter notes per minute from a tick on; the first is at 0. */
  tempo: { tick: number; bpm: number }[];
  marks: { tick: number; name: string }[];
  /** Ticks until the last note has ended. */
  length: number;
  parts: MidiPart[];
  /** What could not be taken, each in a sentence. */
  leftOut: string[];
}

/** 120, which holds until a file says otherwise (Standard MIDI Files 1.0). */
const FIRST_TEMPO = 120;
/** Longer files are none that hands could have made; reading them would freeze the page. */
const MAX_BYTES = 20_000_000;
/** Longer songs are none: four hours at 120. A damaged distance between two events can be of months. */
const MAX_LENGTH = 4 * 3600 * 2 * PPQ;
const FOUR_FOUR: Meter = { beats: 4, unit: 4 };

/** Reads a standard MIDI file of type 0 or 1: what it holds, or what is wrong with it in a sentence; never throws. */
export function readMidi(file: Uint8Array): MidiSong | { error: string } {
  if (file.length > MAX_BYTES)
    return { error: `It is ${Math.round(file.length / 1e6)} MB long, more than a song can be.` };
  const chunks = midiChunks(file);
  const [head] = chunks;
  if (head?.type !== 'MThd' || head.bytes.length < 6)
    return { error: 'It is no standard MIDI file: its head is missing.' };
  const view = new DataView(head.bytes.buffer, head.bytes.byteOffset, head.bytes.byteLength);
  const [format, count, division] = [view.getUint16(0), view.getUint16(2), view.getUint16(4)];
  const perTick = ticksPer(division);
  if (perTick === null) return { error: 'It does not say how long its ticks are.' };
  const tracks = chunks.filter(({ type }) => type === 'MTrk');
  if (tracks.length === 0) return { error: 'It has no tracks.' };
  const leftOut: string[] = [];
  if (division >= 0x8000)
    leftOut.push('Its time is in frames of film, not in beats: a beat is taken as half a second.');
  if (tracks.length < count) leftOut.push(`It should have ${count} tracks, and has ${tracks.length}.`);
  const others = chunks.length - 1 - tracks.length;
  if (others > 0) leftOut.push(`${counted(others, 'chunk')} of a kind that the standard does not know.`);
  if (format > 1) leftOut.push('It holds separate songs: the first one is read.');
  const read = (format > 1 ? tracks.slice(0, 1) : tracks).map((track, i) => readTrack(track, i + 1, leftOut));
  return song(read, perTick, leftOut);
}

/** Ticks of Chaffinch to one tick of a file; null if it says none. */
function ticksPer(division: number): number | null {
  if (division < 0x8000) return division === 0 ? null : PPQ / division;
  // Frames a second as a negative number (29 is 30 drop frame, 29.97), and ticks a frame. (Standard MIDI Files 1.0.)
  const frames = 256 - (division >> 8);
  const ticks = (frames === 29 ? 29.97 : frames) * (division & 0xff);
  return ticks === 0 ? null : (PPQ * 2) / ticks;
}

/** Events of a track as far as they can be read. */
function readTrack({ bytes, isCut }: MidiChunk, number: number, leftOut: string[]): MidiEvent[] {
  const sound = soundBytes(bytes);
  if (isCut || sound < bytes.length) {
    leftOut.push(`Track ${number} is damaged: it is read up to byte ${sound} of ${bytes.length}.`);
  }
  try {
    const head = [0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 0, 96, 0x4d, 0x54, 0x72, 0x6b];
    const length = [24, 16, 8, 0].map((shift) => (sound >>> shift) & 0xff);
    return parseMidi(Uint8Array.of(...head, ...length, ...bytes.subarray(0, sound))).tracks[0]!;
  } catch (error) {
    leftOut.push(`Track ${number} cannot be read (${String(error)}).`);
    return [];
  }
}

/** What was met besides notes, by what it is called. */
class Rest {
  private readonly counts = new Map<string, number>();

  add(thing: string): void {
    this.counts.set(thing, (this.counts.get(thing) ?? 0) + 1);
  }

  get sentences(): string[] {
    return [...this.counts].map(([thing, count]) => `${counted(count, thing)}.`);
  }
}

/** Events that are left out, by what they are called. */
const LEFT_OUT: Partial<Record<MidiEvent['type'], string>> = {
  controller: 'controller movement',
  pitchBend: 'pitch bend',
  sysEx: 'system exclusive message',
  endSysEx: 'system exclusive message',
  lyrics: 'lyric',
};

function song(tracks: readonly MidiEvent[][], perTick: number, leftOut: string[]): MidiSong {
  const rest = new Rest();
  const tempo: MidiSong['tempo'] = [];
  const marks: MidiSong['marks'] = [];
  const meters: Meter[] = [];
  const parts: MidiPart[] = [];
  let name = '';
  tracks.forEach((events, track) => {
    const byChannel = new Map<number, Collected>();
    const of = (channel: number) => {
      if (!byChannel.has(channel)) byChannel.set(channel, new Collected());
      return byChannel.get(channel)!;
    };
    let tick = 0;
    let title = '';
    for (const event of events) {
      tick += event.deltaTime * perTick;
      switch (event.type) {
        case 'noteOn':
          of(event.channel).begin(tick, event.noteNumber, event.velocity / 127);
          break;
        case 'noteOff':
          of(event.channel).end(tick, event.noteNumber);
          break;
        case 'noteAftertouch':
          of(event.channel).press(tick, event.noteNumber, event.amount / 127);
          break;
        case 'channelAftertouch':
          of(event.channel).press(tick, null, event.amount / 127);
          break;
        case 'programChange':
          if (!of(event.channel).choose(event.programNumber)) rest.add('later instrument change');
          break;
        case 'setTempo':
          if (event.microsecondsPerBeat > 0) tempo.push({ tick, bpm: 60_000_000 / event.microsecondsPerBeat });
          break;
        case 'timeSignature':
          meters.push({ beats: event.numerator, unit: event.denominator });
          break;
        case 'trackName':
          title ||= fromLatin1(event.text).trim().slice(0, MAX_NAME);
          break;
        case 'marker':
          marks.push({ tick, name: fromLatin1(event.text).trim().slice(0, MAX_NAME) });
          break;
        default:
          if (LEFT_OUT[event.type]) rest.add(LEFT_OUT[event.type]!);
      }
    }
    if (track === 0) name = title;
    for (const [channel, collected] of [...byChannel].sort(([a], [b]) => a - b)) {
      const all = collected.notesUntil(Math.min(tick, MAX_LENGTH));
      const notes = all.filter((note) => note.tick < MAX_LENGTH);
      if (notes.length < all.length)
        leftOut.push(`${counted(all.length - notes.length, 'note')} hours after the beginning.`);
      const { program, pressures } = collected;
      const called = (byChannel.size === 1 && title) || partName(channel, program);
      // Each under a name of its own.
      const unique = parts.some((other) => other.name === called) ? nextName(called, parts) : called;
      if (notes.length > 0)
        parts.push({ name: unique, channel, program, notes, ...(pressures.length > 0 && { pressures }) });
    }
  });
  const meter = takenMeter(meters, leftOut);
  const length = parts.reduce((end, { notes }) => notes.reduce((last, note) => Math.max(last, note.tick + note.length), end), 0); // prettier-ignore
  return {
    name,
    meter,
    tempo: tempoMap(tempo, leftOut),
    marks: marks.sort((a, b) => a.tick - b.tick),
    length,
    parts,
    leftOut: [...leftOut, ...rest.sentences],
  };
}

/** The notes of one channel while they are read. */
class Collected {
  program: number | null = null;
  readonly pressures: MidiPressure[] = [];
  /** Of each key the last one, and the one from which on what comes soon is one movement. */
  private readonly lastPressures = new Map<number | null, { first: MidiPressure; last: MidiPressure }>();
  private readonly notes: MidiNote[] = [];
  private readonly open = new Map<number, MidiNote[]>();

  begin(tick: number, key: number, velocity: number): void {
    const note = { tick, length: NaN, key, velocity };
    this.notes.push(note);
    if (!this.open.has(key)) this.open.set(key, []);
    this.open.get(key)!.push(note);
  }

  /** The key's oldest note that sounds ends. */
  end(tick: number, key: number): void {
    const note = this.open.get(key)?.shift();
    if (note) note.length = tick - note.tick;
  }

  /** What comes closer together than can be heard is one movement: from its first value to its last, since a line leads to the first. */
  press(tick: number, key: number | null, value: number): void {
    if (tick >= MAX_LENGTH) return;
    const movement = this.lastPressures.get(key);
    if (movement?.last.value === value) return;
    const isOver = !movement || tick - movement.first.tick >= CLOSEST_TICKS;
    if (!isOver && movement.last !== movement.first) {
      Object.assign(movement.last, { tick, value });
      return;
    }
    const pressure = { tick, key, value };
    this.lastPressures.set(key, { first: isOver ? pressure : movement.first, last: pressure });
    this.pressures.push(pressure);
  }

  /** False if notes were played with another instrument already. */
  choose(program: number): boolean {
    if (this.notes.length > 0) return program === this.program;
    this.program = program;
    return true;
  }

  /** All notes; those that hang end where the track does. */
  notesUntil(end: number): MidiNote[] {
    for (const note of this.notes) {
      if (Number.isNaN(note.length)) note.length = Math.max(0, end - note.tick);
      note.length = Math.min(note.length, MAX_LENGTH);
    }
    return this.notes;
  }
}

/** The sixteen families of General MIDI Level 1's instruments, eight programs each (MIDI Association, GM 1 Sound Set). */
const FAMILIES = ['Piano', 'Chromatic percussion', 'Organ', 'Guitar', 'Bass', 'Strings', 'Ensemble', 'Brass', 'Reed', 'Pipe', 'Synth lead', 'Synth pad', 'Synth effects', 'Ethnic', 'Percussive', 'Sound effects']; // prettier-ignore

function partName(channel: number, program: number | null): string {
  if (channel === 9) return 'Drums';
  return program === null ? `Channel ${channel + 1}` : FAMILIES[Math.floor(program / 8)]!;
}

function takenMeter(meters: readonly Meter[], leftOut: string[]): Meter {
  const [first] = meters;
  const taken = first ? METERS.find(({ beats, unit }) => beats === first.beats && unit === first.unit) : FOUR_FOUR;
  if (!taken) leftOut.push(`Its meter of ${first!.beats}/${first!.unit}: 4/4 stands in its place.`);
  const changes = meters.filter(({ beats, unit }) => beats !== first!.beats || unit !== first!.unit).length;
  if (changes > 0) leftOut.push(`${counted(changes, 'meter change')}.`);
  return taken ?? FOUR_FOUR;
}

/** The tempo from each tick on; of several at one tick the last one holds. */
function tempoMap(found: readonly { tick: number; bpm: number }[], leftOut: string[]): MidiSong['tempo'] {
  const byTick = new Map([...found].sort((a, b) => a.tick - b.tick).map((step) => [step.tick, step.bpm]));
  if (!byTick.has(0)) byTick.set(0, FIRST_TEMPO);
  const beyond = [...byTick.values()].filter((bpm) => Math.abs(clampTempo(bpm) - bpm) > 0.01).length;
  if (beyond > 0)
    leftOut.push(`${counted(beyond, 'tempo')} beyond what Chaffinch plays: the nearest stands in its place.`);
  const steps = [...byTick].map(([tick, bpm]) => ({ tick, bpm: clampTempo(bpm) })).sort((a, b) => a.tick - b.tick);
  return steps.filter((step, i) => step.bpm !== steps[i - 1]?.bpm);
}
