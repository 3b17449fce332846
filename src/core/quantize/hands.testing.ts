import { random } from '../random';
import { ticksPerBar, ticksToMs, type Meter } from '../time/ticks';
import type { Role } from './barModel';
import type { Onset } from './estimateBeat';
import type { GridName } from './grid';

/** One part of a groove: a mark for each step of its bars. `X` accented, `x` plain, `o` a ghost note, `.` none. */
export interface PlayedPart {
  role: Role;
  /** As many bars as the groove has, with as many steps each as `Playing.steps`. */
  row: string;
}

/** A kind of playing, as drummers know it. */
export interface Playing {
  what: string;
  meter: Meter;
  /** The range of tempos at which it is played, quarter notes per minute. */
  slowest: number;
  fastest: number;
  /** Steps to the bar. */
  steps: number;
  /** How late every second step comes, as a share of a step: 0 straight, 1/3 a full shuffle. */
  swing?: number;
  parts: readonly PlayedPart[];
}

const FOUR: Meter = { beats: 4, unit: 4 };
const SIX: Meter = { beats: 6, unit: 8 };
const WALTZ: Meter = { beats: 3, unit: 4 };
const low = (row: string): PlayedPart => ({ role: 'low', row });
const back = (row: string): PlayedPart => ({ role: 'back', row });
const hats = (row: string): PlayedPart => ({ role: 'other', row });

/**
 * Sixteen kinds of playing with the tempos at which they are met. The patterns are our own; their plan is common practice
 * (bass drum on the one, backbeat on two and four, half-time on three, shuffle on the first and third triplet, 6/8 on one and
 * four).
 */
export const KINDS: readonly Playing[] = [
  { what: 'four to the floor, hats between', meter: FOUR, slowest: 118, fastest: 132, steps: 16, parts: [low('X...X...X...X...'), back('....x.......x...'), hats('..x...x...x...x.')] },
  { what: 'backbeat, hats in eighths', meter: FOUR, slowest: 84, fastest: 124, steps: 16, parts: [low('X.......X.x.....'), back('....X.......X...'), hats('x.o.x.o.x.o.x.o.')] },
  { what: 'bass drum and snare alone', meter: FOUR, slowest: 84, fastest: 118, steps: 16, parts: [low('X......x..X.....X..x...x..X.....'), back('....X.......X.......X..o....X...')] },
  { what: 'hats in sixteenths', meter: FOUR, slowest: 80, fastest: 106, steps: 16, parts: [low('X..x......X..x..'), back('....X.......X..o'), hats('xoxoxoxoxoxoxoxo')] },
  { what: 'shuffle', meter: FOUR, slowest: 84, fastest: 140, steps: 12, parts: [low('X.....X.x...'), back('...X.....X..'), hats('x.xx.xx.xx.x')] },
  { what: 'triplets throughout', meter: FOUR, slowest: 64, fastest: 88, steps: 12, parts: [low('X....xX.....'), back('...X.....X..'), hats('xooxooxooxoo')] },
  { what: 'sixteenths with a light swing', meter: FOUR, slowest: 82, fastest: 100, steps: 16, swing: 0.16, parts: [low('X......x..X..x..'), back('....X..o....X...'), hats('x.x.x.xxx.x.x.x.')] },
  { what: 'sixteenths with a full shuffle', meter: FOUR, slowest: 92, fastest: 112, steps: 16, swing: 1 / 3, parts: [low('X..x...x..X.....'), back('....X.......X..o'), hats('x.xxx.xxx.xxx.xx')] },
  { what: '6/8 with hats', meter: SIX, slowest: 84, fastest: 135, steps: 12, parts: [low('X...x.......'), back('......X.....'), hats('x.o.o.x.o.o.')] },
  { what: '6/8, bass drum and snare alone', meter: SIX, slowest: 84, fastest: 135, steps: 12, parts: [low('X...x.....x.X...x.......'), back('......X...........X.o.o.')] },
  { what: 'half-time, hats in eighths', meter: FOUR, slowest: 130, fastest: 150, steps: 16, parts: [low('X.....x.........X.........x...x.'), back('........X...............X.......'), hats('x.x.x.x.x.x.x.x.x.x.x.x.x.x.x.x.')] },
  { what: 'half-time, rolling hats', meter: FOUR, slowest: 130, fastest: 152, steps: 16, parts: [low('X.........x..x..X..x......x.....'), back('........X...............X.......'), hats('x.x.x.xxx.x.x.x.x.x.xxxxx.x.x.x.')] },
  { what: 'hats alone, in eighths', meter: FOUR, slowest: 88, fastest: 128, steps: 16, parts: [hats('X.o.x.o.x.o.x.o.')] },
  { what: 'hats alone, in sixteenths', meter: FOUR, slowest: 78, fastest: 108, steps: 16, parts: [hats('Xoxoxoxoxoxoxoxo')] },
  { what: 'waltz', meter: WALTZ, slowest: 90, fastest: 150, steps: 12, parts: [low('X...........'), back('....x...x...'), hats('x.o.x.o.x.o.')] },
  { what: 'slow, hats in eighths', meter: FOUR, slowest: 66, fastest: 80, steps: 16, parts: [low('X......xX..x....'), back('....X.......X...'), hats('x.x.x.x.x.x.x.xo')] },
]; // prettier-ignore

