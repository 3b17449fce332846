import { BEAT, playing, Rig } from './rig.testing';

const heard = (rig: Rig) => rig.of('sounded').map((e) => [e.frame / BEAT, Math.round(e.velocity * 100) / 100]);

test('a roll shares its time evenly and swells or falls away, over the loop end too', () => {
  const roll = { strokes: 4, over: 480, swell: 0.75, glide: 0 };
  expect(heard(playing([3600, 4, 1, { roll }]).runTo(BEAT * 4.6))).toEqual([
    [3.75, 0.25],
    [3.875, 0.5],
    [4, 0.75],
    [4.125, 1],
  ]);
  const falling = { strokes: 3, over: 960, swell: -1, glide: -12 };
  expect(heard(playing([0, 4, 1, { roll: falling }]).runTo(BEAT * 1.5)).map(([at]) => at)).toEqual([0, 8000 / BEAT, 16000 / BEAT]); // prettier-ignore
});

test('a roll goes on though the tempo changes, and ends with the song', () => {
  const roll = { strokes: 8, over: 960, swell: 0, glide: 0 };
  const rig = playing([0, 4, 1, { roll }]).runTo(BEAT / 2 - 10);
  rig.tell({ type: 'tempo', bpm: 60 }).runTo(BEAT);
  rig.tell({ type: 'stop' }).runTo(BEAT * 3);
  // The fourth eighth of a beat was all but over when the tempo halved: what is left of it takes twice as long.
  expect(rig.of('sounded').map((e) => e.frame)).toEqual([0, 3000, 6000, 9000, 12010, 18010]);
});
