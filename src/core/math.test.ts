import { decibels, exp2, log2, sinTurns, tanHalfTurns } from './math';

/** JavaScript's own functions are the reference: to some digits they are the same in every engine. */
const points = Array.from({ length: 4001 }, (_, i) => -20 + i / 100);

test('powers, logarithms and sines are those of the platform’s library', () => {
  for (const x of points) {
    expect(Math.abs(exp2(x) / 2 ** x - 1)).toBeLessThan(1e-8);
    expect(Math.abs(log2(2 ** x) - x)).toBeLessThan(1e-8);
    expect(Math.abs(log2(1.7 * 2 ** x) - Math.log2(1.7 * 2 ** x))).toBeLessThan(1e-8);
    expect(Math.abs(sinTurns(x) - Math.sin(2 * Math.PI * x))).toBeLessThan(1e-7);
    expect(Math.abs(decibels(x) / 10 ** (x / 20) - 1)).toBeLessThan(1e-8);
  }
  for (let x = 0.001; x < 0.49; x += 0.001)
    expect(Math.abs(tanHalfTurns(x) / Math.tan(Math.PI * x) - 1)).toBeLessThan(1e-5);
});

test('whole powers are exact, also at the ends of what a logarithm meets', () => {
  for (const power of [-1000, -60, -1, 0, 1, 10, 1000]) expect([exp2(power), log2(2 ** power)]).toEqual([2 ** power, power]); // prettier-ignore
});
