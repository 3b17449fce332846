import { CONTROLLERS } from './controllers';
import { writeMidi } from 'midi-file';
import { CONTROL_RANGES } from '../document/moves';
import type { Stretch } from '../score/make';
import { trackStrokes, stepAt, type Score, type ScoreTrack, type Step, type Stroke } from '../score/score';
import { PPQ } from '../time/ticks';
import { pressureEvents, type PadPressure } from './keyPressure';
import {
  DRUM_CHANNEL,
  latin1,
  fileNotes,
  inFileOrder,
  noteEvents,
  setTempo,
  timeSignature,
  trackName,
  withDeltas,
  type Timed,
} from './midiEvents';

const MOVED = ['pan', 'level', 'decay', 'filter'] as const;
const CHANNELS = 16;

/**
 * Writes a stretch of a score as a standard MIDI file: type 1, 960 ticks to the quarter. The first track has tempo, meter and the
 * sections as markers; then each track its notes as they sounded, its level as channel volume, and what moved its strokes as
 * controllers, and how keys of notes were pressed. Drums lie on channel 10, each track of notes on a channel of its own. (Standard MIDI Files 1.0, MIDI Manufacturers
 * Association.)
 */
export function writeScoreMidi(score: Score, stretch: Stretch, name: string): Uint8Array<ArrayBuffer> {
  const { from, to } = stretch;
  const end = Math.round(to - from);
  const at = (tick: number) => Math.min(end, Math.max(0, Math.round(tick - from)));
  const inside = (tick: number) => tick > from && tick < to;
  const tempo = [{ tick: from, value: stepAt(score.tempo, from) }, ...score.tempo.filter(({ tick }) => inside(tick))];
  const marks = score.marks.filter(({ tick }) => tick === from || inside(tick));
  const conductor: Timed[] = [
    trackName(name),
    timeSignature(score.meter),
    ...tempo.map(({ tick, value }) => setTempo(at(tick), value)),
    ...marks.map((mark): Timed => ({ tick: at(mark.tick), event: { type: 'marker', meta: true, text: latin1(mark.name) } })),
  ].sort((a, b) => a.tick - b.tick); // prettier-ignore
  let notes = 0;
  const tracks = score.tracks.map((track) => {
    const channel = track.tones ? noteChannel(notes++) : DRUM_CHANNEL;
    return withDeltas([trackName(track.name), ...trackEvents(track, channel, stretch, score.turned)], end);
  });
  const bytes = writeMidi({
    header: { format: 1, numTracks: tracks.length + 1, ticksPerBeat: PPQ },
    tracks: [withDeltas(conductor, end), ...tracks],
  });
  return new Uint8Array(bytes);
}

/** Channels for notes: all but the one of drums, over and over. */
function noteChannel(index: number): number {
  const channel = index % (CHANNELS - 1);
  return channel < DRUM_CHANNEL ? channel : channel + 1;
}

function trackEvents(track: ScoreTrack, channel: number, { from, to }: Stretch, turned: Score['turned']): Timed[] {
  const end = Math.round(to - from);
  const strokes = trackStrokes(track)
    .filter(({ tick }) => tick >= from && tick < to)
    .map((stroke) => ({ ...stroke, tick: Math.min(Math.round(stroke.tick - from), end - 1) }));
  const controller = (tick: number, controllerType: number, share: number): Timed => ({
    tick,
    event: { type: 'controller', channel, controllerType, value: Math.round(Math.min(1, Math.max(0, share)) * 127) },
  });
  const levels: Step[] = [{ tick: from, value: stepAt(track.levels, from) }, ...track.levels.filter(({ tick }) => tick > from && tick < to)]; // prettier-ignore
  const events = levels.map(({ tick, value }) => controller(Math.round(tick - from), CONTROLLERS.volume, value));
  for (const control of MOVED) {
    const { min, max, neutral } = CONTROL_RANGES[control];
    if (strokes.every((stroke) => stroke[control] === neutral)) continue;
    let last = NaN;
    for (const stroke of strokes) {
      if (stroke[control] !== last) events.push(controller(stroke.tick, CONTROLLERS[control], (stroke[control] - min) / (max - min))); // prettier-ignore
      last = stroke[control];
    }
  }
  const notes = fileNotes(strokes, track, end);
  const pressed = track.tones ? pressureEvents(notes, pressures(track, strokes, turned, from), channel) : [];
  return inFileOrder([...events, ...noteEvents(notes, channel), ...pressed]);
}

/** How the keys of a track were pressed: as strokes began, and as it went on. Ticks of the file. */
function pressures(
  { id }: ScoreTrack,
  strokes: readonly Stroke[],
  turned: Score['turned'],
  from: number,
): PadPressure[] {
  const begun = strokes.map(({ tick, pad, pressure = 0 }) => ({ tick, pad, value: pressure }));
  const moved = turned.flatMap(({ tick, told }): PadPressure[] =>
    told.type === 'turn' && told.track === id && told.control === 'pressure'
      ? [{ tick: tick - from, pad: told.pad, value: told.value }]
      : [],
  );
  return [...begun, ...moved];
}
