import { findOnsets, sensitiveTo } from '@/core/slice/onsets';
import { fMeasure, knownLoop } from '@/core/slice/loops.testing';
import { SAMPLE_RATE } from '@/core/sample/levels';
import { stretched } from './stretch';

const rms = (x: Float32Array) => Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length);
/** How much of a sound is a sine of this frequency, 0..1, a tenth of a second at a time (a Fourier sum, textbook). */
function shareOf(x: Float32Array, hz: number): number {
  const shares = Array.from({ length: Math.floor(x.length / 4800) }, (_, k) => {
    const part = x.subarray(k * 4800, (k + 1) * 4800);
    let [re, im] = [0, 0];
    part.forEach((v, i) => {
      re += v * Math.cos((2 * Math.PI * hz * i) / SAMPLE_RATE);
      im += v * Math.sin((2 * Math.PI * hz * i) / SAMPLE_RATE);
    });
    return (2 * (re * re + im * im)) / 4800 ** 2 / rms(part) ** 2;
  });
  return shares.reduce((sum, v) => sum + v, 0) / shares.length;
}

test.each([0.5, 0.8, 1.37, 2])(
  '%s times as long, a sine keeps its pitch and level, each channel its own',
  async (times) => {
    const sine = (hz: number, level: number) => Float32Array.from({ length: 96000 }, (_, i) => level * Math.sin((2 * Math.PI * hz * i) / SAMPLE_RATE)); // prettier-ignore
    const frames = Math.round(96000 * times);
    const { channels } = await stretched({ channels: [sine(440, 0.5), sine(2500, 0.1)] }, frames);
    expect(channels.map(({ length }) => length)).toEqual([frames, frames]);
    const [left, right] = channels.map((channel) => channel.subarray(9600, frames - 9600));
    expect(shareOf(left!, 440)).toBeGreaterThan(0.97);
    expect(shareOf(right!, 2500)).toBeGreaterThan(0.97);
    expect(rms(left!)).toBeCloseTo(0.5 * Math.SQRT1_2, 1);
    expect(rms(right!)).toBeCloseTo(0.1 * Math.SQRT1_2, 1);
  },
);

test('the strokes of a loop at 96 BPM are where they are at 120', async () => {
  const { audio, onsets } = knownLoop(1, 96);
  const frames = Math.round((audio.channels[0]!.length * 96) / 120);
  const found = sensitiveTo(findOnsets(await stretched(audio, frames), SAMPLE_RATE), 0.5).map(({ frame }) => frame);
  const wanted = onsets.map((frame) => (frame * 96) / 120);
  // Within what the tolerance of onset evaluation is.
  expect(fMeasure(found, wanted, 25)).toBeGreaterThan(0.9);
});
