import { SILENT } from '../launch/launchState';
import { feelRows } from '../sequence/hitRows';
import { gridTicks, INPUT_GRIDS } from '../quantize/grid';
import type { Instruction } from '../protocol/commands';
import { BAR, BEAT, hits, pattern, PLAY, Rig, SR } from './rig.testing';

const frames = (tick: number) => Math.round((tick * BEAT) / 960);

/** A rig that records into an empty pattern of one bar; `feel` places its strokes. */
function recording(grid: number, feel?: { grid: number; strength: number }): Rig {
  const feels = feel ? feelRows({ name: '', length: BAR, hits: [], feel }) : null;
  return new Rig().tell(
    { type: 'tempo', bpm: 120 },
    { type: 'inputQuantize', grid, on: true },
    pattern({ feels }),
    { type: 'record', on: true, session: 1 },
    PLAY,
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
    pattern({ slot: 1 }),
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

describe('an armed loop', () => {
  const recording = (...more: Instruction[]) =>
    new Rig().tell(
      { type: 'tempo', bpm: 120 },
      { type: 'inputQuantize', grid: 240, on: true },
      pattern(),
      ...more,
      { type: 'record', on: true, session: 7 },
      PLAY,
    );

  test('a stroke sounds at once and is on the grid from the next pass', () => {
    const rig = recording()
      .strike(BEAT + 700, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('sounded').map((e) => [e.frame, e.live])).toEqual([
      [BEAT + 700, true],
      [BEAT * 5, false],
    ]);
    expect(rig.of('recorded')).toMatchObject([{ struck: 960 + 28, session: 7, pass: 0, serial: 1, snapGrid: 240 }]);
  });

  test('struck early and placed later in the same pass, it does not sound twice', () => {
    const rig = recording()
      .strike(BEAT - 700, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT - 700, BEAT * 5]);
    expect(rig.of('sounded')[0]).toMatchObject({ placed: 960, struck: 960 - 28 });
  });

  test('struck just before the loop ends, it belongs to the first step of the next pass and does not sound twice', () => {
    const rig = recording()
      .strike(BEAT * 4 - 700, 0, 1)
      .runTo(BEAT * 9);
    expect(rig.of('recorded')).toMatchObject([{ struck: -28, pass: BAR }]);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT * 4 - 700, BEAT * 8]);
  });

  test('struck in the last half grid of the count-in, it belongs to bar 1 beat 1; earlier it is practice', () => {
    const rig = new Rig().tell(
      { type: 'tempo', bpm: 120 },
      { type: 'inputQuantize', grid: 240, on: true },
      pattern(),
      { type: 'record', on: true, session: 1 },
      { type: 'play', startTick: 0, countInTicks: BAR },
    );
    rig
      .strike(BEAT * 4 - 4000, 2, 1)
      .strike(BEAT * 4 - 1000, 0, 2)
      .runTo(BEAT * 9);
    expect(rig.of('recorded').map((e) => [e.id, e.struck])).toEqual([[2, -40]]);
    expect(rig.of('sounded').map((e) => [e.frame, e.pad])).toEqual([
      [BEAT * 4 - 4000, 2],
      [BEAT * 4 - 1000, 0],
      [BEAT * 8, 0],
    ]);
  });

  test('played again from the top, what was struck early sounds on its step', () => {
    const rig = recording()
      .strike(BEAT * 4 - 700, 0, 1)
      .runTo(BEAT * 5)
      .tell({ type: 'stop' }, { type: 'locate', tick: 0 }, PLAY);
    rig.runTo(BEAT * 5 + BEAT * 4.5);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT * 4 - 700, BEAT * 5, BEAT * 9]);
  });

  test('the stroke counts when it was heard, not when the message came', () => {
    const rig = recording().strike(BEAT + 5000, 0, 1, 5000);
    rig.runTo(BEAT * 2);
    expect(rig.of('recorded')[0]!.struck).toBeCloseTo(960, 9);
  });

  test('a stroke heard before a tempo change is mapped with the tempo it was heard at', () => {
    const rig = recording()
      .runTo(BEAT + 1000)
      .tell({ type: 'tempo', bpm: 240 })
      .strike(BEAT + 3000, 0, 1, 3000)
      .runTo(BEAT * 2);
    expect(rig.of('recorded')[0]!.struck).toBeCloseTo(960, 9);
  });

  test('a stroke heard before the stop is still recorded, one after it is not', () => {
    const rig = recording()
      .runTo(BEAT)
      .tell({ type: 'stop' })
      .strike(BEAT + 2000, 0, 1, 4000)
      .strike(BEAT + 9000, 2, 2)
      .runTo(BEAT * 2);
    expect(rig.of('recorded').map((e) => e.id)).toEqual([1]);
  });

  test('unquantized, the placed tick is the struck one', () => {
    const rig = recording({ type: 'inputQuantize', grid: 240, on: false })
      .strike(BEAT + 700, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT + 700, BEAT * 5 + 700]);
    expect(rig.of('recorded')[0]!.snapGrid).toBe(0);
  });

  test('with the tempo changed 112 -> 140 -> 87 while recording, every placed tick is exactly on the grid', () => {
    for (const grid of INPUT_GRIDS.map(gridTicks)) {
      const rig = new Rig().tell(
        { type: 'tempo', bpm: 112 },
        { type: 'inputQuantize', grid, on: true },
        pattern(),
        { type: 'record', on: true, session: 1 },
        PLAY,
      );
      const tempos = [112, 140, 87];
      for (let i = 1; i <= 90; i++) {
        if (i % 30 === 0) rig.tell({ type: 'tempo', bpm: tempos[i / 30]! ?? 87 });
        rig.strike(i * 7919, i % 16, i);
      }
      rig.runTo(SR * 16);
      const recorded = rig.of('recorded');
      const live = rig.of('sounded').filter((e) => e.live);
      expect(recorded).toHaveLength(90);
      expect(live.every((e) => e.placed % grid === 0 && Math.abs(e.placed - e.struck) <= grid / 2)).toBe(true);
    }
  });

  test('a pattern message that crossed a stroke does not lose it', () => {
    const rig = recording()
      .strike(BEAT, 0, 1)
      .runTo(BEAT + 100);
    // The page sends an edit made before it heard of the stroke (seen = 0), then one made after (seen = 1).
    rig.tell(pattern({ hits: hits([1920, 2, 50]) })).runTo(BEAT * 5 + 100);
    expect(rig.of('sounded').map((e) => e.id)).toEqual([1, 50, 1]);
    rig.tell(pattern({ seen: 1, hits: hits([1920, 2, 50]) })).runTo(BEAT * 9 + 100);
    expect(rig.of('sounded').map((e) => e.id)).toEqual([1, 50, 1, 50]);
  });

  test('not armed, nothing is recorded', () => {
    const rig = new Rig()
      .tell({ type: 'tempo', bpm: 120 }, pattern(), PLAY)
      .strike(BEAT, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('recorded')).toEqual([]);
    expect(rig.of('sounded')).toMatchObject([{ live: true, placed: NaN }]);
  });
});
