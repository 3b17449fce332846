import { thinnedOut } from '../edit/editMoves';
import { PADS } from '../document/limits';
import { CONTROL_RANGES, MAX_POINTS, type Move, type MovePoint } from '../document/moves';
import type { FileNote, Timed } from './midiEvents';

/** From a tick on the keys of a pad are pressed so hard, 0..1. */
export interface PadPressure {
  tick: number;
  pad: number;
  value: number;
}

/** A file of notes knows so many steps of pressure. */
const STEPS = 127;
/** Closer together nobody hears them: 5 ms at 120 BPM. */
export const CLOSEST_TICKS = 10;
/** What lies further apart is no movement of a hand: there it steps. A leap steps sooner: a hand that moves so fast sends more values on its way. */
const FARTHEST_TICKS = 60;
const FARTHEST_LEAP_TICKS = 2 * CLOSEST_TICKS;
const LEAP = 0.1;

/** A Move as steps of a file, in order of time; between two points it goes in a line. */
export function pressureSteps(points: readonly MovePoint[], pad: number): PadPressure[] {
  return points.flatMap((point, i): PadPressure[] => {
    const before = points[i - 1];
    // Before its first point a Move is where that is.
    if (!before) return [{ pad, tick: -Infinity, value: point.value }];
    const ticks = point.tick - before.tick;
    const count = Math.max(1, Math.min(Math.ceil(Math.abs(point.value - before.value) * STEPS), Math.floor(ticks / CLOSEST_TICKS))); // prettier-ignore
    const at = (from: number, to: number, step: number) => from + ((to - from) * (step + 1)) / count;
    return Array.from({ length: count }, (_, step) => ({
      pad,
      tick: at(before.tick, point.tick, step),
      value: at(before.value, point.value, step),
    }));
  });
}

/** Polyphonic key pressure of notes while they sound (MIDI 1.0, from memory: status An, key, pressure). */
export function pressureEvents(notes: readonly FileNote[], steps: readonly PadPressure[], channel: number): Timed[] {
  const told = new Map<number, number>();
  const events: Timed[] = [];
  const tell = (tick: number, noteNumber: number, value: number) => {
    const amount = Math.round(STEPS * Math.min(1, Math.max(0, value)));
    if (amount === (told.get(noteNumber) ?? 0)) return;
    told.set(noteNumber, amount);
    events.push({ tick, event: { type: 'noteAftertouch', channel, noteNumber, amount } });
  };
  for (let pad = 0; pad < PADS; pad++) {
    const own = steps
      .filter((step) => step.pad === pad)
      .map(({ tick, value }) => ({ tick: Math.round(tick), value }))
      .sort((a, b) => a.tick - b.tick);
    if (own.length === 0) continue;
    let next = 0;
    for (const { tick, off, noteNumber } of notes.filter((note) => note.pad === pad).sort((a, b) => a.tick - b.tick)) {
      while (next < own.length && own[next]!.tick <= tick) next++;
      tell(tick, noteNumber, own[next - 1]?.value ?? 0);
      for (let i = next; i < own.length && own[i]!.tick < off; i++) tell(own[i]!.tick, noteNumber, own[i]!.value);
    }
  }
  return events;
}

/** Steps of one pad as a Move: lines between what lies close together, as a hand goes, and steps else. Nothing: it is never pressed. */
export function pressureCourse(steps: readonly Omit<PadPressure, 'pad'>[]): MovePoint[] {
  if (steps.every(({ value }) => value === 0)) return [];
  const { neutral } = CONTROL_RANGES.pressure;
  const points: MovePoint[] = steps[0]!.tick > 0 ? [{ tick: 0, value: neutral }] : [];
  for (const { tick, value } of steps) {
    const before = points.at(-1);
    const farthest = before && Math.abs(value - before.value) > LEAP ? FARTHEST_LEAP_TICKS : FARTHEST_TICKS;
    if (before && tick - before.tick > farthest) points.push({ tick, value: before.value });
    points.push({ tick, value });
  }
  let course = thinnedOut(points, 1 / (2 * STEPS));
  for (let tolerance = 1 / STEPS; course.length > MAX_POINTS; tolerance *= 2) course = thinnedOut(points, tolerance);
  return course;
}

/** From a tick of a song on; null: all pads. */
export type SongPressure = Omit<PadPressure, 'pad'> & { pad: number | null };

/** What sounds in a stretch of a song; its tick is counted from where that begins. */
interface Sounding {
  pad: number;
  tick: number;
  length: number;
}

/**
 * Moves for each of the stretches that a song is cut into: of the pads whose notes sound in it, from where each stands as it begins.
 * @param presses in order of time
 * @param cut ticks of a stretch
 */
export function pressMoves(
  stretches: readonly (readonly Sounding[])[],
  presses: readonly SongPressure[],
  cut: number,
): Move[][] {
  const moves = stretches.map((): Move[] => []);
  const pads = [...new Set(stretches.flatMap((stretch) => stretch.map(({ pad }) => pad)))].sort((a, b) => a - b);
  for (const pad of presses.length > 0 ? pads : []) {
    const steps = presses.filter((step) => step.pad === pad || step.pad === null);
    let [next, value, soundsTo] = [0, 0, 0];
    stretches.forEach((stretch, i) => {
      const from = i * cut;
      const to = i === stretches.length - 1 ? Infinity : from + cut;
      const within = value > 0 ? [{ tick: 0, value }] : [];
      for (; next < steps.length && steps[next]!.tick < to; next++) {
        value = steps[next]!.value;
        within.push({ tick: Math.max(0, steps[next]!.tick - from), value });
      }
      const own = stretch.filter((stroke) => stroke.pad === pad);
      const sounds = own.length > 0 || soundsTo > from;
      soundsTo = own.reduce((end, { tick, length }) => Math.max(end, from + tick + length), soundsTo);
      const points = sounds ? pressureCourse(within) : [];
      if (points.length > 0) moves[i]!.push({ pad, control: 'pressure', points });
    });
  }
  return moves;
}
