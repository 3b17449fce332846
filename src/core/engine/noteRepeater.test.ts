import { LIMITER_LATENCY } from '../sound/limiter';
import { CONTROLS, moveIndex } from '../document/moves';
import { BEAT, PLAY, pattern, Rig } from './rig.testing';

const repeating = (ticks: number) =>
  new Rig().tell(
    { type: 'tempo', bpm: 120 },
    { type: 'repeatRate', track: 0, pad: 2, ticks },
    { type: 'noteRepeat', on: true, latch: false },
    PLAY,
  );
const down = (frame: number, id: number) => ({ type: 'padDown', track: 0, pad: 2, velocity: 1, heard: frame + LIMITER_LATENCY, id }) as const; // prettier-ignore
const up = (frame: number) => ({ type: 'padUp', track: 0, pad: 2, heard: frame + LIMITER_LATENCY }) as const;
const beats = (rig: Rig) => rig.of('sounded').map((e) => e.frame / BEAT);

test.each([960, 480, 240, 160])('tapped twice before its first stroke is due, a pad repeats while it is held: rate %i', (ticks) => {
  const step = (ticks / 960) * BEAT;
  const rig = repeating(ticks).runTo(Math.round(step * 1.4)).tell(down(step * 1.4, 1));
  rig.runTo(Math.round(step * 1.5)).tell(up(step * 1.5));
  rig.runTo(Math.round(step * 1.6)).tell(down(step * 1.6, 3));
  rig.runTo(Math.round(step * 4.5));
  expect(rig.of('sounded').map((e) => Math.round(e.frame / step))).toEqual([2, 3, 4]);
}); // prettier-ignore

test('a press just after Play, heard before it, does not wait for the whole count-in', () => {
  const rig = new Rig()
    .runTo(5000)
    .tell(
      { type: 'tempo', bpm: 120 },
      { type: 'repeatRate', track: 0, pad: 2, ticks: 240 },
      { type: 'noteRepeat', on: true, latch: false },
      { type: 'play', startTick: 0, countInTicks: 3840 },
    );
  // What the player heard when they struck was still the silence before.
  rig
    .runTo(5400)
    .tell(down(4900, 1))
    .runTo(5000 + BEAT);
  expect(rig.of('sounded').map((e) => e.frame)).toEqual([
    5400,
    5000 + BEAT / 4,
    5000 + BEAT / 2,
    5000 + (3 * BEAT) / 4,
  ]);
});

test('a rate beyond the last one is the last one: it never loops for ever', () => {
  for (const value of [99, -5, Infinity]) {
    const table = moveIndex(2, CONTROLS.indexOf('rate'));
    const rig = repeating(240).tell({ type: 'moves', track: 0, slot: 0, revision: 1, points: new Float64Array([table, 1, 0, value]) }); // prettier-ignore
    rig.tell(pattern({ revision: 2 })); // prettier-ignore
    rig
      .runTo(1000)
      .tell(down(1000, 1))
      .runTo(BEAT * 1.9);
    expect(beats(rig).length).toBeGreaterThan(0);
    expect(beats(rig).length).toBeLessThan(60);
    rig.tell({ type: 'turn', track: 0, pad: 2, control: 'rate', value }).runTo(BEAT * 3);
  }
});
