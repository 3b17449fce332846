import { drawWingBars } from '../shared/drawWingBars';
import { blockStrokes, stepAt, type Block, type Score, type ScoreTrack, type Stroke } from '@/core/score/score';
import { ticksPerBar } from '@/core/time/ticks';
import { FEATHERS, NUMBERS, WORDS, WORDS_STRONG, type Tokens } from '../theme/tokens';
import type { DrawnLine } from './scoreLines';

/** Where the parts of a score's picture lie, px. */
export interface ScorePlan {
  width: number;
  height: number;
  /** How much larger type is than on a phone. */
  type: number;
  /** The column of the tracks' names. */
  names: number;
  rowsTop: number;
  rowHeight: number;
  lineTop: number;
}

export const RULER_PX = 44;
const LINE_PX = 76;
const GAP_PX = 4;
/** Thinner than this, a sixteenth cannot be told from the next one. */
const LEAST_SIXTEENTH_PX = 0.7;

/** Lays out a picture of a score in the room there is. @param type how much larger it is than on a phone */
export function planScore(width: number, height: number, tracks: number, type: number): ScorePlan {
  const names = (width < 600 ? 60 : 92) * type;
  const line = height > 240 ? LINE_PX : 36;
  const lineTop = height - line;
  const rowHeight = Math.max(14, Math.min(72 * type, (lineTop - RULER_PX - GAP_PX) / Math.max(1, tracks)));
  return { width, height, type, names, rowsTop: RULER_PX, rowHeight, lineTop };
}

/** All that one picture of a score shows. */
export interface ScorePicture {
  plan: ScorePlan;
  score: Score;
  /** Ticks at the left and the right edge. */
  from: number;
  to: number;
  /** The track that is touched last: its line is shown. */
  row: number;
  line: DrawnLine;
  /** Ids of the blocks and hits that are chosen. */
  chosen: ReadonlySet<number>;
  stretch: { from: number; to: number } | null;
  /** Where Listen begins. */
  cursor: number;
  /** What is heard now, or null. */
  now: number | null;
  /** A block being dragged lies elsewhere. */
  dragged: { ids: ReadonlySet<number>; by: number; rows: number; grows: 'from' | 'to' | null } | null;
  tokens: Tokens;
}

export function tickX({ plan, from, to }: Pick<ScorePicture, 'plan' | 'from' | 'to'>, tick: number): number {
  return plan.names + ((tick - from) / (to - from)) * (plan.width - plan.names);
}

export function drawScore(c: CanvasRenderingContext2D, picture: ScorePicture): void {
  const { plan, score, tokens } = picture;
  c.clearRect(0, 0, plan.width, plan.height);
  c.save();
  c.beginPath();
  c.rect(plan.names, 0, plan.width - plan.names, plan.height);
  c.clip();
  drawRuler(c, picture);
  score.tracks.forEach((track, row) => drawTrack(c, picture, track, row));
  drawLine(c, picture);
  drawStretch(c, picture);
  const { cursor, now } = picture;
  if (now === null) {
    c.fillStyle = tokens.wing;
    c.fillRect(tickX(picture, cursor) - 1, RULER_PX - 8, 2, plan.height);
  } else drawWingBars(c, tickX(picture, now), { top: RULER_PX - 10, foot: plan.height }, tokens.wing);
  c.restore();
  drawNames(c, picture);
}

function drawRuler(c: CanvasRenderingContext2D, picture: ScorePicture): void {
  const { plan, score, from, to, tokens } = picture;
  const bar = ticksPerBar(score.meter);
  const barPx = (bar / (to - from)) * (plan.width - plan.names);
  // As many bars between two numbers as leaves room for them.
  let step = 1;
  while (step * barPx < 36 * plan.type) step *= 2;
  c.font = `${12 * plan.type}px ${NUMBERS}`;
  c.textBaseline = 'middle';
  for (let n = Math.floor(from / bar / step) * step; n * bar < to; n += step) {
    const x = Math.round(tickX(picture, n * bar));
    c.fillStyle = tokens.rule;
    c.fillRect(x, RULER_PX - 6, 1, plan.height);
    c.fillStyle = tokens.cap;
    c.fillText(String(n + 1), x + 3, 10);
  }
  c.font = `${15 * plan.type}px ${WORDS_STRONG}`;
  score.marks.forEach(({ tick, name, colour }, i) => {
    const x = tickX(picture, tick);
    const end = tickX(picture, score.marks[i + 1]?.tick ?? score.length);
    if (end < plan.names || x > plan.width) return;
    c.save();
    c.beginPath();
    c.rect(x, 0, end - x - 4, RULER_PX);
    c.clip();
    c.fillStyle = FEATHERS[colour]!.colour;
    c.fillRect(x, 20, 3, RULER_PX - 22);
    c.fillStyle = tokens.straw;
    c.fillText(name, Math.max(x, plan.names) + 7, 31);
    c.restore();
  });
}

