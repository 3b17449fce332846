import { rollVelocity } from '@/core/sequence/rollStrokes';
import type { SoundingHit } from '@/core/sequence/soundingHits';
import { ticksPerBar, ticksPerBeat, type Meter } from '@/core/time/ticks';
import type { Tokens } from '../../theme/tokens';
import type { StepLane } from '@/core/document/stepLanes';
import { NUMBERS } from '../../theme/tokens';
import { xOf, type Geometry } from '../geometry';
import type { Traced, TracedHit } from './traced';
import type { LoopWindow } from '@/core/document/pattern';

/** The hits of a pattern by lanes, from the top, each list in order of time. */
export type ByLane = readonly (readonly SoundingHit[])[];

/** @param keyOf of hits: those that `lanes` have */
export function byLane(
  hits: readonly SoundingHit[],
  lanes: readonly StepLane[],
  keyOf: (hit: SoundingHit) => number,
): ByLane {
  const rows = new Map(lanes.map(({ key }): [number, SoundingHit[]] => [key, []]));
  for (const hit of hits) rows.get(keyOf(hit))?.push(hit);
  return [...rows.values()];
}

/** All that one picture of the lanes shows. */
export interface StepsPicture {
  geometry: Geometry;
  meter: Meter;
  /** Ticks of the pattern. */
  length: number;
  window: LoopWindow;
  lanes: readonly StepLane[];
  sounding: ByLane;
  covered: ByLane;
  /** The pattern beneath, over and over for as long as this one is, or null. */
  trace: Traced | null;
  selected: ReadonlySet<number>;
  /** Chosen notes have ends that a finger takes hold of. */
  hasEnds: boolean;
  isHeard: (pad: number) => boolean;
  /** The box that a finger is drawing, px, or null. */
  box: { x: number; y: number; width: number; height: number } | null;
  /** How much larger type is than on a phone. */
  type: number;
  tokens: Tokens;
}

const QUILL_PX = 5;
const SLANT = 0.16;
const LENGTH_PX = 6;
const END_PX = 18;
/** A name beneath needs so much room. */
const NAME_PX = 30;

/** Draws lanes, steps and hits: a hit is a slanted quill as tall as it is strong, where it was struck, with a mark where it is placed. */
export function drawSteps(c: CanvasRenderingContext2D, picture: StepsPicture): void {
  const { geometry: g, tokens } = picture;
  c.fillStyle = tokens.deep;
  c.fillRect(0, 0, g.width, g.height);
  const first = Math.floor(g.y / g.laneHeight);
  const last = Math.min(g.lanes - 1, Math.floor((g.y + g.height - 1) / g.laneHeight));
  drawCells(c, picture, first, last);
  for (let lane = first; lane <= last; lane++) drawLane(c, picture, lane, lane * g.laneHeight - g.y);
  shadeOutside(c, picture);
  if (picture.box) {
    const { x, y, width, height } = picture.box;
    c.strokeStyle = tokens.wing;
    c.lineWidth = 1;
    c.strokeRect(x + 0.5, y + 0.5, width, height);
  }
}

