import { lineRange, lineValue, type Fix, type StrokeLine } from '@/core/score/fix';
import { trackStrokes, type Score, type ScoreTrack, type Step, type Stroke } from '@/core/score/score';
import { MAX_TEMPO, MIN_TEMPO } from '@/core/time/ticks';

/** What can be shown as the line beneath the tracks. */
export const LINES = [
  'tempo',
  'levels',
  'velocity',
  'filter',
  'pitch',
  'decay',
  'level',
  'pan',
  'drive',
  'room',
  'resonance',
  'start',
  'pressure',
  'bright',
] as const;
export type Line = (typeof LINES)[number];

const NAMES: Record<Line, string> = {
  tempo: 'tempo',
  levels: 'level',
  velocity: 'velocity',
  filter: 'filter',
  pitch: 'pitch',
  decay: 'decay',
  level: 'stroke level',
  pan: 'pan',
  drive: 'drive',
  room: 'room',
  resonance: 'resonance',
  start: 'start',
  pressure: 'pressure',
  bright: 'bright',
};

/** @example "Wheels filter" */
export function lineName(line: Line, track: Pick<ScoreTrack, 'name'>): string {
  return line === 'tempo' ? 'Tempo' : `${track.name} ${NAMES[line]}`;
}

/** A line as it is drawn: steps that hold, or values that strokes have. */
export interface DrawnLine {
  kind: 'steps' | 'strokes';
  points: readonly Step[];
  min: number;
  max: number;
}

const strokes = new WeakMap<ScoreTrack, Stroke[]>();

/** All strokes of a track, found once. */
export function strokesOf(track: ScoreTrack): Stroke[] {
  let found = strokes.get(track);
  if (!found) strokes.set(track, (found = trackStrokes(track)));
  return found;
}

/** Quarter notes per minute above and below the tempos of a run that its line has room for. */
const TEMPO_ROOM = 10;

export function lineOf(score: Score, track: ScoreTrack, line: Line): DrawnLine {
  if (line === 'tempo') {
    const values = score.tempo.map(({ value }) => value);
    const [min, max] = [Math.min(...values) - TEMPO_ROOM, Math.max(...values) + TEMPO_ROOM];
    return { kind: 'steps', points: score.tempo, min: Math.max(MIN_TEMPO, min), max: Math.min(MAX_TEMPO, max) };
  }
  if (line === 'levels') return { kind: 'steps', points: track.levels, min: 0, max: 1 };
  const points = strokesOf(track).map((stroke) => ({
    tick: stroke.tick,
    value: lineValue(stroke, line as StrokeLine),
  }));
  return { kind: 'strokes', points, ...lineRange(line) };
}

/** The fix that draws a line anew. */
export function drawFix(line: Line, track: number, from: number, to: number, steps: readonly Step[]): Fix {
  if (line === 'tempo') return { type: 'drawTempo', from, to, steps };
  if (line === 'levels') return { type: 'drawLevels', track, from, to, steps };
  return { type: 'drawStrokes', track, line, from, to, steps };
}
