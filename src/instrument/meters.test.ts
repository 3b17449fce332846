import { WHOLE_CHANNEL } from '@/core/document/mix';
import type { Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import { Meters } from './meters';

const meter = (channel: number, peak: number, power: number): EngineEvent => ({ kind: 'meter', frame: 0, channel, peak, power, reduction: 3 }); // prettier-ignore
const silence = meter(WHOLE_CHANNEL, 0, 0);

test('the engine measures from the first who looks to the last', () => {
  const told: Instruction[] = [];
  const meters = new Meters((instruction) => told.push(instruction));
  const [first, second] = [meters.watch(), meters.watch()];
  first();
  // Another engine, which knows nothing of it.
  meters.restart();
  second();
  meters.restart();
  expect(told).toEqual([true, true, false].map((on) => ({ type: 'meters', on })));
});

test('a sine at full scale in both sides is 0 dB, and falls when it is no longer told of; the peak stays until it is reset', () => {
  const meters = new Meters(() => undefined);
  expect([meters.loudness(2), meters.peak(2), meters.shortTerm]).toEqual([-Infinity, -Infinity, -Infinity]);
  for (let i = 0; i < 300; i++) meters.take([meter(2, 1, 1), meter(WHOLE_CHANNEL, 1, 1)]);
  expect(meters.loudness(2)).toBeCloseTo(0, 3);
  expect([meters.peak(2), meters.reduction(2)]).toEqual([0, 3]);
  // EBU Tech 3341: a mean square of 1 is -0.691 LUFS.
  expect(meters.shortTerm).toBeCloseTo(-0.691, 6);
  for (let i = 0; i < 62; i++) meters.take([silence]);
  expect(meters.loudness(2)).toBeLessThan(-12);
  expect(meters.peak(2)).toBe(0);
  meters.take([meter(2, 0.5, 0.1), silence]);
  expect(meters.peak(2)).toBe(0);
  meters.resetPeak(2);
  meters.take([meter(2, 0.5, 0.1), silence]);
  expect(meters.peak(2)).toBeCloseTo(-6.02, 2);
  // After three seconds nothing of it is left.
  for (let i = 0; i < 200; i++) meters.take([silence]);
  expect(meters.shortTerm).toBe(-Infinity);
});