/** What was meant: the tempo (quarter notes per minute) on average, and when a bar line lies, ms. */
export interface Meant {
  tempo: number;
  barMs: number;
}

const VELOCITIES: Record<string, number> = { X: 0.95, x: 0.75, o: 0.45 };

/** Numbers with a normal spread of 1 around 0 (Box and Muller). */
export function normal(next: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
}

/**
 * Two to eight bars as hands play them without a metronome: each stroke strays (4-14 ms, standard deviation), each part leans
 * by its own few ms, the tempo wanders from beat to beat, some strokes are missed, some fall between, and one in five begins with
 * a pickup. The figures are common practice, from memory.
 */
export function playFreely(playing: Playing, seed: number): { onsets: Onset[]; meant: Meant } {
  const next = random(seed);
  const gauss = normal(next);
  const { parts, steps, swing = 0, meter } = playing;
  const tempo = playing.slowest + (playing.fastest - playing.slowest) * next();
  const spread = 4 + 10 * next() ** 2;
  const bars = Math.max(2 + Math.floor(7 * next()), parts[0]!.row.length / steps);
  const stepMs = ((ticksPerBar(meter) / steps) * 60000) / (tempo * 960);
  const start = 3000 + 2000 * next();
  // One factor for each quarter's worth of steps: hands hold a tempo over a beat and wander from one to the next.
  const lines: number[] = [];
  let wander = 0;
  for (let i = 0, t = start; i <= bars * steps; i++) {
    lines.push(t);
    if (i % 4 === 0) wander = 0.8 * wander + 0.004 * gauss();
    t += stepMs * (1 + wander);
  }
  const onsets: Onset[] = [];
  const strike = (step: number, late: number, role: Role, velocity: number) =>
    onsets.push({ ms: lines[step]! + late + spread * gauss(), role, velocity: Math.min(1, Math.max(0.05, velocity + 0.07 * gauss())) }); // prettier-ignore
  for (const { role, row } of parts) {
    const lean = 5 * gauss();
    for (let step = 0; step < bars * steps; step++) {
      const mark = row[step % row.length]!;
      const late = lean + (step % 2 === 1 ? swing * stepMs : 0);
      if (mark === '.' ? next() < 0.005 : step === 0 || next() > 0.03)
        strike(step, late, role, VELOCITIES[mark] ?? 0.4);
    }
  }
  // A closing stroke on the one after the last bar, as often as not.
  if (next() < 0.5) strike(bars * steps, 0, parts[0]!.role, 0.95);
  if (next() < 0.2) onsets.push({ ms: start - stepMs * (next() < 0.5 ? 1 : 2), role: parts[0]!.role, velocity: 0.5 });
  const last = lines[bars * steps]!;
  return {
    onsets: onsets.sort((a, b) => a.ms - b.ms),
    meant: { tempo: (tempo * stepMs * bars * steps) / (last - start), barMs: start },
  };
}

/** A lane of one pad as it is played to the metronome, and the grid that was meant: the smallest division in it. */
export interface PlayedLane {
  what: string;
  slowest: number;
  fastest: number;
  /** Steps to the bar of 4/4. `2`: the stick bounces, a second stroke 28 ms after the first. */
  steps: number;
  row: string;
  /** How late every second step comes, as a share of a step. */
  swing?: number;
  /** How far the hands stray, ms (standard deviation); by default 4 to 12, as each hand is. */
  spread?: number;
  grid: GridName;
}

