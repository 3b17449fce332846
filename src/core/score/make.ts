import { thinnedOut } from '../edit/editMoves';
import {
  CONTROL_RANGES,
  HELD_CONTROLS,
  isHeldControl,
  MAX_POINTS,
  SHAPING_CONTROLS,
  type HeldControl,
  type Move,
  type MovePoint,
} from '../document/moves';
import {
  FARTHEST_PITCH,
  MAX_HITS,
  MAX_SECTIONS,
  MAX_SLOTS,
  MAX_TICKS,
  MAX_TIMES,
  PADS,
  SHORTEST_LOOP,
} from '../document/limits';
import { roundTicks } from '../launch/plans';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import type { Section, SectionPart } from '../document/section';
import type { BeatSet } from '../document/set';
import { trackStrokes, type Mark, type Score, type ScoreTrack, type Stroke } from './score';

/** A stretch of a score, in ticks. */
export interface Stretch {
  from: number;
  to: number;
}

/** What of a score becomes part of a set. */
export interface Made {
  patterns: { track: number; slot: number; pattern: Pattern }[];
  sections: Section[];
}

/** Pitch is a hit's own, and some go on while a note is held. */
const MOVED = SHAPING_CONTROLS.filter((control) => control !== 'pitch' && !isHeldControl(control));
/** So little on a key is neither heard nor felt. */
const FELT = 0.01;

/**
 * A pattern of what sounded on a track in a stretch: hands where they struck, rolls and odds as they fell.
 * @param nextId gives ids that no hit of the set has
 */
export function patternOf(
  { turned }: Pick<Score, 'turned'>,
  track: ScoreTrack,
  { from, to }: Stretch,
  name: string,
  nextId: () => number,
): Pattern {
  const length = Math.min(MAX_TICKS, Math.max(SHORTEST_LOOP, to - from));
  const strokes = trackStrokes(track)
    .map((stroke) => ({ ...stroke, tick: stroke.tick - stroke.late - from }))
    .filter(({ tick }) => tick >= 0 && tick < length)
    .slice(0, MAX_HITS);
  const moves = [
    ...movesOf(strokes),
    ...HELD_CONTROLS.flatMap((control) => heldMoves(control, turned, strokes, track.id, { from, length })),
  ];
  const hits = strokes.map(({ tick, pad, velocity, length: held, pitch }): Hit => {
    const bend = Math.min(FARTHEST_PITCH, Math.max(-FARTHEST_PITCH, pitch));
    const ticks = Math.max(1, Math.min(length, Math.round(held)));
    return { id: nextId(), pad, tick, length: ticks, velocity, snap: null, ...(bend !== 0 && { pitch: bend }) };
  });
  return { name, colour: track.colour, length, hits, ...(moves.length > 0 && { moves }) };
}

/** Moves that give each stroke the value that it had. */
function movesOf(strokes: readonly Stroke[]): Move[] {
  const moves: Move[] = [];
  for (let pad = 0; pad < PADS; pad++) {
    const own = strokes.filter((stroke) => stroke.pad === pad);
    for (const control of MOVED) {
      const { neutral } = CONTROL_RANGES[control];
      const points = own.map((stroke) => ({ tick: stroke.tick, value: stroke[control] ?? neutral }));
      if (points.some(({ value }) => value !== neutral)) moves.push({ pad, control, points });
    }
  }
  return moves;
}

/** Moves of what was done to keys that were held, as strokes began with it and as it went on. */
function heldMoves(
  control: HeldControl,
  turned: Score['turned'],
  strokes: readonly Stroke[],
  track: number,
  { from, length }: { from: number; length: number },
): Move[] {
  const courses = new Map<number, MovePoint[]>();
  const add = (pad: number, tick: number, value: number) => {
    const points = courses.get(pad) ?? [];
    courses.set(pad, points);
    if (tick >= 0 && tick < length) points.push({ tick, value });
  };
  for (const { tick, told } of turned) {
    if (told.type === 'turn' && told.track === track && told.control === control)
      add(told.pad, tick - from, told.value);
  }
  for (const stroke of strokes) add(stroke.pad, stroke.tick, stroke[control] ?? 0);
  return [...courses].flatMap(([pad, course]): Move[] => {
    const points = thinnedOut(course.sort((a, b) => a.tick - b.tick), FELT).slice(0, MAX_POINTS); // prettier-ignore
    return points.some(({ value }) => value !== 0) ? [{ pad, control, points }] : [];
  });
}

