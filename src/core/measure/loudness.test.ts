import { LoudnessMeter } from './loudness';

const SR = 48000;

/** A sine on both channels, or on the left alone; level in dBFS of its peak. */
function sine(hz: number, seconds: number, dB: number, phase = 0): Float32Array {
  const gain = Math.pow(10, dB / 20);
  return Float32Array.from({ length: Math.round(seconds * SR) }, (_, i) => gain * Math.sin(2 * Math.PI * (hz * i) / SR + phase)); // prettier-ignore
}

function measured(...pieces: readonly (readonly [Float32Array, Float32Array])[]) {
  const meter = new LoudnessMeter(SR);
  for (const [left, right] of pieces) {
    // In pieces of uneven length, as a renderer gives them.
    for (let at = 0; at < left.length; at += 5077)
      meter.add(left.subarray(at, at + 5077), right.subarray(at, at + 5077));
  }
  return meter.result;
}

const both = (samples: Float32Array) => [samples, samples] as const;

test('a sine of 997 Hz at full scale: -3.01 LUFS in one channel, 0 in both (ITU-R BS.1770-4, from memory)', () => {
  const tone = sine(997, 5, 0);
  expect(measured([tone, new Float32Array(tone.length)]).integrated).toBeCloseTo(-3.01, 1);
  expect(measured(both(tone)).integrated).toBeCloseTo(0, 1);
});

test.each([-23, -33])('stereo sine of 1 kHz at %d dBFS for 20 s: the same in LUFS, within 0.1 (EBU Tech 3341, from memory)', (level) => {
  expect(Math.abs(measured(both(sine(1000, 20, level))).integrated - level)).toBeLessThanOrEqual(0.1);
}); // prettier-ignore

test('10 s at -36, 60 s at -23, 10 s at -36 dBFS: -23 LUFS, since the gate leaves the soft parts out (EBU Tech 3341, from memory)', () => {
  const loudness = measured(both(sine(1000, 10, -36)), both(sine(1000, 60, -23)), both(sine(1000, 10, -36)));
  expect(Math.abs(loudness.integrated + 23)).toBeLessThanOrEqual(0.1);
});

test('20 s at -20 and 20 s at -30 dBFS: a range of 10 LU, within 1 (EBU Tech 3342, from memory)', () => {
  expect(Math.abs(measured(both(sine(1000, 20, -20)), both(sine(1000, 20, -30))).range - 10)).toBeLessThanOrEqual(1);
});

test.each([
  // Gains of the weighting against 997 Hz, whose own is 0.691 dB: BS.1770-4, from memory.
  [100, -1.133],
  [2000, 3.071],
  [10000, 4.042],
])('%d Hz is weighted by %d dB', (hz, gain) => {
  expect(measured(both(sine(hz, 5, -20))).integrated).toBeCloseTo(-20 + gain - 0.691, 1);
});

test('a sine at a quarter of the rate, 45 degrees off its samples, has a true peak of 0 dBTP (BS.1770-4, Annex 2, from memory)', () => {
  const { truePeak } = measured(both(sine(SR / 4, 1, 0, Math.PI / 4)));
  expect(Math.abs(truePeak)).toBeLessThan(0.4);
});

test('silence has no loudness, and does not fail', () => {
  expect(measured(both(new Float32Array(SR)))).toMatchObject({ integrated: -Infinity, range: 0, truePeak: -Infinity });
});