/** Sixteen kinds of lane. The rows are our own; their plan is common practice. */
export const LANES: readonly PlayedLane[] = [
  { what: 'quarters', slowest: 80, fastest: 140, steps: 16, row: 'x...x...x...x...x...x...x...x...', grid: '1/4' },
  { what: 'a backbeat', slowest: 80, fastest: 140, steps: 16, row: '....x.......x.......x.......x...', grid: '1/4' },
  { what: 'half-time', slowest: 120, fastest: 150, steps: 16, row: '........x...............x.......', grid: '1/4' },
  { what: 'eighths', slowest: 80, fastest: 140, steps: 16, row: 'x.x.x.x.x.x.x.x.x.x.x.x.x.x.x.x.', grid: '1/8' },
  { what: 'off-beats', slowest: 110, fastest: 135, steps: 16, row: '..x...x...x...x...x...x...x...x.', grid: '1/8' },
  { what: 'eighths with a sixteenth pickup', slowest: 76, fastest: 116, steps: 16, row: 'x.x.x.x.x.x.x.x.x.x.x.x.x.x.x.xx', grid: '1/16' },
  { what: 'sixteenths', slowest: 76, fastest: 116, steps: 16, row: 'xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx', grid: '1/16' },
  { what: 'syncopated sixteenths', slowest: 76, fastest: 116, steps: 16, row: 'x..x..x...x..x..x..x......x..xx.', grid: '1/16' },
  { what: 'triplets', slowest: 70, fastest: 130, steps: 12, row: 'xxxxxxxxxxxxxxxxxxxxxxxx', grid: '1/8T' },
  { what: 'shuffle', slowest: 84, fastest: 140, steps: 12, row: 'x.xx.xx.xx.xx.xx.xx.xx.x', grid: '1/8T' },
  { what: 'sixteenths with a full shuffle', slowest: 76, fastest: 96, steps: 16, swing: 1 / 3, row: 'x.xxx.xxx.xxx.xxx.xxx.xxx.xxx.xx', grid: '1/16T' },
  { what: 'sixteenths with a light swing', slowest: 80, fastest: 104, steps: 16, swing: 0.16, row: 'xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx', grid: '1/16' },
  { what: 'a roll of thirty-seconds', slowest: 70, fastest: 92, steps: 32, row: 'x...x...x...x...x...x...x...x...x...x...x...x...x...x...xxxxxxxx', grid: '1/32' },
  { what: 'bounced double strokes', slowest: 80, fastest: 120, steps: 16, row: 'x.x.2.x.x.x.2.x.x.x.2.x.x.x.2.x.', grid: '1/8' },
  { what: 'a loose beginner’s eighths', slowest: 76, fastest: 112, steps: 16, spread: 17, row: 'x.x.x.x.x.x.x.x.x.x.x.x.x.x.x.x.', grid: '1/8' },
  { what: 'a loose beginner’s bass drum', slowest: 76, fastest: 112, steps: 16, spread: 17, row: 'x.....x.x.......x.....x.x...x...', grid: '1/8' },
]; // prettier-ignore

const BOUNCE_MS = 28;

/** Two bars of a lane as a hand plays them, struck ticks: strokes stray, and the whole lane leans by some ms. */
export function playLane({ slowest, fastest, steps, row, swing = 0, spread, grid }: PlayedLane, seed: number) {
  const next = random(seed);
  const gauss = normal(next);
  const tempo = slowest + (fastest - slowest) * next();
  const msPerTick = ticksToMs(1, tempo);
  const stray = spread ?? 4 + 8 * next() ** 2;
  const lean = 8 * gauss();
  const step = 3840 / steps;
  const ticks: number[] = [];
  [...row].forEach((mark, i) => {
    if (mark === '.' || (i > 0 && next() < 0.02)) return;
    const tick = (i + (i % 2 === 1 ? swing : 0)) * step + (lean + stray * gauss()) / msPerTick;
    ticks.push(tick);
    if (mark === '2') ticks.push(tick + (BOUNCE_MS + 3 * gauss()) / msPerTick);
  });
  return { ticks, msPerTick, grid };
}
