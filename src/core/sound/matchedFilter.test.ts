import { setMatched, type Biquad, type MatchedKind } from './matchedFilter';

/** Gain in dB at a frequency, as a share of the sample rate. */
function gainOf({ b0, b1, b2, a1, a2 }: Biquad, turns: number): number {
  const w = 2 * Math.PI * turns;
  const square = (a: number, b: number, c: number) => (a + b * Math.cos(w) + c * Math.cos(2 * w)) ** 2 + (b * Math.sin(w) + c * Math.sin(2 * w)) ** 2; // prettier-ignore
  return 10 * Math.log10(square(b0, b1, b2) / square(1, a1, a2));
}

/** Gain in dB of the analogue model at so many times its cutoff (second-order prototypes; textbook). */
function modelOf(kind: MatchedKind, x: number, q: number): number {
  const top = { low: 1, band: (x / q) ** 2, high: x ** 4 }[kind];
  return 10 * Math.log10(top / ((1 - x * x) ** 2 + (x / q) ** 2));
}

describe.each(['low', 'band', 'high'] as const)('%s', (kind) => {
  test.each([44100, 48000, 96000])(
    'at %d Hz its gain is the model’s within 1 dB up to 16 kHz, wherever it is heard',
    (rate) => {
      for (const cutoff of [300, 1200, 5000, 9000, 14000]) {
        for (const q of [0.5, 0.7, 2]) {
          const filter = { b0: 0, b1: 0, b2: 0, a1: 0, a2: 0 };
          setMatched(filter, kind, cutoff / rate, q);
          for (let hz = 60; hz <= 16000; hz *= 1.1) {
            const model = modelOf(kind, hz / cutoff, q);
            if (model > -20) expect([cutoff, q, hz, Math.abs(gainOf(filter, hz / rate) - model) < 1]).toEqual([cutoff, q, hz, true]); // prettier-ignore
          }
        }
      }
    },
  );
});

test('it is stable at any cutoff and quality factor', () => {
  for (const kind of ['low', 'band', 'high'] as const) {
    for (let cutoff = 1e-4; cutoff < 2; cutoff *= 1.4) {
      for (const q of [0.5, 0.7, 4, 20]) {
        const filter = { b0: 0, b1: 0, b2: 0, a1: 0, a2: 0 };
        setMatched(filter, kind, cutoff, q);
        // The triangle of stability of a second-order section (textbook).
        expect([kind, cutoff, q, Math.abs(filter.a2) < 1 && Math.abs(filter.a1) < 1 + filter.a2]).toEqual([kind, cutoff, q, true]); // prettier-ignore
        expect(Object.values(filter).every(Number.isFinite)).toBe(true);
      }
    }
  }
});
