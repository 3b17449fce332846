import fc from 'fast-check';
import type { ArpOrder } from '../document/tones';
import { LIMITER_LATENCY } from '../sound/limiter';
import { at } from '../protocol/commands';
import { BEAT, pattern, PLAY, Rig } from './rig.testing';

/** A minor from A3 up: pads 0, 2, 4 are A3, C4, E4. */
const NOTES = Float64Array.of(57, 59, 60, 62, 64, 65, 67, 69, 71, 72, 74, 76, 77, 79, 81, 83);
const STEP = BEAT / 4;

const layout = (order: ArpOrder | null, octaves = 1) =>
  ({ type: 'notes', track: 0, layout: { voice: 'keys', notes: NOTES, octave: 0, ...(order && { arpeggio: { order, octaves } }) } }) as const; // prettier-ignore
const rig = (order: ArpOrder | null, { octaves = 1, latch = false } = {}) =>
  new Rig().tell({ type: 'tempo', bpm: 120 }, layout(order, octaves), { type: 'noteRepeat', on: true, latch }, PLAY);
const up = (frame: number, pad: number) => ({ type: 'padUp', track: 0, pad, heard: frame + LIMITER_LATENCY }) as const;
/** What sounded: the sixteenth, and the note. */
const played = (of: Rig) =>
  of.of('sounded').map(({ frame, pad, pitch }) => [Math.round(frame / STEP), NOTES[pad]! + pitch] as const);
const notes = (of: Rig) => played(of).map(([, note]) => note);
/** A chord is struck just before the first sixteenth, from its highest note down. */
const chord = (of: Rig) => {
  [4, 2, 0].forEach((pad, i) => of.strike(Math.round(STEP * 0.6) + 50 * i, pad, 2 * i + 1));
  return of;
};

test('held notes take turns, one on each line of note repeat, in every order and over octaves', () => {
  const of = (order: ArpOrder, octaves = 1) => notes(chord(rig(order, { octaves })).runTo(STEP * 7.5));
  expect(of('up')).toEqual([57, 60, 64, 57, 60, 64, 57]);
  expect(of('down')).toEqual([64, 60, 57, 64, 60, 57, 64]);
  expect(of('upDown')).toEqual([57, 60, 64, 60, 57, 60, 64]);
  expect(of('played')).toEqual([64, 60, 57, 64, 60, 57, 64]);
  expect(of('up', 2)).toEqual([57, 60, 64, 69, 72, 76, 57]);
  expect(played(chord(rig('up')).runTo(STEP * 4.5)).map(([step]) => step)).toEqual([1, 2, 3, 4]);
});

test('without an arpeggio all of them sound at each line', () => {
  expect(notes(chord(rig(null)).runTo(STEP * 2.5)).sort()).toEqual([57, 57, 60, 60, 64, 64]);
});

test('a chord struck just after a line sounds its first note at once, and the others in their turns', () => {
  const of = rig('up').runTo(STEP);
  [0, 2, 4].forEach((pad, i) => of.strike(STEP + 300 + 60 * i, pad, 2 * i + 1));
  of.runTo(STEP * 4.5);
  expect(played(of)).toEqual([[1, 57], [2, 60], [3, 64], [4, 57]]); // prettier-ignore
  expect(of.of('sounded')[0]!.frame).toBe(STEP + 300);
});

test('a chord that is let go before its line still gets each of its notes, one after the other, and then no more', () => {
  const of = chord(rig('up'));
  const frame = Math.round(STEP * 0.8);
  of.runTo(frame).tell(up(frame, 0), up(frame, 2), up(frame, 4));
  expect(notes(of.runTo(STEP * 9))).toEqual([57, 60, 64]);
});