function drawTrack(c: CanvasRenderingContext2D, picture: ScorePicture, track: ScoreTrack, row: number): void {
  const { plan, dragged, from, to, chosen, tokens } = picture;
  const top = plan.rowsTop + row * plan.rowHeight;
  c.fillStyle = tokens.deep;
  c.fillRect(plan.names, top, plan.width, plan.rowHeight - GAP_PX);
  for (const block of track.blocks) {
    const moves = dragged?.ids.has(block.id) ? dragged : null;
    let { from: start, length } = block;
    let shown = block;
    if (moves?.grows === 'to') length = Math.max(1, length + moves.by);
    else if (moves) start += moves.by;
    if (moves?.grows === 'from') length = Math.max(1, length - moves.by);
    if (moves?.grows) shown = { ...block, from: start, length, into: block.into + start - block.from };
    if (start + length < from || start > to) continue;
    drawBlock(c, picture, track, shown, start, top + (moves && !moves.grows ? moves.rows * plan.rowHeight : 0));
  }
  shadeSilence(c, picture, track, top);
  for (const hit of visible(track.hits, from, to)) {
    const tick = hit.tick + (dragged?.ids.has(hit.id) ? dragged.by : 0);
    const tall = (0.35 + 0.65 * hit.velocity) * (plan.rowHeight - GAP_PX) * 0.5;
    const bottom = top + plan.rowHeight - GAP_PX - 2;
    const x = tickX(picture, tick);
    c.strokeStyle = chosen.has(hit.id) ? tokens.straw : tokens.wing;
    c.lineWidth = chosen.has(hit.id) ? 4 : 2;
    c.beginPath();
    c.moveTo(x, bottom);
    c.lineTo(x + tall * 0.3, bottom - tall);
    c.stroke();
  }
}

function drawBlock(
  c: CanvasRenderingContext2D,
  picture: ScorePicture,
  track: ScoreTrack,
  block: Block,
  start: number,
  top: number,
): void {
  const { plan, from, to, chosen, tokens } = picture;
  const height = plan.rowHeight - GAP_PX;
  const [left, right] = [tickX(picture, start), tickX(picture, start + block.length)];
  const { colour } = FEATHERS[block.colour]!;
  c.fillStyle = colour;
  c.globalAlpha = 0.32;
  box(c, left + 1, top, Math.max(1, right - left - 2), height, 6);
  c.fill();
  c.globalAlpha = 1;
  if (chosen.has(block.id)) {
    c.strokeStyle = tokens.wing;
    c.lineWidth = 2;
    box(c, left + 2, top + 1, Math.max(1, right - left - 4), height - 2, 6);
    c.stroke();
  }
  c.save();
  c.beginPath();
  c.rect(left, top, right - left - 3, height);
  c.clip();
  const named = height >= 34;
  const perTick = (plan.width - plan.names) / (to - from);
  if (perTick * 240 >= LEAST_SIXTEENTH_PX) {
    const room = height - (named ? 22 : 6);
    c.fillStyle = colour;
    const shift = start - block.from;
    for (const { tick, velocity, high, length } of dotsOf(block, track)) {
      const at = tick + shift;
      if (at > to || at + length < from) continue;
      const x = tickX(picture, at);
      const tall = track.tones ? 4 : Math.max(2, (0.3 + 0.7 * velocity) * Math.min(8, room / 4));
      c.fillRect(x, top + height - 4 - tall - high * (room - tall), track.tones ? Math.max(2, length * perTick - 1) : 2, tall); // prettier-ignore
    }
  }
  if (named) {
    c.fillStyle = tokens.wing;
    c.font = `${14 * plan.type}px ${WORDS_STRONG}`;
    c.textBaseline = 'middle';
    c.fillText(block.name, Math.max(left, plan.names) + 6, top + 11 * plan.type);
  }
  c.restore();
}

/** What is silent is seen, but dimmed: a track that is muted or whose level is down. */
function shadeSilence(c: CanvasRenderingContext2D, picture: ScorePicture, { levels }: ScoreTrack, top: number): void {
  const { plan, tokens, score } = picture;
  c.fillStyle = tokens.ground;
  c.globalAlpha = 0.65;
  levels.forEach(({ tick, value }, i) => {
    if (value > 0) return;
    const end = levels[i + 1]?.tick ?? score.length;
    const x = tickX(picture, tick);
    c.fillRect(x, top, tickX(picture, end) - x, plan.rowHeight - GAP_PX);
  });
  c.globalAlpha = 1;
}

