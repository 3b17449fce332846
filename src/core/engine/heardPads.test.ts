import { BEAT, playing } from './rig.testing';

test('a muted pad is silent in the pattern and answers the hand', () => {
  const rig = playing([0, 4, 1], [960, 0, 2]).tell({ type: 'heardPads', track: 0, pads: 0xffff & ~(1 << 4) });
  rig.strike(BEAT * 2, 4, 9).runTo(BEAT * 4.5);
  expect(rig.of('sounded').map((e) => e.id)).toEqual([1, 2, 9].slice(1));
});