function drawCells(
  c: CanvasRenderingContext2D,
  { geometry: g, lanes, meter, length, tokens }: StepsPicture,
  first: number,
  last: number,
): void {
  // prettier-ignore
  const [bar, beat] = [ticksPerBar(meter), ticksPerBeat(meter)];
  const end = Math.min(length, g.start + g.span);
  const right = xOf(g, end);
  c.fillStyle = tokens.ground;
  for (let lane = first; lane <= last; lane++) {
    // A note between those of the scale stands back.
    if (lanes[lane]!.degree === 'foreign') continue;
    c.fillRect(0, lane * g.laneHeight - g.y + 1, right, g.laneHeight - 2);
  }
  const top = Math.max(0, first * g.laneHeight - g.y);
  const height = Math.min(g.height, (last + 1) * g.laneHeight - g.y) - top;
  c.fillStyle = tokens.slate;
  for (let tick = Math.ceil(g.start / beat) * beat; tick < end; tick += beat) {
    const width = (Math.min(tick + g.step, end) - tick) * g.scale;
    for (let lane = first; lane <= last; lane++) {
      if (lanes[lane]!.degree === 'foreign') continue;
      c.fillRect(xOf(g, tick), lane * g.laneHeight - g.y + 1, width, g.laneHeight - 2);
    }
  }
  // Lines closer than this would merge into grey.
  if (g.step * g.scale >= 5) {
    c.fillStyle = tokens.rule;
    for (let tick = g.start; tick < end; tick += g.step) c.fillRect(Math.round(xOf(g, tick)), top, 1, height);
  }
  c.fillStyle = tokens.cap;
  for (let tick = Math.ceil(g.start / beat) * beat; tick < end; tick += beat) {
    const isBar = tick % bar === 0;
    if (!isBar && beat * g.scale < 8) continue;
    c.globalAlpha = isBar ? 1 : 0.6;
    c.fillRect(Math.round(xOf(g, tick)), top, isBar ? 2 : 1, height);
  }
  c.globalAlpha = 1;
}

function drawLane(c: CanvasRenderingContext2D, picture: StepsPicture, lane: number, top: number): void {
  const { geometry: g, tokens, selected, trace } = picture;
  const { place, degree } = picture.lanes[lane]!;
  const bottom = top + g.laneHeight - 6;
  const tallest = g.laneHeight - 12;
  const end = g.start + g.span;
  const inView = ({ tick }: SoundingHit) => tick >= g.start && tick < end;
  if (trace) drawTrace(c, picture, trace.lanes[lane]!, trace.length, bottom, tallest);
  const alpha = picture.isHeard(place.pad) ? 1 : 0.35;
  if (degree) drawLengths(c, picture, picture.sounding[lane]!, bottom, alpha);
  const seen = picture.sounding[lane]!.filter(inView);
  c.globalAlpha = alpha;
  c.fillStyle = tokens.moss;
  for (const hit of seen) c.fillRect(xOf(g, hit.tick) + 1, top + g.laneHeight - 5, QUILL_PX + 2, 3);
  for (const isChosen of [false, true]) {
    c.fillStyle = isChosen ? tokens.breast : tokens.wing;
    c.beginPath();
    for (const hit of seen) {
      if (selected.has(hit.id) !== isChosen || hit.odds < 1) continue;
      addQuills(c, g, hit, bottom, tallest);
    }
    c.fill();
    // A hit whose odds are below 1 is drawn as an outline.
    c.strokeStyle = c.fillStyle;
    c.lineWidth = 1.5;
    c.beginPath();
    for (const hit of seen)
      if (selected.has(hit.id) === isChosen && hit.odds < 1) addQuills(c, g, hit, bottom, tallest);
    c.stroke();
  }
  c.fillStyle = tokens.cap;
  for (const hit of seen)
    if (degree ? hit.pitch % 1 !== 0 : hit.pitch !== 0)
      drawPitch(c, xOf(g, hit.struck) + 11, bottom - tallest + 4, hit.pitch > 0);
  const covered = picture.covered[lane]!.filter(inView);
  c.strokeStyle = tokens.straw;
  c.lineWidth = 1;
  c.beginPath();
  for (const hit of covered) addQuill(c, xOf(g, hit.struck) + 2, bottom, tallest * 0.8, QUILL_PX);
  c.stroke();
  c.globalAlpha = 1;
}

