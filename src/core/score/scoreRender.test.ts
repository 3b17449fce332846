import { spawnSync } from 'node:child_process';
import { renderCommands, type Stereo } from '../engine/offline';
import { randomDeeds } from '../engine/performances.testing';
import { WavSamples, WAV_FORMATS } from '../formats/wav';
import { LoudnessMeter } from '../measure/loudness';
import { at } from '../protocol/commands';
import { SHIPPED_KITS } from '../shelf/shippedKits';
import { ticksPerBar } from '../time/ticks';
import { ebur128, wavFile } from './ffmpeg.testing';
import { readScore } from './readScore';
import { stretchFrames, type ScoreSound } from './scoreRender';
import type { Score } from './score';
import { copied, loudest, performed, play, rendered, SR } from './score.testing';

/** A few bars of the demo with hands on it, a fade of one track and another tempo. */
function someScore(seed: number, seconds = 6): Score {
  const hands = randomDeeds(seed, 1000, (seconds - 1) * SR, 30).filter(({ type }) =>
    ['padDown', 'turn', 'launch'].includes(type),
  );
  const run = performed(
    [play(1000), ...hands, at(2 * SR, { type: 'trackLevel', track: 1, level: 0.3 }), at(3 * SR, { type: 'tempo', bpm: 126 })].sort((a, b) => a.frame - b.frame),
    seconds * SR,
  ); // prettier-ignore
  return readScore(copied(run), run);
}

/** All of it, if nothing else is said. */
function renderedFrom(score: Score, sound: ScoreSound, stretch = { from: 0, to: score.length }): Stereo {
  const audio = rendered(score, stretch, sound);
  expect(audio.left.length).toBe(stretchFrames(score, stretch, SR) + sound.tail);
  return audio;
}

/** The whole of it, or what begins in its second bar, where much rings on. */
test.each([0, 1])(
  'stems add up to the mix before the limiter, within -120 dB, from bar %d on',
  (bar) => {
    for (const seed of [1, 2]) {
      const score = someScore(seed);
      const stretch = { from: bar * ticksPerBar(score.meter), to: score.length };
      const mix = renderedFrom(score, { track: null, limited: false, tail: 4 * SR }, stretch);
      const sum = mix.left.map(() => 0);
      for (const { id } of score.tracks) {
        const stem = renderedFrom(score, { track: id, limited: false, tail: 4 * SR }, stretch);
        stem.left.forEach((x, i) => (sum[i]! += x));
      }
      let worst = 0;
      mix.left.forEach((x, i) => (worst = Math.max(worst, Math.abs(x - sum[i]!))));
      expect({ seed, below: worst < 1e-6 }).toEqual({ seed, below: true });
      expect(Math.max(...mix.left.subarray(0, SR).map(Math.abs))).toBeGreaterThan(0.05);
    }
  },
  60_000,
);

test('a stretch begins and ends on its samples, whatever rings into it; what rings on follows, and nothing that is struck after it', () => {
  const score = someScore(4);
  const bar = ticksPerBar(score.meter);
  const whole = renderedFrom(score, { track: null, limited: true, tail: 0 });
  const stretch = { from: bar, to: 2 * bar };
  const part = renderedFrom(score, { track: null, limited: true, tail: 0 }, stretch);
  const start = stretchFrames(score, { from: 0, to: bar }, SR);
  let worst = 0;
  part.left.forEach((x, i) => (worst = Math.max(worst, Math.abs(x - whole.left[start + i]!))));
  expect({ worst }).toEqual({ worst: 0 });
  const tail = renderedFrom(score, { track: null, limited: true, tail: 4 * SR }, stretch);
  expect(tail.left.length).toBe(part.left.length + 4 * SR);
  expect(part.left.findIndex((x, i) => x !== tail.left[i])).toBe(-1);
  expect(loudest(tail.left.subarray(part.left.length))).toBeGreaterThan(0.01);
  // The whole goes on there with what is struck in its third bar.
  expect(loudest(whole.left.subarray(start + part.left.length + SR))).toBeGreaterThan(0.1);
  expect(loudest(tail.left.subarray(part.left.length + SR))).toBeLessThan(0.03);
}, 60_000);

