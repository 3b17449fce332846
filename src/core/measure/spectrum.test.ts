import { centroidOf, energyBetween, spectrumOf, THIRDS, thirdsOf } from './spectrum';

const RATE = 48000;
const tone = (hz: number, level = 1) => Float32Array.from({ length: 8192 }, (_, i) => level * Math.sin((2 * Math.PI * hz * i) / RATE)); // prettier-ignore
/** A whole number of periods in 8192 frames. */
const HZ = (RATE * 171) / 8192;

test('all bins together are the energy of the sound (Parseval)', () => {
  const sound = Float32Array.from({ length: 8000 }, (_, i) => Math.sin(i * i * 1e-4) * (1 - i / 8000));
  const { power } = spectrumOf(sound, RATE);
  const energy = sound.reduce((sum, sample) => sum + sample * sample, 0);
  expect(power.reduce((sum, bin) => sum + bin, 0) / energy).toBeCloseTo(1, 6);
});

test('a tone lies in its third of an octave, and is its centroid', () => {
  const spectrum = spectrumOf(tone(HZ), RATE);
  const thirds = thirdsOf(spectrum);
  const loudest = thirds.indexOf(Math.max(...thirds));
  // IEC 61260-1, base ten: the third of 1 kHz goes from 891 to 1122 Hz.
  expect(THIRDS[loudest]).toBeCloseTo(1000, 6);
  expect(thirds[loudest]! / energyBetween(spectrum, 20, 20000)).toBeCloseTo(1, 6);
  expect(centroidOf(spectrum)).toBeCloseTo(HZ, 1);
});

test('of two tones the centroid is the mean of their frequencies, weighted by how high they stand', () => {
  const other = (RATE * 1025) / 8192;
  const second = tone(other, 0.5);
  const both = tone(HZ).map((sample, i) => sample + second[i]!);
  expect(centroidOf(spectrumOf(both, RATE))).toBeCloseTo((HZ + 0.5 * other) / 1.5, 0);
  expect(centroidOf(spectrumOf(new Float32Array(64), RATE))).toBe(0);
});