/** How long notes are held: a vane along the foot of each quill; a chosen one ends in a mark that a finger can take. */
function drawLengths(
  c: CanvasRenderingContext2D,
  { geometry: g, length, selected, hasEnds, tokens }: StepsPicture,
  hits: readonly SoundingHit[],
  bottom: number,
  alpha: number,
): void {
  for (const hit of hits) {
    const isChosen = selected.has(hit.id);
    c.fillStyle = isChosen ? tokens.breast : tokens.wing;
    // A note that is held over the loop's end goes on at its start.
    for (const from of [hit.struck, hit.struck - length]) {
      const left = xOf(g, from) + 2;
      const right = xOf(g, from + hit.length) + 2;
      if (right < 0 || left > g.width) continue;
      c.globalAlpha = alpha * 0.5;
      c.fillRect(left, bottom - LENGTH_PX, right - left, LENGTH_PX);
      c.globalAlpha = alpha;
      if (isChosen && hasEnds) c.fillRect(right - 3, bottom - END_PX, 3, END_PX);
    }
  }
  c.globalAlpha = 1;
}

/** A hit's quill, or one for each stroke of its roll. */
function addQuills(c: CanvasRenderingContext2D, g: Geometry, hit: SoundingHit, bottom: number, tallest: number): void {
  const { roll, velocity } = hit;
  const x = xOf(g, hit.struck) + 2;
  if (!roll) return addQuill(c, x, bottom, tallest * (0.25 + 0.75 * velocity), QUILL_PX);
  const each = (roll.over / roll.strokes) * g.scale;
  for (let i = 0; i < roll.strokes; i++) {
    const height = tallest * (0.25 + 0.75 * rollVelocity(velocity, i, roll.strokes, roll.swell));
    addQuill(c, x + i * each, bottom, height, Math.max(2, Math.min(QUILL_PX, each - 2)));
  }
}

function addQuill(c: CanvasRenderingContext2D, x: number, bottom: number, height: number, width: number): void {
  const lean = height * SLANT;
  c.moveTo(x, bottom);
  c.lineTo(x + lean, bottom - height);
  c.lineTo(x + lean + width, bottom - height);
  c.lineTo(x + width, bottom);
  c.closePath();
}

/** A small arrowhead: the hit is higher or lower than its sound. */
function drawPitch(c: CanvasRenderingContext2D, x: number, y: number, up: boolean): void {
  c.beginPath();
  c.moveTo(x, y + (up ? -4 : 4));
  c.lineTo(x + 4, y + (up ? 3 : -3));
  c.lineTo(x - 4, y + (up ? 3 : -3));
  c.fill();
}

function drawTrace(
  c: CanvasRenderingContext2D,
  { geometry: g, length, type, tokens }: StepsPicture,
  hits: readonly TracedHit[],
  every: number,
  bottom: number,
  tallest: number,
): void {
  // prettier-ignore
  if (hits.length === 0) return;
  c.fillStyle = tokens.cap;
  c.globalAlpha = 0.45;
  c.beginPath();
  for (let turn = 0; turn < length; turn += every) {
    for (const { tick, velocity } of hits) {
      const x = xOf(g, turn + tick);
      if (turn + tick < length && x > -9 && x < g.width)
        addQuill(c, x - 1, bottom, tallest * (0.25 + 0.75 * velocity), 11);
    }
  }
  c.fill();
  c.globalAlpha = 1;
  c.font = `${10 * type}px ${NUMBERS}`;
  c.textBaseline = 'top';
  let free = -Infinity;
  for (let turn = 0; turn < length; turn += every) {
    for (const { tick, name } of hits) {
      const x = xOf(g, turn + tick) + 12;
      if (name === null || turn + tick >= length || x < free || x > g.width) continue;
      c.fillText(name, x, bottom - tallest - 2);
      free = x + NAME_PX * type;
    }
  }
}

/** Dims what lies outside the loop window. */
function shadeOutside(c: CanvasRenderingContext2D, { geometry: g, window, length, tokens }: StepsPicture): void {
  if (window.length >= length) return;
  const left = Math.max(0, xOf(g, window.start));
  const right = Math.min(g.width, xOf(g, window.start + window.length));
  c.fillStyle = tokens.deep;
  c.globalAlpha = 0.62;
  c.fillRect(0, 0, left, g.height);
  c.fillRect(right, 0, g.width - right, g.height);
  c.globalAlpha = 1;
}
