import { gridTicks } from '../quantize/grid';
import { STRAIGHT, swungTick, type Swing } from '../quantize/swing';
import { msToTicks, ticksPerBar, type Meter } from '../time/ticks';
import type { Hit } from './hit';
import { padOfKind } from './kits';
import type { Pattern } from './pattern';
import type { Section } from './section';
import type { PadKind } from './soundKinds';

/**
 * A beat as text, a lane for each sound. One character a sixteenth, a space between bars: `-` none, `1`..`9` velocity in tenths, `X`
 * full, `r` a roll of three. The number is how many ms the hand that plays it is late: below 0 it pushes.
 */
export type WrittenLanes = readonly (readonly [kind: PadKind, bars: string, lateMs: number])[];

/** Notes: a pad, the sixteenths at which it begins and ends, and its velocity in tenths. */
export interface WrittenNotes {
  bars: number;
  notes: readonly (readonly [pad: number, from: number, to: number, tenths: number])[];
}

/** How written hits are played. */
export interface Playing {
  /** Quarter notes per minute, at which hands are so many ms late. */
  tempo: number;
  /** Of the pull that tidies them, 0..1. */
  strength: number;
  /** Share of an eighth at which its second sixteenth falls: 0.5 is straight (common practice). With a strength of 1 all is straight. */
  swing?: number;
}

export const FOUR_FOUR: Meter = { beats: 4, unit: 4 };
/** Ticks of a bar of what is written. */
export function barTicks(): number {
  return ticksPerBar(FOUR_FOUR);
}

/**
 * Bars one after another, each by its letter.
 * @example inOrder('AAB', { A: '9---', B: '9--9' }) // '9--- 9--- 9--9'
 */
export function inOrder<Letter extends string>(order: string, bars: Record<Letter, string>): string {
  return [...order].map((letter) => bars[letter as Letter]).join(' ');
}

/** A roll grows into the next stroke. */
const ROLLED = { velocity: 0.7, roll: { strokes: 3, swell: 0.6, glide: 0 } };

/** Where each stroke really fell, in ms from its lane's habit: hands are not machines. Repeats over the strokes. */
const HAND_MS = [0, 5, -3, 2, -6, 4, 1, -2, 7, -4, 3, -1, -5, 6, 0, 2, -3];

/** Ms by which the nth stroke is beside its place. */
export function handMs(stroke: number): number {
  return HAND_MS[stroke % HAND_MS.length]!;
}

/**
 * A pattern of what is written.
 * @param newId gives each hit its id
 */
export function writtenPattern(name: string, lanes: WrittenLanes, played: Playing, newId: () => number): Pattern {
  const { tempo, strength } = played;
  const step = gridTicks('1/16');
  const swing = struckSwing(played);
  const hits: Hit[] = [];
  let bars = 1;
  for (const [kind, marks, lateMs] of lanes) {
    bars = Math.max(bars, marks.split(' ').length);
    [...marks.replace(/ /g, '')].forEach((mark, i) => {
      if (mark === '-') return;
      hits.push({
        id: newId(),
        pad: padOfKind(kind),
        tick: swungTick(i * step, swing) + msToTicks(lateMs + handMs(hits.length), tempo),
        length: step / 2,
        velocity: mark === 'X' ? 1 : mark === 'r' ? ROLLED.velocity : Number(mark) / 10,
        ...(mark === 'r' && { roll: { ...ROLLED.roll, over: step } }),
        snap: { grid: step, strength },
      });
    });
  }
  return { name, length: bars * barTicks(), hits };
}

/**
 * Where hands strike the second sixteenth, so that it lies at its share when it has been pulled towards the straight line: swing that a
 * Feel gave would hold for what is recorded on top, too.
 */
function struckSwing({ strength, swing = STRAIGHT }: Playing): Swing {
  const ratio = STRAIGHT + (swing - STRAIGHT) / (1 - (swing === STRAIGHT ? 0 : strength));
  return { unit: gridTicks('1/16'), ratio };
}

/**
 * A pattern of the notes that are written.
 * @param newId gives each hit its id
 */
export function writtenNotes(
  name: string,
  { bars, notes }: WrittenNotes,
  played: Playing,
  newId: () => number,
): Pattern {
  const { tempo, strength } = played;
  const step = gridTicks('1/16');
  const swing = struckSwing(played);
  const hits = notes.map(([pad, from, to, tenths], i): Hit => ({
    id: newId(),
    pad,
    tick: swungTick(from * step, swing) + msToTicks(handMs(i), tempo),
    length: (to - from) * step,
    velocity: tenths / 10,
    snap: { grid: step, strength },
  }));
  return { name, length: bars * barTicks(), hits };
}

/**
 * A chord for each bar, struck at the same times in all of them.
 * @param chords pads, from low to high
 * @param softer tenths of velocity by which each note is softer than the one below it
 * @param times sixteenths of the bar at which they begin and end, and the velocity of their lowest note in tenths
 */
export function chordsAt(
  chords: readonly (readonly number[])[],
  softer: number,
  ...times: readonly (readonly [from: number, to: number, tenths: number])[]
): WrittenNotes {
  const notes = chords.flatMap((chord, bar) =>
    times.flatMap(([from, to, tenths]) =>
      chord.map((pad, i) => [pad, 16 * bar + from, 16 * bar + to, tenths - softer * i] as const),
    ),
  );
  return { bars: chords.length, notes };
}

/** A section: the slots that its tracks play, null where one stops, and how often it goes round before the next. */
export type WrittenSection = readonly [name: string, colour: number, plays: readonly (number | null)[], rounds: number];

/** The sections of a set, in their order. */
export function writtenSections(sections: readonly WrittenSection[]): Section[] {
  return sections.map(([name, colour, plays, rounds], i) => ({
    id: i + 1,
    name,
    colour,
    parts: plays.map((slot, track) => ({ track, plays: slot })),
    rounds,
  }));
}
