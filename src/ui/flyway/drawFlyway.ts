import { counted } from '@/core/counted';
import { drawWingBars } from '../shared/drawWingBars';
import { beatsUntil } from '@/core/time/position';
import { ticksPerBar, ticksPerBeat, type Meter } from '@/core/time/ticks';
import type { Sounded } from '@/instrument/performance';
import type { Tokens } from '../theme/tokens';
import { NUMBERS, WORDS_STRONG } from '../theme/tokens';
import { PADS } from '@/core/document/limits';

/** All that one picture of the Flyway shows. */
export interface FlywayView {
  width: number;
  height: number;
  /** Song tick at the wing bars; a float. */
  now: number;
  /** Song tick that lies where the wing bars stand in a strip that runs: `now`, or where it began when it goes on bar by bar. */
  origin: number;
  playing: boolean;
  meter: Meter;
  /** Where the count-in ends. */
  fromTick: number;
  /** Loop length in ticks, 0 for none. */
  loop: number;
  /** Song tick at which the loop was at its start. */
  loopStart: number;
  /** Song tick at which another loop window takes over, or null. */
  windowDrop: number | null;
  /** What is launched or stops, in order of time: when, and in few words. */
  launches: readonly { tick: number; words: string }[];
  sounded: readonly Sounded[];
  /** Engine frame heard now: what sounds later is not drawn yet. */
  heardFrame: number;
  /** How much larger type is than on a phone. */
  type: number;
  tokens: Tokens;
}

/** Where the wing bars stand, as a share of the width: what is coming needs room for its words. */
const nowAt = (width: number) => (width < 300 ? 0.3 : 0.62);
const RULER_PX = 18;
const MIN_BAR_PX = 120;
const FLAG_PX = 22;

/** Width of a bar so that about two bars of the past are seen. */
export function barWidth(width: number): number {
  return Math.max(MIN_BAR_PX, (width * nowAt(width)) / 4);
}

/** x of a song tick. */
export function tickX(view: Pick<FlywayView, 'width' | 'origin' | 'meter'>, tick: number): number {
  return view.width * nowAt(view.width) + ((tick - view.origin) / ticksPerBar(view.meter)) * barWidth(view.width);
}

/** The song ticks at which the loop begins again: the next one wherever it is, and those after it to the right edge. */
export function loopEnds(
  view: Pick<FlywayView, 'width' | 'now' | 'origin' | 'meter' | 'loop' | 'loopStart' | 'fromTick'>,
): number[] {
  if (view.loop <= 0) return [];
  const lastTick =
    view.origin + ((view.width * (1 - nowAt(view.width))) / barWidth(view.width)) * ticksPerBar(view.meter);
  const ends: number[] = [];
  const start = Math.max(view.now, view.fromTick);
  let end = view.loopStart + (Math.floor((start - view.loopStart) / view.loop) + 1) * view.loop;
  do ends.push(end);
  while ((end += view.loop) <= lastTick);
  return ends;
}

/** Draws the strip: the past to the left as struck and as placed, the wing bars, and what is coming to the right. */
export function drawFlyway(c: CanvasRenderingContext2D, view: FlywayView): void {
  const { width, height, tokens } = view;
  const nowX = tickX(view, view.now);
  c.clearRect(0, 0, width, height);
  c.fillStyle = tokens.deep;
  c.fillRect(0, 0, nowX, height);
  c.fillStyle = tokens.slate;
  c.globalAlpha = 0.55;
  c.fillRect(nowX, 0, width - nowX, height);
  c.globalAlpha = 1;
  drawRuler(c, view);
  drawHits(c, view);
  drawComing(c, view);
  drawCount(c, view);
  drawWingBars(c, nowX, { top: 0, foot: height - RULER_PX + 4 }, tokens.wing);
}

function drawRuler(c: CanvasRenderingContext2D, view: FlywayView): void {
  const { width, height, meter, tokens } = view;
  const beat = ticksPerBeat(meter);
  const bar = ticksPerBar(meter);
  const beatPx = barWidth(width) / meter.beats;
  const first = Math.floor((view.origin - (width * nowAt(width) * beat) / beatPx) / beat) * beat;
  c.font = `${12 * view.type}px ${NUMBERS}`;
  c.textBaseline = 'middle';
  c.textAlign = 'left';
  for (let tick = first; ; tick += beat) {
    const x = tickX(view, tick);
    if (x > width) break;
    if (tick < 0 && !view.playing) continue;
    const isBar = ((tick % bar) + bar) % bar === 0;
    c.fillStyle = tokens.cap;
    c.globalAlpha = isBar ? 0.75 : 0.3;
    c.fillRect(Math.round(x), isBar ? 0 : height - RULER_PX, 1, isBar ? height : 7);
    c.globalAlpha = 1;
    // A count-in's bars are not bars of the song.
    if (isBar && tick >= 0) c.fillText(String(tick / bar + 1), x + 5, height - RULER_PX / 2);
  }
}

