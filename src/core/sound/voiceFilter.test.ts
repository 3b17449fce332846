import { tanHalfTurns } from '../math';
import { random } from '../random';
import { VoiceFilter } from './voiceFilter';

const RATE = 48000;
const KINDS = ['low', 'band', 'high'] as const;

/** A filter's gain for a sine, in dB, once it has settled. */
function gain(kind: (typeof KINDS)[number], q: number, cutoff: number, hz: number): number {
  const filter = new VoiceFilter();
  filter.start(kind, q);
  filter.tune(cutoff / RATE);
  const samples = Float64Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE));
  filter.process(samples, 0, RATE);
  const settled = samples.subarray(RATE / 2);
  return 10 * Math.log10((2 * settled.reduce((sum, x) => sum + x * x, 0)) / settled.length);
}

test('gains are those of the analog second-order filters at the frequency that the bilinear transform makes of it (textbook)', () => {
  for (const q of [0.707, 4]) {
    for (const [cutoff, hz] of [
      [1000, 100],
      [1000, 1000],
      [1000, 5000],
      [6000, 9000],
    ] as const) {
      // prettier-ignore
      const ratio = Math.tan((Math.PI * hz) / RATE) / Math.tan((Math.PI * cutoff) / RATE);
      const below = Math.hypot(1 - ratio * ratio, ratio / q);
      const analog = { low: 1 / below, band: ratio / q / below, high: (ratio * ratio) / below };
      for (const kind of KINDS) {
        expect([kind, q, hz, gain(kind, q, cutoff, hz)]).toEqual([kind, q, hz, expect.closeTo(20 * Math.log10(analog[kind]), 2)]); // prettier-ignore
      }
    }
  }
});

test('while the cutoff moves it is the trapezoidal filter step by step (Zavalishin, The Art of VA Filter Design, 2012, 4.5)', () => {
  for (const kind of KINDS) {
    const q = 3;
    const filter = new VoiceFilter();
    filter.start(kind, q);
    const chance = random(7);
    const [input, blocks] = [Float64Array.from({ length: 4096 }, () => chance() - 0.5), 32];
    const output = input.slice();
    const [damping, expected] = [1 / q, new Float64Array(input.length)];
    let [band, low] = [0, 0];
    for (let from = 0; from < input.length; from += blocks) {
      const cutoff = 0.002 + 0.4 * chance();
      filter.tune(cutoff);
      filter.process(output, from, blocks);
      const g = tanHalfTurns(cutoff);
      for (let i = from; i < from + blocks; i++) {
        const high = (input[i]! - low - (damping + g) * band) / (1 + g * (g + damping));
        const b = band + g * high;
        const l = low + g * b;
        expected[i] = { low: l, band: damping * b, high }[kind];
        [band, low] = [b + g * high, l + g * b];
      }
    }
    const apart = output.reduce((most, x, i) => Math.max(most, Math.abs(x - expected[i]!)), 0);
    expect(apart).toBeLessThan(1e-10);
  }
});
