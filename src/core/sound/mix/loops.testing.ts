import fc from 'fast-check';
import { random } from '../../random';
import { MAX_STRETCH } from '../stretch';
import { MixBus } from './mixBus';

/** What goes over some frames of a bus in place, by numbers of its own. */
export type Loop = (numbers: Float64Array, bus: MixBus, from: number, frames: number) => void;

const bus = new MixBus();
const runs = fc.record({
  from: fc.nat(60),
  frames: fc.integer({ min: 1, max: MAX_STRETCH - 60 }),
  seed: fc.integer({ min: 1, max: 1e6 }),
});

/**
 * Tries whether both leave the same bits, in their numbers and on all of the bus, whatever is on it.
 * @throws Error with the frames for which they do not
 * @param count of the numbers that each has
 * @param prepare puts numbers, which are noise otherwise, into a state that they may have
 */
export function assertSameBits(
  quick: Loop,
  slow: Loop,
  count: number,
  prepare: (numbers: Float64Array) => void = () => undefined,
): void {
  fc.assert(
    fc.property(runs, ({ from, frames, seed }) => {
      const heard = [quick, slow].map((loop) => {
        const next = random(seed);
        const numbers = Float64Array.from({ length: count }, () => (next() - 0.5) / 8);
        prepare(numbers);
        const channels = [bus.left, bus.right, bus.send, bus.echo];
        for (const side of channels) for (let i = 0; i < MAX_STRETCH; i++) side[i] = 4 * next() - 2;
        loop(numbers, bus, from, frames);
        return [numbers, ...channels.map((channel) => channel.slice())];
      });
      return heard[0]!.every((of, a) => of.every((x, i) => Object.is(x, heard[1]![a]![i])));
    }),
  );
}
