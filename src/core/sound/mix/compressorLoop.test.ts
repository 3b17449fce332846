import fc from 'fast-check';
import { random } from '../../random';
import { compress, COMPRESSOR, COMPRESSOR_NUMBERS, compressSlowly } from './compressorLoop';
import { MixBus } from './mixBus';

const bus = new MixBus();

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
        const numbers = new Float64Array(COMPRESSOR_NUMBERS);
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
