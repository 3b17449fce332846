import { BAR, BEAT, SR, PLAY, hits, pattern, playing, Rig } from './rig.testing';

test('every hit is on its frame, pass after pass', () => {
  const rig = new Rig()
    .tell({ type: 'tempo', bpm: 112 }, pattern({ hits: hits([0, 0, 1], [961, 2, 2], [3839, 4, 3]) }), PLAY)
    .runTo(SR * 30);
  const perTick = (SR * 60) / (112 * 960);
  const expected = Array.from({ length: 20 }, (_, pass) => pass).flatMap((pass) =>
    [0, 961, 3839].map((tick) => Math.round((pass * BAR + tick) * perTick)),
  );
  const frames = rig.of('sounded').map((e) => e.frame);
  expect(frames).toEqual(expected.slice(0, frames.length));
  expect(frames.length).toBeGreaterThan(38);
});

test('after two hours every onset is still within a sample', () => {
  // A low rate, so that two hours take seconds; the arithmetic is the same.
  const rate = 1000;
  const rig = new Rig(4096, rate).tell(
    { type: 'tempo', bpm: 174 },
    pattern({ hits: hits([0, 1, 1], [240, 1, 2]) }),
    PLAY,
  );
  rig.runTo(rate * 7200);
  const perTick = (rate * 60) / (174 * 960);
  const sounded = rig.of('sounded');
  expect(sounded).toHaveLength(2 * Math.ceil(7200 / ((240 / 174) as number)));
  const worst = Math.max(
    ...sounded.map((e, i) => Math.abs(e.frame - (Math.floor(i / 2) * BAR + (i % 2) * 240) * perTick)),
  );
  expect(worst).toBeLessThanOrEqual(0.5);
});

test('a longer or shorter loop takes over at once, where the song is', () => {
  const two = hits([0, 0, 1], [BAR, 2, 2]);
  const rig = new Rig()
    .tell({ type: 'tempo', bpm: 120 }, pattern({ length: 2 * BAR, hits: two }), PLAY)
    .runTo(BEAT * 2);
  rig
    .tell(pattern({ hits: hits([0, 0, 1]) }))
    .runTo(BEAT * 9)
    .tell(pattern({ length: 2 * BAR, hits: two }))
    .runTo(BEAT * 17);
  expect(rig.of('sounded').map((e) => [e.frame / BEAT, e.id])).toEqual([
    [0, 1],
    [4, 1],
    [8, 1],
    [12, 2],
    [16, 1],
  ]);
});

test('odds: as often as they say, not every time, and the same again in a replay', () => {
  const run = () =>
    playing([0, 4, 1, { odds: 0.3 }], [960, 4, 2, { odds: 0.3 }], [1920, 4, 3], [2880, 4, 4, { odds: 0 }]);
  const passes = 1000;
  const rate = BEAT * 4;
  const rig = new Rig(4096, 2000).tell({ type: 'tempo', bpm: 120 }, pattern({ hits: hits([0, 4, 1, { odds: 0.3 }], [2880, 4, 4, { odds: 0 }]) }), PLAY); // prettier-ignore
  rig.runTo(passes * 4 * 1000);
  const count = rig.of('sounded').length;
  // Four standard deviations of a binomial with 1000 trials at 0.3: 58.
  expect(Math.abs(count - 300)).toBeLessThan(58);
  const [one, again] = [run().runTo(rate * 10), run().runTo(rate * 10)];
  expect(one.of('sounded')).toEqual(again.of('sounded'));
  expect(one.of('sounded').filter((e) => e.id === 3)).toHaveLength(10);
  expect(one.of('sounded').some((e) => e.id === 4)).toBe(false);
});
