import { writeMidi } from 'midi-file';
import { type BeatSet } from '../document/set';
import { loopStrokes } from '../sequence/loopStrokes';
import { windowOf } from '../sequence/loopWindow';
import { PPQ } from '../time/ticks';
import {
  DRUM_CHANNEL,
  fileNotes,
  inFileOrder,
  noteEvents,
  setTempo,
  timeSignature,
  trackName,
  withDeltas,
  type Timed,
} from './midiEvents';
import { pressureEvents, pressureSteps } from './keyPressure';
import type { Track } from '../document/track';
import type { Pattern } from '../document/pattern';

/**
 * Writes a pattern of a track as a standard MIDI file: type 1, 960 ticks to the quarter, tempo and meter on a track of
 * their own, drums on channel 10 and notes on channel 1 at their placed times, with the pressure on their keys. Rolls are written out, odds as they fall in the first pass; what is
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
  const channel = track.tones ? 0 : DRUM_CHANNEL;
  const { start, length } = windowOf(pattern);
  const notes = fileNotes(loopStrokes(pattern, track), track, length);
  const moves = track.tones ? (pattern.moves ?? []) : [];
  const steps = moves.flatMap((move) =>
    'pad' in move && move.control === 'pressure' ? pressureSteps(move.points, move.pad) : [],
  );
  const inLoop = steps.map((step) => ({ ...step, tick: step.tick - start }));
  return inFileOrder([...noteEvents(notes, channel), ...pressureEvents(notes, inLoop, channel)]);
}
