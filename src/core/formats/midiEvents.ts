import type { MidiEvent } from 'midi-file';
import { lanesOf } from '../document/lanes';
import type { Track } from '../document/track';
import { PPQ, ticksPerPulse, type Meter } from '../time/ticks';

/** General MIDI percussion is channel 10, written as 9. */
export const DRUM_CHANNEL = 9;
/** Last two bytes of a time signature event: MIDI clocks to a metronome click (24 to a quarter), 32nd notes to a quarter. */
const CLOCKS_PER_QUARTER = 24;
const THIRTY_SECONDS_PER_QUARTER = 8;

/** An event at its tick in the file. */
export interface Timed {
  tick: number;
  event: Omit<MidiEvent, 'deltaTime'> | object;
}

export function trackName(text: string): Timed {
  return { tick: 0, event: { type: 'trackName', meta: true, text: latin1(text) } };
}

/** @param bpm quarter notes per minute */
export function setTempo(tick: number, bpm: number): Timed {
  return { tick, event: { type: 'setTempo', meta: true, microsecondsPerBeat: Math.round(60000000 / bpm) } };
}

export function timeSignature(meter: Meter): Timed {
  const metronome = (CLOCKS_PER_QUARTER * ticksPerPulse(meter)) / PPQ;
  const { beats: numerator, unit: denominator } = meter;
  const event = { type: 'timeSignature', meta: true, numerator, denominator, metronome, thirtyseconds: THIRTY_SECONDS_PER_QUARTER }; // prettier-ignore
  return { tick: 0, event };
}

/** A stroke as a file of notes knows it. */
export interface FileStroke {
  tick: number;
  pad: number;
  velocity: number;
  /** Semitones. */
  pitch: number;
  /** Ticks. */
  length: number;
}

/** A note of a file, with the pad whose stroke it is. */
export interface FileNote {
  /** Whole ticks from its beginning to its end. */
  tick: number;
  off: number;
  noteNumber: number;
  /** 0..1 */
  velocity: number;
  pad: number;
}

/** The notes of a track's strokes, which end at `end` at the latest. Keys that MIDI does not have are left out. */
export function fileNotes(
  strokes: readonly FileStroke[],
  track: Pick<Track, 'kit' | 'tones'>,
  end: number,
): FileNote[] {
  const lanes = lanesOf(track);
  // Of a drum the key says which it is; of a note, its pitch too.
  const keyOf = ({ pad, pitch }: FileStroke) => lanes[pad]!.note + (track.tones ? Math.round(pitch) : 0);
  const byKey = new Map<number, Map<number, FileStroke>>();
  for (const stroke of strokes) {
    const key = keyOf(stroke);
    if (key < 0 || key > 127) continue;
    if (!byKey.has(key)) byKey.set(key, new Map());
    // A file knows whole ticks only. Two hits within one tick are one note: the later stroke's.
    byKey.get(key)!.set(Math.min(Math.round(stroke.tick), end - 1), stroke);
  }
  return [...byKey].flatMap(([noteNumber, byTick]) => {
    const ticks = [...byTick.keys()];
    return ticks.map((tick, i): FileNote => {
      const { length, velocity, pad } = byTick.get(tick)!;
      // A note ends before its key is struck again, and within the file: a hanging or crossed note-off confuses readers.
      const off = Math.min(tick + Math.max(1, Math.round(length)), ticks[i + 1] ?? end, end);
      return { tick, off, noteNumber, velocity, pad };
    });
  });
}

export function noteEvents(notes: readonly FileNote[], channel: number): Timed[] {
  return notes.flatMap(({ tick, off, noteNumber, velocity }): Timed[] => [
    { tick, event: { type: 'noteOn', channel, noteNumber, velocity: midiVelocity(velocity) } },
    { tick: off, event: { type: 'noteOff', channel, noteNumber, velocity: 0 } },
  ]);
}

/** Events in order of time; at one tick notes end first, then controllers move, then notes begin, then they are pressed. */
export function inFileOrder(events: readonly Timed[]): Timed[] {
  const order = ({ event }: Timed) =>
    ['noteOff', 'controller', 'noteOn', 'noteAftertouch'].indexOf((event as MidiEvent).type);
  return [...events].sort((a, b) => a.tick - b.tick || order(a) - order(b));
}

/** A velocity 0..1 as MIDI has it: 0 would be a note off. */
function midiVelocity(velocity: number): number {
  return Math.max(1, Math.min(127, Math.round(velocity * 127)));
}

/** Turns absolute ticks into the distances that the file holds, and ends the track at `end`. */
export function withDeltas(timed: readonly Timed[], end: number): MidiEvent[] {
  let last = 0;
  return [...timed, { tick: end, event: { type: 'endOfTrack', meta: true } }].map(({ tick, event }) => {
    const deltaTime = tick - last;
    last = tick;
    return { ...event, deltaTime } as MidiEvent;
  });
}

/** A lone surrogate: no character, and not encodable in UTF-8. */
const LONE_SURROGATE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** The file's texts are bytes; the writer takes one character a byte. UTF-8, which current readers expect. */
export function latin1(text: string): string {
  return unescape(encodeURIComponent(text.replace(LONE_SURROGATE, '\uFFFD')));
}

/** A file's text as it was meant: UTF-8, or, where it is none, one character a byte. */
export function fromLatin1(bytes: string): string {
  try {
    return decodeURIComponent(escape(bytes));
  } catch {
    return bytes;
  }
}
