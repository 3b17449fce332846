import { SILENT } from '../launch/launchState';
import { feelRows } from '../sequence/hitRows';
import { hits, Rig } from './rig.testing';

const BAR = 3840;
const BEAT = 24000; // frames of a quarter at 120 BPM
const frames = (tick: number) => Math.round((tick * BEAT) / 960);

/** A rig that records into an empty pattern of one bar; `feel` places its strokes. */
function recording(grid: number, feel?: { grid: number; strength: number }): Rig {
  const feels = feel ? feelRows({ name: '', length: BAR, hits: [], feel }) : null;
  return new Rig().tell(
    { type: 'tempo', bpm: 120 },
    { type: 'inputQuantize', grid, on: true },
    { type: 'pattern', track: 0, slot: 0, revision: 1, length: BAR, seen: 0, hits: hits(), feels },
    { type: 'record', on: true, session: 1 },
    { type: 'play', startTick: 0, countInTicks: 0 },
  );
}
const played = (rig: Rig) => rig.of('sounded').filter((e) => !e.live).map((e) => Math.round(e.frame / 25)); // prettier-ignore

test('a stroke in the last half of the grid before the loop’s end comes again in every pass, also when a Feel places it', () => {
  const rig = recording(240, { grid: 0, strength: 1 });
  rig.strike(frames(3800), 0, 1).runTo(frames(4 * BAR));
  expect(rig.of('recorded').map((e) => [e.struck, e.placed])).toEqual([[-40, 3800]]);
  expect(played(rig)).toEqual([BAR + 3800, 2 * BAR + 3800, 3 * BAR + 3800]);
});

test('in a window off the grid a stroke sounds once each time round, where the document has it', () => {
  const first = recording(480).tell({ type: 'loopWindow', track: 0, slot: 0, start: 240, length: 1920, on: 0 });
  first.strike(frames(950), 0, 1).runTo(frames(950 + 2 * 1920));
  expect(first.of('recorded').map((e) => e.placed)).toEqual([960]);
  expect(played(first)).toEqual([960 + 1920]); // the stroke at 960 itself was heard from the hand
  const second = recording(960).tell({ type: 'loopWindow', track: 0, slot: 0, start: 480, length: 1920, on: 0 });
  second.strike(frames(2390), 0, 1).runTo(frames(2390 + 3 * 1920));
  expect(second.of('recorded').map((e) => e.placed)).toEqual([1920]);
  expect(played(second)).toEqual([1920 + 1920, 1920 + 2 * 1920, 1920 + 3 * 1920]);
});

test('a stroke just before a Lift returns goes to the pattern that comes back', () => {
  const rig = recording(240).tell(
    { type: 'pattern', track: 0, slot: 1, revision: 2, length: BAR, seen: 0, hits: hits(), feels: null },
    { type: 'lift', held: true, on: 0 },
    { type: 'launch', track: 0, slot: 1, on: 0, inPlace: false },
  );
  rig.runTo(BEAT * 2).tell({ type: 'lift', held: false, on: BAR });
  rig.strike(frames(BAR - 40), 5, 9).runTo(frames(2.5 * BAR));
  expect(rig.of('recorded').map((e) => [e.slot, e.struck, e.placed])).toEqual([[0, -40, 0]]);
  expect(played(rig)).toEqual([2 * BAR]);
});

test('and so does one before a Lift returns to a pattern from silence', () => {
  const rig = recording(240).tell({ type: 'lift', held: true, on: 0 }, { type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false }); // prettier-ignore
  rig.runTo(BEAT * 2).tell({ type: 'lift', held: false, on: BAR });
  rig.strike(frames(BAR - 40), 5, 9).runTo(frames(2.5 * BAR));
  expect(rig.of('recorded').map((e) => [e.slot, e.placed])).toEqual([[0, 0]]);
});

test('a hit tells the octave at which it was struck, whatever is chosen while the page is busy', () => {
  const notes = Float64Array.from({ length: 16 }, (_, pad) => 40 + pad);
  const octave = (by: number) => ({ type: 'notes', track: 0, layout: { voice: 'keys', notes, octave: by } }) as const;
  const rig = recording(240).tell(octave(1)).strike(frames(960), 3, 1);
  rig.tell(octave(-1)).runTo(frames(1920));
  expect(rig.of('recorded').map((e) => e.pitch)).toEqual([12]);
  expect(rig.of('sounded').map((e) => e.pitch)).toEqual([12]);
});
