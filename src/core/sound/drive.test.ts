import { softClip } from '../math';
import { spectrumOf } from '../measure/spectrum';
import { Drive } from './drive';

const RATE = 48000;
const FRAMES = 32768;

/** What is not a harmonic of a driven tone against the tone itself, dB. */
function folded(process: (tone: Float64Array) => void, cycles: number, level: number): number {
  const tone = Float64Array.from(
    { length: 2 * FRAMES },
    (_, i) => level * Math.sin((2 * Math.PI * cycles * i) / FRAMES),
  );
  process(tone);
  const { power } = spectrumOf(tone.subarray(FRAMES), RATE);
  const other = power.reduce((sum, bin, i) => (i % cycles === 0 ? sum : sum + bin), 0);
  return 10 * Math.log10(other / power[cycles]!);
}

const driven = (gain: number) => (tone: Float64Array) => {
  const drive = new Drive();
  drive.start(gain);
  for (let at = 0; at < tone.length; at += 128) drive.process(tone.subarray(at, at + 128), 128);
};

test('a tone at 2.4 kHz, the highest of a bell’s own, driven as bells are, folds more than 80 dB below itself', () => {
  const cycles = 1639; // 2,401 Hz
  expect(folded(driven(1.4), cycles, 1)).toBeLessThan(-80);
  // Saturated plainly and as hot as a kit drives it, much more of it folds.
  const plain = folded((tone) => tone.forEach((x, i) => (tone[i] = softClip(4 * x))), cycles, 1);
  expect(folded(driven(4), cycles, 1)).toBeLessThan(plain - 20);
});

test('what is soft passes as it is, and full scale stays full scale', () => {
  const drive = new Drive();
  drive.start(2);
  const soft = Float64Array.from({ length: 4096 }, (_, i) => 1e-4 * Math.sin((2 * Math.PI * 40 * i) / 4096));
  drive.process(soft, 4096);
  // A gain of two on the way in, none on the way out of a saturation that has reached its end.
  expect(Math.max(...soft.subarray(2048)) / 2e-4).toBeCloseTo(1, 3);
  drive.start(2);
  const full = Float64Array.from({ length: 4096 }, (_, i) => Math.sin((2 * Math.PI * 40 * i) / 4096));
  drive.process(full, 4096);
  expect(Math.max(...full.subarray(2048))).toBeCloseTo(1, 2);
});
