import { PadTouches, type PadTouch } from './padTouches';

const touch = (pad: number): PadTouch => ({ pad, device: 'touch', velocity: 1, pressure: 0.5, x: 0, y: 0, height: 80 });

test('of two fingers on one pad the last to leave lets it go', () => {
  const touches = new PadTouches();
  touches.down(1, touch(4));
  touches.down(2, touch(4));
  touches.down(3, touch(5));
  expect(touches.up(1)).toBeNull();
  expect(touches.up(3)?.pad).toBe(5);
  expect(touches.up(2)?.pad).toBe(4);
  expect(touches.up(2)).toBeNull();
});

test('when all leave, each pad is let go once', () => {
  const touches = new PadTouches();
  for (const [pointer, pad] of [4, 4, 7].entries()) touches.down(pointer, touch(pad));
  expect(touches.upAll().map(({ pad }) => pad)).toEqual([4, 7]);
  expect(touches.upAll()).toEqual([]);
});
