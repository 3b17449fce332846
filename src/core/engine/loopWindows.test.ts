import type { Instruction } from '../protocol/commands';
import { BAR, BEAT, PLAY, hits, pattern, loopWindow, Rig } from './rig.testing';

const beats = hits([0, 0, 1], [960, 0, 2], [1920, 0, 3], [2880, 0, 4]);
const playing = () => new Rig().tell({ type: 'tempo', bpm: 120 }, pattern({ hits: beats }), PLAY);
const sounded = (rig: Rig) => rig.of('sounded').map((e) => [e.frame / BEAT, e.id]);

test('takes over on the spot, and the whole pattern comes back where it would have been', () => {
  const rig = playing().runTo(BEAT * 2.5);
  rig.tell(loopWindow(960, 960, 0)).runTo(BEAT * 5.5);
  rig.tell(loopWindow(0, 0, 0)).runTo(BEAT * 7.5);
  expect(sounded(rig)).toEqual([[0, 1], [1, 2], [2, 3], [3, 2], [4, 2], [5, 2], [6, 3], [7, 4]]); // prettier-ignore
});

test('takes over on the next beat or bar, before what is played there, and says so ahead', () => {
  const rig = playing().runTo(BEAT * 1.5);
  rig.tell(loopWindow(0, 480, BAR)).runTo(BEAT * 5.9);
  rig.tell(loopWindow(2880, 960, 960)).runTo(BEAT * 7.5);
  // The half beat has one hit, every half beat from the bar line on.
  expect(sounded(rig)).toEqual([[0, 1], [1, 2], [2, 3], [3, 4], [4, 1], [4.5, 1], [5, 1], [5.5, 1], [6, 4], [7, 4]]); // prettier-ignore
  const told = rig.events
    .flatMap((e) => {
      if (e.kind === 'loop') return [[e.frame / BEAT, e.start, e.span, e.tick / 960, false]];
      return e.kind === 'window' && e.tick < Infinity ? [[e.frame / BEAT, e.start, e.length, e.tick / 960, true]] : [];
    })
    .filter(([frame]) => Number(frame) > 0);
  expect(told).toEqual([
    [1.5, 0, 480, 4, true],
    [4, 0, 480, 4, false],
    [5.9, 2880, 960, 6, true],
    [6, 2880, 960, 6, false],
  ]);
});

test('is taken back before its time by asking for the one that goes round', () => {
  const rig = playing().runTo(BEAT * 1.5);
  rig.tell(loopWindow(960, 960, BAR)).runTo(BEAT * 2.5);
  rig.tell(loopWindow(0, 0, BAR)).runTo(BEAT * 5.5);
  expect(sounded(rig)).toEqual([[0, 1], [1, 2], [2, 3], [3, 4], [4, 1], [5, 2]]); // prettier-ignore
});

test('waits through a tempo change for the same bar line', () => {
  const rig = playing()
    .tell(loopWindow(960, 960, BAR))
    .runTo(BEAT * 2);
  rig.tell({ type: 'tempo', bpm: 60 }).runTo(BEAT * 6.5);
  expect(sounded(rig).at(-1)).toEqual([6, 2]);
});

test('what is recorded in it lies in the pattern where it was heard', () => {
  const rig = new Rig().tell(
    { type: 'tempo', bpm: 120 },
    { type: 'inputQuantize', grid: 240, on: true },
    pattern(),
    loopWindow(960, 960, 0),
  );
  rig.tell({ type: 'record', on: true, session: 1 }, PLAY);
  // On the and of a beat; and just before the window comes round: to its first step.
  rig
    .strike(BEAT * 2.5 + 100, 0, 1)
    .strike(BEAT * 4 - 500, 2, 2)
    .runTo(BEAT * 5.2);
  expect(rig.of('recorded').map((e) => [e.id, e.struck])).toEqual([
    [1, 960 + 480 + 4],
    [2, 960 - 20],
  ]);
  expect(rig.of('sounded').filter((e) => !e.live).map((e) => [e.frame / BEAT, e.id])).toEqual([[3.5, 1], [4.5, 1], [5, 2]]); // prettier-ignore
});

test('loops of 3, 4, 5 and 7 steps keep to their places for twenty minutes, each within a sample', () => {
  const rate = 4000; // a low rate, so that it takes seconds; the arithmetic is the same
  const rig = new Rig(4096, rate).tell({ type: 'tempo', bpm: 113.7 });
  const steps = [3, 4, 5, 7];
  steps.forEach((count, t) => {
    rig.tell(
      pattern({ track: t, hits: hits([0, 0, t + 1], [240 * (count - 1), 0, t + 11]) }),
      { type: 'loopWindow', track: t, slot: 0, start: 0, length: count * 240, on: 0 },
      { type: 'launch', track: t, slot: 0, on: 0, inPlace: false },
    );
  });
  rig.tell(PLAY).runTo(rate * 1200);
  const perTick = (rate * 60) / (113.7 * 960);
  const lengthInTicks = (1200 * 113.7 * 960) / 60;
  let met = 0;
  steps.forEach((count, t) => {
    const own = rig.of('sounded').filter((e) => e.track === t);
    const worst = own.reduce((most, e, i) => {
      const ideal = (Math.floor(i / 2) * count + (i % 2) * (count - 1)) * 240 * perTick;
      return Math.max(most, Math.abs(e.frame - ideal));
    }, 0);
    expect(worst).toBeLessThanOrEqual(0.5 + 1e-6);
    expect(Math.abs(own.length - 2 * (lengthInTicks / (count * 240)))).toBeLessThanOrEqual(2);
    met += own.length;
  });
  expect(met).toBeGreaterThan(15000);
});

test('one that waits is not lost when another slot of its track gets a window', () => {
  const rig = playing().runTo(BEAT * 1.5);
  rig.tell(loopWindow(960, 960, BAR)).runTo(BEAT * 2.5);
  rig.tell(pattern({ slot: 1 }), { ...loopWindow(0, 480, BAR), slot: 1 } as Instruction).runTo(BEAT * 5.5);
  expect(sounded(rig)).toEqual([[0, 1], [1, 2], [2, 3], [3, 4], [4, 2], [5, 2]]); // prettier-ignore
});
