import fc from 'fast-check';
import { prepareSample, SAMPLE_RATE } from '../sample/levels';
import { random } from '../random';
import { leftSound, readSample, readSlowly, rightSound, stepOf, type Reading } from './sampleReader';

const FRAMES = 4000;
const noise = random(3);
const { levels } = prepareSample({ id: 'x', channels: [Float32Array.from({ length: FRAMES }, () => noise() - 0.5)] });

test('four taps at once are to the bit what they are one by one, wherever and however fast it is read', () => {
  const reading = fc.record({
    level: fc.nat(levels.length - 1),
    place: fc.double({ min: 0, max: 1, noNaN: true }),
    speed: fc.double({ min: -30, max: 30, noNaN: true }),
    count: fc.integer({ min: 1, max: 128 }),
    gain: fc.double({ min: 0, max: 1, noNaN: true }),
    decay: fc.double({ min: 0.9, max: 1, noNaN: true }),
  });
  fc.assert(
    fc.property(reading, ({ level, place, speed, count, gain, decay }) => {
      const { channels, every } = levels[level]!;
      const step = stepOf(speed);
      const longest = 1 + Math.floor((FRAMES - 1) / Math.abs(step));
      const frames = Math.min(count, longest);
      const way = (frames - 1) * Math.abs(step);
      const first = Math.floor(place * (FRAMES - 1 - way));
      const one: Reading = { at: step < 0 ? first + way : first, step, count: frames, gain, decay };
      leftSound.fill(0);
      rightSound.fill(0);
      const ends = [readSample, readSlowly].map((read, i) =>
        read(channels[0]!, 1 / every, one, i === 0 ? leftSound : rightSound, 128 - frames),
      );
      expect(ends[0]).toBe(ends[1]);
      expect(Buffer.from(new Float64Array(leftSound).buffer).equals(Buffer.from(new Float64Array(rightSound).buffer))).toBe(true); // prettier-ignore
    }),
    { numRuns: Number(process.env.READINGS ?? 1000) },
  );
});

test('a sine read between its frames is that sine 80 dB down, and a stretch read in two is what it is in one', () => {
  const hz = 3000;
  const sine = Float32Array.from({ length: FRAMES }, (_, i) => Math.sin((2 * Math.PI * hz * i) / SAMPLE_RATE));
  const { channels, every } = prepareSample({ id: 'x', channels: [sine] }).levels[0]!;
  const step = stepOf(0.7331);
  const read = (at: number, count: number, to: number) =>
    readSample(channels[0]!, 1 / every, { at, step, count, gain: 1, decay: 1 }, leftSound, to);
  read(1000, 128, 0);
  const whole = new Float64Array(leftSound);
  const wrong = whole.map((v, i) => v - Math.sin((2 * Math.PI * hz * (1000 + i * step)) / SAMPLE_RATE));
  expect(Math.max(...wrong.map(Math.abs))).toBeLessThan(1e-4);
  leftSound.fill(0);
  read(1000, 45, 0);
  read(1000 + 45 * step, 83, 45);
  expect([...leftSound]).toEqual([...whole]);
});

test('a browser that forbids WebAssembly reads the same, to the bit', () => {
  const reading: Reading = { at: 1200, step: stepOf(-1.37), count: 100, gain: 0.7, decay: 0.999 };
  const { channels, every } = levels[1]!;
  readSample(channels[0]!, 1 / every, reading, leftSound, 0);
  const without = jest.replaceProperty(globalThis, 'WebAssembly', undefined as never);
  jest.isolateModules(() => {
    const slow = jest.requireActual<typeof import('./sampleReader')>('./sampleReader');
    slow.readSample(channels[0]!, 1 / every, reading, slow.leftSound, 0);
    expect([...slow.leftSound.subarray(0, 100)]).toEqual([...leftSound.subarray(0, 100)]);
    expect(slow.leftSound.buffer).not.toBe(leftSound.buffer);
  });
  without.restore();
});
