import { filter, filter1, filter3, FILTER_NUMBERS, FIRST_STEP, HELD, isQuick } from './filterLoops';
import { assertSameBits, type Loop } from './loops.testing';

/** None of the filters, whose numbers follow each other, moves. */
function still(numbers: Float64Array): void {
  for (let at = 0; at < numbers.length; at += FILTER_NUMBERS) numbers.fill(0, at + FIRST_STEP, at + HELD);
}
const filterOf = (numbers: Float64Array, place: number) =>
  numbers.subarray(place * FILTER_NUMBERS, (place + 1) * FILTER_NUMBERS);

test('this Node filters side by side', () => expect(isQuick).toBe(true));

test('one filter: both sides at once are to the bit what they are one by one', () =>
  assertSameBits(filter1, filter, FILTER_NUMBERS, still));

test('three filters side by side are to the bit what they are one after the other', () => {
  const beside: Loop = (numbers, ...where) =>
    filter3(filterOf(numbers, 0), filterOf(numbers, 1), filterOf(numbers, 2), ...where);
  const oneByOne: Loop = (numbers, ...where) => {
    for (let place = 0; place < 3; place++) filter(filterOf(numbers, place), ...where);
  };
  assertSameBits(beside, oneByOne, 3 * FILTER_NUMBERS, still);
});