test('one that is let go or comes while others are held leaves or joins them on the next line', () => {
  const of = chord(rig('up')).runTo(STEP * 3.5);
  const frame = Math.round(STEP * 3.5);
  of.tell(up(frame, 2))
    .strike(frame, 7, 99)
    .runTo(STEP * 6.5);
  expect(notes(of).slice(0, 3)).toEqual([57, 60, 64]);
  expect(new Set(notes(of).slice(3))).toEqual(new Set([57, 64, 69]));
});

test('latched, it goes on by itself until other keys are pressed, which take its place', () => {
  const of = chord(rig('up', { latch: true })).runTo(STEP * 1.5);
  let frame = Math.round(STEP * 1.5);
  of.tell(up(frame, 0), up(frame, 2), up(frame, 4)).runTo(STEP * 4.5);
  expect(notes(of)).toEqual([57, 60, 64, 57]);
  frame = Math.round(STEP * 4.6);
  of.strike(frame, 1, 21)
    .strike(frame + 50, 3, 23)
    .runTo(STEP * 8.5);
  expect(notes(of).slice(4)).toEqual([59, 62, 59, 62]);
  of.tell({ type: 'noteRepeat', on: false, latch: true }).runTo(STEP * 12);
  expect(notes(of)).toHaveLength(8);
});

test('its order is changed while it plays, and its notes are recorded as they sounded, at their pitch', () => {
  const of = rig('up', { octaves: 2 }).tell(pattern({}), { type: 'record', on: true, session: 1 });
  chord(of)
    .runTo(STEP * 6.5)
    .tell(layout('down'))
    .runTo(STEP * 9.5);
  expect(notes(of)).toHaveLength(9);
  expect(notes(of).slice(0, 6)).toEqual([57, 60, 64, 69, 72, 76]);
  expect(new Set(notes(of).slice(6))).toEqual(new Set([57, 60, 64]));
  const recorded = of.of('recorded').map(({ pad, pitch, struck }) => [Math.round((struck / 240) * 1000) / 1000, NOTES[pad]! + pitch]); // prettier-ignore
  expect(recorded).toEqual(played(of));
});

test('random hands at random block sizes: the same notes at the same frames', () => {
  const orders = fc.constantFrom<(ArpOrder | null)[]>('up', 'down', 'upDown', 'played', null);
  const deed = fc.record({ frame: fc.nat(STEP * 12), pad: fc.nat(6), kind: fc.constantFrom('down', 'down', 'up', 'layout', 'rate', 'repeat'), order: orders, octaves: fc.integer({ min: 1, max: 3 }), fast: fc.boolean() }); // prettier-ignore
  fc.assert(
    fc.property(fc.array(deed, { minLength: 4, maxLength: 40 }), fc.boolean(), (deeds, latch) => {
      const commands = deeds
        .sort((a, b) => a.frame - b.frame)
        .map(({ frame, pad, kind, order, octaves, fast }, i) => {
          const heard = frame + LIMITER_LATENCY;
          if (kind === 'down') return at(frame, { type: 'padDown', track: 0, pad, velocity: 1, heard, id: 2 * i + 1 });
          if (kind === 'up') return at(frame, { type: 'padUp', track: 0, pad, heard });
          if (kind === 'layout') return at(frame, layout(order, octaves));
          if (kind === 'rate') return at(frame, { type: 'repeatRate', track: 0, pad, ticks: fast ? 120 : 320 });
          return at(frame, { type: 'noteRepeat', on: fast, latch });
        });
      const [one, ...others] = [64, 512, 1024].map((block) => {
        const of = new Rig(block).tell({ type: 'tempo', bpm: 120 }, layout('up'), { type: 'noteRepeat', on: true, latch }, PLAY); // prettier-ignore
        for (const command of commands) of.engine.post(command);
        return of.runTo(STEP * 13).of('sounded').map(({ frame, pad, pitch, velocity }) => [frame, pad, pitch, velocity].join()).join(' '); // prettier-ignore
      });
      for (const other of others) expect(other).toBe(one);
    }),
    { numRuns: 8 },
  );
});
