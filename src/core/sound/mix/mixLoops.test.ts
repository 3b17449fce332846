import fc from 'fast-check';
import { random } from '../../random';
import { MAX_STRETCH } from '../stretch';
import { MixBus } from './mixBus';
import { bend, compress, COMPRESSOR, compressSlowly, filter, filter1, filter3, FILTER_NUMBERS, FIRST_STEP, HELD, isQuick, saturate, SATURATION_NUMBERS, saturateSlowly, send, sendMoving, SENT_NUMBERS } from './mixLoops'; // prettier-ignore

const bus = new MixBus();

test('this Node filters side by side', () => expect(isQuick).toBe(true));

type Loop = (numbers: readonly Float64Array[], from: number, frames: number) => void;
const three =
  (loop: typeof filter3): Loop =>
  (numbers, from, frames) =>
    loop(numbers[0]!, numbers[1]!, numbers[2]!, bus, from, frames);
/** What `filter3` does, by each filter alone. */
const filter3Slowly: typeof filter3 = (a, b, c, of, from, frames) => {
  for (const numbers of [a, b, c]) filter(numbers, of, from, frames);
};
const one =
  (loop: typeof saturate | typeof filter1): Loop =>
  (numbers, from, frames) =>
    loop(numbers[0]!, bus, from, frames);

test.each([
  ['three filters', three(filter3), three(filter3Slowly), FILTER_NUMBERS],
  ['one filter', one(filter1), one(filter), FILTER_NUMBERS],
  [
    'pan and sends',
    one(send),
    one((gains, ...where) => sendMoving(gains, new Float64Array(SENT_NUMBERS), ...where)),
    SENT_NUMBERS,
  ],
  ['a saturation', one(saturate), one(saturateSlowly), SATURATION_NUMBERS],
] as const)('%s: both sides at once are to the bit what they are one by one', (_, quick, slow, count) => {
  const run = fc.record({
    from: fc.nat(60),
    frames: fc.integer({ min: 1, max: MAX_STRETCH - 60 }),
    seed: fc.integer({ min: 1, max: 1e6 }),
  });
  fc.assert(
    fc.property(run, ({ from, frames, seed }) => {
      const heard = [quick, slow].map((loop) => {
        const next = random(seed);
        const numbers = [0, 1, 2].map(() => Float64Array.from({ length: count }, () => (next() - 0.5) / 8));
        // Filters that do not move.
        if (count === FILTER_NUMBERS) for (const of of numbers) of.fill(0, FIRST_STEP, HELD);
        const channels = [bus.left, bus.right, bus.send, bus.echo];
        for (const side of channels) for (let i = 0; i < MAX_STRETCH; i++) side[i] = 4 * next() - 2;
        loop(numbers, from, frames);
        return [numbers, ...channels.map((channel) => channel.slice())];
      });
      expect(heard[0]).toEqual(heard[1]);
    }),
  );
});

test('a compressor is the same to the bit, from frame to frame and over many, from silence to the loudest', () => {
  const settings = fc.record({
    threshold: fc.double({ min: -48, max: 0, noNaN: true }),
    ratio: fc.double({ min: 1, max: 20, noNaN: true }),
    knee: fc.constantFrom(0, 6, 24),
    makeUp: fc.double({ min: 0, max: 24, noNaN: true }),
    attack: fc.double({ min: 0, max: 1, noNaN: true }),
    release: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  const runs = fc.array(fc.record({ from: fc.nat(60), frames: fc.integer({ min: 1, max: 40 }), until: fc.integer({ min: 1, max: 4 }), level: fc.constantFrom(0, 1e-12, 1e-4, 0.1, 1, 30) }), { minLength: 1, maxLength: 12 }); // prettier-ignore
  fc.assert(
    fc.property(settings, runs, fc.nat(1e6), (set, stretches, seed) => {
      const heard = [compress, compressSlowly].map((loop) => {
        const next = random(seed + 1);
        const numbers = new Float64Array(10);
        numbers[COMPRESSOR.gain] = 1;
        for (const [name, value] of Object.entries(set)) numbers[COMPRESSOR[name as keyof typeof set]] = value;
        return stretches.map(({ from, frames, until, level }) => {
          for (const side of [bus.left, bus.right]) for (let i = 0; i < 100; i++) side[i] = level * (2 * next() - 1);
          loop(numbers, bus, from, frames, until);
          return [numbers.slice(), bus.left.slice(0, 100), bus.right.slice(0, 100)];
        });
      });
      expect(heard[0]).toEqual(heard[1]);
      expect(heard[0]!.flat().every((of) => of.every(Number.isFinite))).toBe(true);
    }),
  );
});

test('the curve is the step polynomial of the seventh degree: odd, of slope 1, flat from 35/16 on', () => {
  expect(bend(0)).toBe(0);
  expect(bend(1e-6) / 1e-6).toBeCloseTo(1, 9);
  // Half way there: (35/2 - 35/8 + 21/32 - 5/128) / 16.
  expect(bend(35 / 32)).toBeCloseTo(0.85888671875, 12);
  expect([bend(35 / 16), bend(9), bend(-9)]).toEqual([1, 1, -1]);
  for (let x = 0; x < 2.5; x += 0.01) expect(bend(-x) + bend(x)).toBe(0);
});
