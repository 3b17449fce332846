import { writeMidi, type MidiEvent } from 'midi-file';
import { lanesOf } from '../document/lanes';
import { type BeatSet } from '../document/set';
import { loopStrokes, type LoopStroke } from '../sequence/loopStrokes';
import { windowOf } from '../sequence/loopWindow';
import { PPQ } from '../time/ticks';
import { DRUM_CHANNEL, midiVelocity, setTempo, timeSignature, trackName, withDeltas, type Timed } from './midiEvents';
import type { Track } from '../document/track';
import type { Pattern } from '../document/pattern';

/**
 * Writes a pattern of a track as a standard MIDI file: type 1, 960 ticks to the quarter, tempo and meter on a track of
 * their own, drums on channel 10 and notes on channel 1 at their placed times. Rolls are written out, odds as they fall in the first pass; what is
 * muted or outside the loop window is left out. Both tracks end where the loop ends.
 * (Standard MIDI Files 1.0, MIDI Manufacturers Association.)
 */
export function writePatternMidi(set: BeatSet, track: Track, pattern: Pattern): Uint8Array<ArrayBuffer> {
  const end = windowOf(pattern).length;
  const conductor = [trackName(set.name), setTempo(0, set.tempo), timeSignature(set.meter)];
  const name = `${track.name} ${pattern.name}`;
  const drums = [trackName(name), ...notesOf(track, pattern)];
  const bytes = writeMidi({
    header: { format: 1, numTracks: 2, ticksPerBeat: PPQ },
    tracks: [withDeltas(conductor, end), withDeltas(drums, end)],
  });
  return new Uint8Array(bytes);
}

function notesOf(track: Track, pattern: Pattern): Timed[] {
  const notes: Timed[] = [];
  const strokes = loopStrokes(pattern, track);
  const { length } = windowOf(pattern);
  const lanes = lanesOf(track);
  const channel = track.tones ? 0 : DRUM_CHANNEL;
  // Of a drum the key says which it is; of a note, its pitch too.
  const keyOf = ({ pad, pitch }: LoopStroke) => lanes[pad]!.note + (track.tones ? Math.round(pitch) : 0);
  for (const noteNumber of new Set(strokes.map(keyOf))) {
    if (noteNumber < 0 || noteNumber > 127) continue;
    // A file knows whole ticks only. Two hits within one tick are one note: the later stroke's.
    const byTick = new Map<number, LoopStroke>();
    for (const stroke of strokes) {
      if (keyOf(stroke) === noteNumber) byTick.set(Math.min(Math.round(stroke.tick), length - 1), stroke);
    }
    const ticks = [...byTick.keys()];
    ticks.forEach((tick, i) => {
      const hit = byTick.get(tick)!;
      // A note ends before its key is struck again, and within the loop: a hanging or crossed note-off confuses readers.
      const off = Math.min(tick + Math.max(1, Math.round(hit.length)), ticks[i + 1] ?? length, length);
      const velocity = midiVelocity(hit.velocity);
      notes.push({ tick, event: { type: 'noteOn', channel, noteNumber, velocity } });
      notes.push({ tick: off, event: { type: 'noteOff', channel, noteNumber, velocity: 0 } });
    });
  }
  const offFirst = (n: Timed) => ((n.event as MidiEvent).type === 'noteOff' ? 0 : 1);
  return notes.sort((a, b) => a.tick - b.tick || offFirst(a) - offFirst(b));
}