/** A pattern of one track in its first free slot; null if the set has no such track or no slot left. */
export function makePattern(
  set: BeatSet,
  score: Pick<Score, 'turned'>,
  track: ScoreTrack,
  stretch: Stretch,
  nextId: () => number,
): Made | null {
  const slot = freeSlot(set, track.id);
  if (slot === null) return null;
  const pattern = patternOf(score, track, stretch, stretchName(set, track, stretch), nextId);
  return { patterns: [{ track: track.id, slot, pattern }], sections: [] };
}

/** A section of all that sounded in a stretch: a pattern for each track that sounded, the others stop. Null if there is no room. */
export function makeSection(
  set: BeatSet,
  score: Score,
  stretch: Stretch,
  name: string,
  nextId: () => number,
): Made | null {
  if (set.sections.length >= MAX_SECTIONS) return null;
  const patterns: Made['patterns'] = [];
  const parts: SectionPart[] = [];
  for (const track of score.tracks) {
    if (!set.tracks[track.id]) continue;
    const made = makePattern(set, score, track, stretch, nextId);
    if (!made) return null;
    const sounds = made.patterns.some(({ pattern }) => pattern.hits.length > 0);
    if (sounds) patterns.push(...made.patterns.map((one) => ({ ...one, pattern: { ...one.pattern, name } })));
    parts.push({ track: track.id, plays: sounds ? made.patterns[0]!.slot : null });
  }
  if (patterns.length === 0) return null;
  return { patterns, sections: [{ id: nextSectionId(set), name, colour: 0, parts, rounds: 1 }] };
}

/**
 * The sections of a stretch in the order in which they were played, each with as many rounds as it had, and after the last one stop.
 * Null if none was launched in it that the set still has, or there is no room.
 */
export function makeSong(set: BeatSet, score: Score, stretch: Stretch): Made | null {
  const marks = marksIn(score, stretch).filter(({ section }) => set.sections.some(({ id }) => id === section));
  if (marks.length === 0 || set.sections.length + marks.length > MAX_SECTIONS) return null;
  const first = nextSectionId(set);
  const sections = marks.map((mark, i): Section => {
    const played = set.sections.find(({ id }) => id === mark.section)!;
    const end = marks[i + 1]?.tick ?? Math.min(stretch.to, score.length);
    const ticks = end - Math.max(stretch.from, mark.tick);
    const rounds = Math.min(MAX_TIMES, Math.max(1, Math.round(ticks / roundTicks(set, played))));
    const isLast = i === marks.length - 1;
    return { ...played, id: first + i, name: `${i + 1} ${played.name}`, rounds, then: isLast ? 'stop' : first + i + 1 };
  });
  return { patterns: [], sections };
}

/** The sections that play in a stretch: the one that was launched last before it, and those within. */
export function marksIn({ marks }: Score, { from, to }: Stretch): Mark[] {
  const before = marks.filter(({ tick }) => tick <= from).slice(-1);
  return [...before, ...marks.filter(({ tick }) => tick > from && tick < to)];
}

function stretchName(set: BeatSet, track: ScoreTrack, { from, to }: Stretch): string {
  const inside = track.blocks.find((block) => block.from < to && block.from + block.length > from);
  const name = inside?.name ?? track.name;
  const names = new Set(set.tracks[track.id]?.patterns.map((pattern) => pattern?.name));
  for (let n = 2; ; n++) if (!names.has(`${name} ${n}`)) return `${name} ${n}`;
}

function freeSlot(set: BeatSet, id: number): number | null {
  const patterns = set.tracks[id]?.patterns;
  if (!patterns) return null;
  const empty = patterns.indexOf(null);
  if (empty >= 0) return empty;
  return patterns.length < MAX_SLOTS ? patterns.length : null;
}

function nextSectionId(set: BeatSet): number {
  return Math.max(0, ...set.sections.map(({ id }) => id)) + 1;
}