function drawHits(c: CanvasRenderingContext2D, view: FlywayView): void {
  const { height, tokens, sounded, heardFrame, width } = view;
  const space = height - RULER_PX - 14;
  const lanes = lanesInUse(sounded);
  for (const hit of sounded) {
    if (hit.heardFrame > heardFrame) continue;
    const x = tickX(view, hit.struck);
    if (x < -10 || x > width) continue;
    const y = 7 + space * (1 - lanes[hit.pad]!);
    if (!Number.isNaN(hit.placed)) {
      const placedX = tickX(view, hit.placed);
      c.fillStyle = tokens.moss;
      c.fillRect(placedX - 1, y - 5, 2, 10);
      // How early or late it was: the way from where it was struck to where it is placed.
      c.fillRect(Math.min(x, placedX), y - 1, Math.abs(placedX - x), 2);
    }
    c.fillStyle = hit.live ? tokens.breast : tokens.wing;
    c.beginPath();
    c.arc(x, y, 1.6 + 2 * hit.velocity, 0, 7);
    c.fill();
  }
}

/** Height (0..1) of each pad's lane: the pads that sounded share the strip, in their order from the bottom. */
function lanesInUse(sounded: readonly Sounded[]): number[] {
  const used = new Array<boolean>(PADS).fill(false);
  for (const hit of sounded) used[hit.pad] = true;
  const count = Math.max(4, used.filter(Boolean).length);
  let lane = 0;
  return used.map((is) => (is ? lane++ / (count - 1) : 0));
}

function drawComing(c: CanvasRenderingContext2D, view: FlywayView): void {
  const { now, meter, windowDrop } = view;
  // Flags that have room one below the other.
  const rows = Math.max(2, Math.floor(view.height / (FLAG_PX * view.type)));
  loopEnds(view).forEach((end, i) => {
    const beats = beatsUntil(end, now, meter);
    const words = view.playing ? `Loop in ${beats}` : `Loop: ${counted(beats, 'beat')}`;
    drawFlag(c, view, end, i > 0 ? null : words, 0);
  });
  let row = 1;
  if (windowDrop !== null) drawFlag(c, view, windowDrop, `Window in ${beatsUntil(windowDrop, now, meter)}`, row++);
  view.launches.forEach(({ tick, words }, i) => {
    const more = view.launches.length - i - 1;
    // What has no room for its words has its line, and is counted on the last flag.
    if (row >= rows) return drawFlag(c, view, tick, null, 0);
    const left = `${words} in ${beatsUntil(tick, now, meter)}`;
    drawFlag(c, view, tick, row === rows - 1 && more > 0 ? `${left}, +${more}` : left, row++);
  });
}

/** A flag where something is coming; `row` counts from the top. */
function drawFlag(
  c: CanvasRenderingContext2D,
  view: FlywayView,
  tick: number,
  words: string | null,
  row: number,
): void {
  const { width, height, type, tokens } = view;
  const x = tickX(view, tick);
  c.fillStyle = tokens.straw;
  c.fillRect(x, 0, 2, height - RULER_PX);
  if (words === null) return;
  c.font = `${14 * type}px ${WORDS_STRONG}`;
  const box = c.measureText(words).width + 12;
  // Still out of sight, the flag waits at the edge; it never covers what is now.
  const left = Math.max(tickX(view, view.now) + 8, Math.min(x, width - box));
  const top = row * FLAG_PX * type;
  c.fillRect(left, top, box, 20 * type);
  c.fillStyle = tokens.onStraw;
  c.textBaseline = 'middle';
  c.fillText(words, left + 6, top + 11 * type);
}

/** The beats of a count-in, large, on the coming beats: 1 2 3 4. */
function drawCount(c: CanvasRenderingContext2D, view: FlywayView): void {
  const { height, tokens, meter, now, fromTick } = view;
  if (!view.playing || now >= fromTick) return;
  const beat = ticksPerBeat(meter);
  c.textAlign = 'center';
  c.textBaseline = 'middle';
  for (let tick = Math.floor(now / beat) * beat; tick < fromTick; tick += beat) {
    const number = ((((tick - fromTick) / beat) % meter.beats) + meter.beats) % meter.beats;
    const isNow = tick <= now;
    c.fillStyle = isNow ? tokens.straw : tokens.cap;
    c.font = `${(isNow ? 30 : 22) * view.type}px ${NUMBERS}`;
    const nowX = tickX(view, now);
    const x = isNow ? nowX - 30 * view.type : tickX(view, tick);
    if (!isNow && x < nowX + 18 * view.type) continue; // it passes under the wing bars
    c.fillText(String(number + 1), x, (height - RULER_PX) / 2 + 2);
  }
  c.textAlign = 'left';
}