function drawLine(c: CanvasRenderingContext2D, picture: ScorePicture): void {
  const { plan, line, from, to, score, tokens, row } = picture;
  const { points, min, max, kind } = line;
  const [top, height] = [plan.lineTop, plan.height - plan.lineTop - 4];
  const y = (value: number) => top + height - 3 - ((value - min) / (max - min)) * (height - 6);
  c.fillStyle = tokens.deep;
  c.fillRect(plan.names, top, plan.width, height);
  const { colour } = FEATHERS[score.tracks[row]?.colour ?? 0]!;
  c.strokeStyle = c.fillStyle = colour;
  c.lineWidth = 2;
  if (kind === 'strokes') {
    for (const { tick, value } of visible(points, from, to)) c.fillRect(tickX(picture, tick) - 2, y(value) - 2, 4, 4);
    return;
  }
  c.beginPath();
  c.moveTo(tickX(picture, from), y(stepAt(points, from)));
  for (const { tick, value } of visible(points, from, to)) {
    const x = tickX(picture, tick);
    c.lineTo(x, y(stepAt(points, tick - 1)));
    c.lineTo(x, y(value));
  }
  c.lineTo(tickX(picture, to), y(stepAt(points, to)));
  c.stroke();
}

function drawStretch(c: CanvasRenderingContext2D, picture: ScorePicture): void {
  const { plan, stretch, tokens } = picture;
  if (!stretch) return;
  const [left, right] = [tickX(picture, stretch.from), tickX(picture, stretch.to)];
  c.strokeStyle = tokens.straw;
  c.lineWidth = 2;
  c.strokeRect(left, RULER_PX - 4, right - left, plan.height - RULER_PX + 2);
}

function drawNames(c: CanvasRenderingContext2D, { plan, score, row, tokens }: ScorePicture): void {
  c.textBaseline = 'middle';
  score.tracks.forEach(({ name, colour }, i) => {
    const top = plan.rowsTop + i * plan.rowHeight;
    c.font = `${15 * plan.type}px ${i === row ? WORDS_STRONG : WORDS}`;
    c.fillStyle = FEATHERS[colour]!.colour;
    c.fillRect(0, top, i === row ? 4 : 2, plan.rowHeight - GAP_PX);
    c.fillStyle = i === row ? tokens.wing : tokens.cap;
    c.fillText(name, 8, top + (plan.rowHeight - GAP_PX) / 2, plan.names - 10);
  });
}

/** The whole of a score in small, and the part of it that is seen. */
export function drawWhole(
  c: CanvasRenderingContext2D,
  { width, height, score, from, to, now, tokens }: Pick<ScorePicture, 'score' | 'from' | 'to' | 'now' | 'tokens'> & { width: number; height: number }, // prettier-ignore
): void {
  c.clearRect(0, 0, width, height);
  const x = (tick: number) => (tick / score.length) * width;
  const row = (height - 4) / Math.max(1, score.tracks.length);
  score.tracks.forEach(({ blocks, hits }, i) => {
    for (const block of blocks) {
      c.fillStyle = FEATHERS[block.colour]!.colour;
      c.fillRect(x(block.from), 2 + i * row, Math.max(1, x(block.length) - 1), Math.max(1, row - 2));
    }
    c.fillStyle = tokens.wing;
    for (const { tick } of hits) c.fillRect(x(tick), 2 + i * row + row * 0.5, 1, row * 0.4);
  });
  c.strokeStyle = tokens.wing;
  c.lineWidth = 2;
  c.strokeRect(x(from) + 1, 1, Math.max(6, x(to - from) - 2), height - 2);
  if (now === null) return;
  c.fillStyle = tokens.wing;
  c.fillRect(x(now) - 1, 0, 2, height);
}

interface Dot {
  tick: number;
  velocity: number;
  /** 0 at the bottom of the block, 1 at its top. */
  high: number;
  length: number;
}

const dots = new WeakMap<Block, Dot[]>();

/** The strokes of a block as they are drawn, found once: low sounds at the bottom. */
function dotsOf(block: Block, { tones }: ScoreTrack): Dot[] {
  let found = dots.get(block);
  if (found) return found;
  const strokes = blockStrokes(block);
  const height = (stroke: Stroke) => stroke.pad + (tones ? stroke.pitch : 0);
  const used = [...new Set(strokes.map(height))].sort((a, b) => a - b);
  const rank = new Map(used.map((value, i) => [value, used.length < 2 ? 0 : i / (used.length - 1)]));
  found = strokes.map((stroke) => ({
    tick: stroke.tick,
    velocity: stroke.velocity,
    high: rank.get(height(stroke))!,
    length: tones ? stroke.length : 0,
  }));
  dots.set(block, found);
  return found;
}

/** Those of a list in order of time that lie between two ticks. */
function visible<T extends { tick: number }>(list: readonly T[], from: number, to: number): readonly T[] {
  const first = firstFrom(list, from);
  return list.slice(first, firstFrom(list, to));
}

function firstFrom(list: readonly { tick: number }[], tick: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]!.tick < tick) low = middle + 1;
    else high = middle;
  }
  return low;
}

function box(c: CanvasRenderingContext2D, x: number, y: number, width: number, height: number, radius: number): void {
  c.beginPath();
  c.roundRect(x, y, width, height, Math.min(radius, width / 2, height / 2));
}
