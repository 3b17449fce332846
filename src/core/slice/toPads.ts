import { withCuts, withSound, type Kit, type KitPad } from '../document/kit';
import { MAX_NAME, MAX_TICKS, PADS } from '../document/limits';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { asTaken, type Sound } from '../document/sound';
import { PPQ, ticksPerBar, type Meter } from '../time/ticks';
import type { Piece } from './cuts';

/** Sixteen pieces, or those that are left: they fill the pads of one track. */
export type Page = readonly Piece[];

/** The pieces, sixteen at a time. */
export function pagesOf(pieces: readonly Piece[]): Page[] {
  return Array.from({ length: Math.ceil(pieces.length / PADS) }, (_, i) => pieces.slice(i * PADS, (i + 1) * PADS));
}

/**
 * A kit whose first pads play pieces of a sound's sample, as the sound did; they cut each other off, as one recording does. The other
 * pads stay as they are.
 * @param first number of the page's first piece, from 0
 */
export function kitOfPieces(kit: Kit, sound: Sound, frames: number, page: Page, first: number): Kit {
  const { cuts: _, own: __, tempo: ___, ...rest } = sound;
  let pads = kit.pads;
  page.forEach(({ from, to }, pad) => {
    const name = `${sound.name.slice(0, MAX_NAME - 4)} ${first + pad + 1}`;
    const piece = asTaken({
      ...rest,
      name,
      kind: 'other',
      settings: { ...sound.settings, start: from / frames, end: to / frames },
    });
    pads = pads.map((own, i) => (i === pad ? alone(withSound(pads, pad, piece)) : own));
  });
  const [one, ...others] = page.map((_piece, pad) => pad);
  return { ...kit, pads, cutGroups: withCuts(kit.cutGroups, one!, others) };
}

function alone({ alsoPlays: _, ...pad }: KitPad): KitPad {
  return pad;
}

interface Order {
  /** The part that all pieces make up. */
  part: Piece;
  /** Quarter notes per minute of the recording. */
  tempo: number;
  meter: Meter;
  /** Frames of the sample a second. */
  rate: number;
  /** Played backwards, the last piece comes first. */
  reverse: boolean;
  newId: () => number;
}

/**
 * A pattern that plays the pieces of a page one after the other, where they lie in the recording. It is as many bars long as the
 * recording.
 */
export function patternOfPieces(
  name: string,
  page: Page,
  { part, tempo, meter, rate, reverse, newId }: Order,
): Pattern {
  const ticks = (frames: number) => (frames * tempo * PPQ) / (60 * rate);
  const hits = page.map(({ from, to }, pad): Hit => ({
    id: newId(),
    pad,
    tick: ticks(reverse ? part.to - to : from - part.from),
    length: ticks(to - from),
    velocity: 1,
    snap: null,
  }));
  return { name, length: barsOf(ticks(part.to - part.from), meter), hits: hits.sort((a, b) => a.tick - b.tick) };
}

/** A recording that is so much of a bar longer than whole bars is taken for them: its end rings over. */
const RINGS_OVER = 0.1;

/** Ticks of the bars that a recording of so many ticks fills. */
function barsOf(ticks: number, meter: Meter): number {
  const bar = ticksPerBar(meter);
  return Math.min(Math.floor(MAX_TICKS / bar), Math.max(1, Math.ceil(ticks / bar - RINGS_OVER))) * bar;
}
