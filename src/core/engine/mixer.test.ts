import { AS_IT_IS } from '../launch/launchState';
import { at, type Command } from '../protocol/commands';
import { CEILING } from '../sound/limiter';
import { renderCommands } from './offline';
import { SR } from './rig.testing';

test('never exceeds the ceiling, and is limited only when it must be', () => {
  const all: Command[] = Array.from({ length: 16 }, (_, pad) =>
    at(1000, { type: 'padDown', track: 0, pad, velocity: 1, heard: 0, id: pad + 1 }),
  );
  const again: Command[] = Array.from({ length: 16 }, (_, pad) =>
    at(1500, { type: 'padDown', track: 0, pad, velocity: 1, heard: 0, id: pad + 20 }),
  );
  const { left, right } = renderCommands([...all, ...again], SR, SR);
  const loudest = Math.max(...left.map(Math.abs), ...right.map(Math.abs));
  expect(loudest).toBeLessThanOrEqual(CEILING * (1 + 1e-6));
  expect(loudest).toBeGreaterThan(CEILING * 0.9);
  expect(CEILING).toBeLessThan(10 ** (-1 / 20));
});

test('comes to true silence', () => {
  const { left } = renderCommands(
    [at(0, { type: 'padDown', track: 0, pad: 10, velocity: 1, heard: 0, id: 1 })],
    SR,
    SR * 9,
  );
  expect(left.subarray(SR * 8).every((x) => x === 0)).toBe(true);
});

test('a muted track is silent, and comes back', () => {
  const mute = (frame: number, on: boolean) =>
    at(frame, { type: 'muteSolo', track: 0, mute: on ? 1 : 0, solo: AS_IT_IS, on: 0 });
  const strike = (frame: number, id: number) =>
    at(frame, { type: 'padDown', track: 0, pad: 0, velocity: 1, heard: 0, id });
  const { left } = renderCommands([mute(0, true), strike(5000, 1), mute(40000, false), strike(50000, 2)], SR, 60000);
  expect(Math.max(...left.subarray(5000, 40000).map(Math.abs))).toBe(0);
  expect(Math.max(...left.subarray(50000, 60000).map(Math.abs))).toBeGreaterThan(0.2);
});