test('loudness and true peak of three runs are those of ffmpeg’s ebur128, within 0.1 LU and 0.4 dB', () => {
  for (const seed of [5, 6, 7]) {
    const audio = renderedFrom(someScore(seed), { track: null, limited: true, tail: 4 * SR });
    const meter = new LoudnessMeter(SR);
    meter.add(audio.left, audio.right);
    const file = wavFile(audio, 'float32', SR);
    const filter = 'ebur128=metadata=1:peak=true,ametadata=mode=print:key=lavfi.r128.I:file=-';
    const { stdout, stderr } = spawnSync('ffmpeg', ['-nostats', '-i', file, '-af', filter, '-f', 'null', '-'], { encoding: 'utf8' }); // prettier-ignore
    const integrated = Number(/lavfi\.r128\.I=(-?[\d.]+)\s*$/.exec(stdout)![1]);
    const found = (label: string) => Number(new RegExp(`${label}:\\s+(-?[\\d.]+)`, 'g').exec(stderr.slice(stderr.lastIndexOf('Summary')))![1]); // prettier-ignore
    expect(Math.abs(meter.result.integrated - integrated)).toBeLessThanOrEqual(0.1);
    expect(Math.abs(meter.result.truePeak - found('Peak'))).toBeLessThanOrEqual(0.4);
  }
}, 60_000);

test('all pads of four tracks at once, of any kit, leave at -1 dBTP at most (ffmpeg’s ebur128)', () => {
  const renders = SHIPPED_KITS.map(({ kit }) => {
    const strokes = Array.from({ length: 128 }, (_, i) => at(i < 64 ? 0 : SR / 4, { type: 'padDown', track: i % 4, pad: (i >> 2) % 16, velocity: 1, heard: 0, id: i + 1 })); // prettier-ignore
    const tracks = [0, 1, 2, 3].flatMap((track) => [at(0, { type: 'kit', track, kit: kit! }), at(0, { type: 'trackLevel', track, level: 1 })]); // prettier-ignore
    return renderCommands([...tracks, ...strokes], SR, SR);
  });
  const joined = (side: 'left' | 'right') => Float32Array.from(renders.flatMap((render) => [...render[side]]));
  const file = wavFile({ left: joined('left'), right: joined('right') }, 'float32', SR);
  const { peak } = ebur128(file);
  expect(peak).toBeLessThanOrEqual(-1);
  expect(peak).toBeGreaterThan(-2);
}, 60_000);

test.each(WAV_FORMATS)('ffmpeg reads a file of %s as the samples that were written', (format) => {
  const audio = renderedFrom(someScore(8, 3), { track: null, limited: true, tail: 0 });
  const { stdout } = spawnSync('ffmpeg', ['-v', 'error', '-i', wavFile(audio, format, SR), '-f', 'f32le', '-'], { maxBuffer: 1e9 }); // prettier-ignore
  const read = new Float32Array(stdout.buffer.slice(stdout.byteOffset, stdout.byteOffset + stdout.length));
  expect(read.length).toBe(2 * audio.left.length);
  const step = format === 'pcm16' ? 2.5 / 32768 : format === 'pcm24' ? 1 / 8388608 : 0;
  let worst = 0;
  audio.left.forEach((x, i) => (worst = Math.max(worst, Math.abs(x - read[2 * i]!))));
  expect(worst).toBeLessThanOrEqual(step + 1 / 8388608);
});

test('dither keeps what is softer than a step of 16 bits audible: its mean is what was written', () => {
  const level = 0.3 / 32767;
  const audio = { left: new Float32Array(48000).fill(level), right: new Float32Array(48000).fill(level) };
  const samples = new Int16Array(new WavSamples('pcm16').bytes(audio).buffer);
  const mean = samples.reduce((sum, x) => sum + x, 0) / samples.length;
  expect(mean).toBeCloseTo(0.3, 1);
});
