import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { exp2 } from '../math';
import { levelFor, prepareSample, SAMPLE_RATE, type SampleAudio } from '../sample/levels';
import { random } from '../random';
import type { SamplePatch } from './patch';
import { leftSound, rightSound } from './sampleReader';
import { SampleVoice } from './sampleVoice';
import { newTouch, type Touch } from './touch';

const WHOLE: SamplePatch = { id: 'x', start: 0, end: 1, reverse: false, looped: false };

/** A sample as it is played, at full velocity, in blocks of these sizes. */
function played(
  audio: SampleAudio,
  frames: number,
  patch: Partial<SamplePatch> = {},
  touch: Partial<Touch> = {},
  rate = SAMPLE_RATE,
  blocks = [128],
) {
  const voice = new SampleVoice(rate);
  voice.start(prepareSample({ id: 'x', ...audio }), { ...WHOLE, ...patch }, { ...newTouch(), ...touch });
  const [left, right] = [new Float64Array(frames), new Float64Array(frames)];
  for (let done = 0, i = 0; done < frames && voice.sounding; i++) {
    const block = Math.min(blocks[i % blocks.length]!, frames - done);
    voice.render(block);
    left.set(leftSound.subarray(0, block), done);
    if (voice.isStereo) right.set(rightSound.subarray(0, block), done);
    done += block;
  }
  return { left, right, sounding: voice.sounding };
}

const sine = (hz: number, frames: number) =>
  Float32Array.from({ length: frames }, (_, i) => 0.5 * Math.sin((2 * Math.PI * hz * i) / SAMPLE_RATE));
const noise = (frames: number, seed = 1) => {
  const chance = random(seed);
  return Float32Array.from({ length: frames }, () => chance() - 0.5);
};
const bytesOf = (x: Float64Array) => Buffer.from(x.buffer).toString('base64');
const dB = (ratio: number) => 10 * Math.log10(ratio + 1e-30);
const power = (x: ArrayLike<number>) => Array.from(x).reduce((sum, v) => sum + v * v, 0) / x.length;

/** The same sample faster by a ratio, as SoX makes it at its very high quality. */
function bySox(samples: Float32Array, ratio: number): Float32Array {
  const folder = mkdtempSync(path.join(tmpdir(), 'chaffinch-'));
  const [from, to] = [path.join(folder, 'in.f32'), path.join(folder, 'out.f32')];
  writeFileSync(from, Buffer.from(samples.buffer));
  const raw = ['-t', 'raw', '-e', 'floating-point', '-b', '32', '-c', '1', '-r', String(SAMPLE_RATE)];
  // -R: the same dither every time; -D: none at all.
  execFileSync('/usr/bin/sox', ['-D', ...raw, from, ...raw, to, 'speed', String(ratio), 'rate', '-v', String(SAMPLE_RATE)]); // prettier-ignore
  const bytes = readFileSync(to);
  rmSync(folder, { recursive: true });
  return new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4);
}

// Bars and pitches from the design's check values ("Playing samples faster and slower"): SoX (sox(1), effects `speed` and `rate -v`).
const SEMITONES = [-12, -5, 3, 7, 12];

test.each(SEMITONES)('%d semitones: sines of 1 and 10 kHz are what SoX makes of them, 80 dB down', (semitones) => {
  const ratio = exp2(semitones / 12);
  for (const hz of [1000, 10000]) {
    if (hz * ratio > 0.4 * SAMPLE_RATE) continue;
    const sample = sine(hz, 24000);
    const [ours, theirs] = [played({ channels: [sample] }, Math.floor(24000 / ratio), {}, { pitch: ratio }).left, bySox(sample, ratio)]; // prettier-ignore
    // Both begin and end abruptly, each in its own way: the middle is compared.
    const [from, to] = [3000, Math.floor(24000 / ratio) - 3000];
    const difference = ours.subarray(from, to).map((v, i) => v - theirs[from + i]!);
    expect([hz, dB(power(difference) / power(theirs.subarray(from, to)))]).toEqual([hz, expect.any(Number)]);
    expect(dB(power(difference) / power(theirs.subarray(from, to)))).toBeLessThan(-80);
  }
});

test.each([3, 7, 12])('%d semitones up, what would lie above half the rate is 80 dB down', (semitones) => {
  const ratio = exp2(semitones / 12);
  for (const hz of [24500 / ratio, 26000 / ratio, 23000].filter((one) => one * ratio > 24000 && one < 24000)) {
    const { left } = played({ channels: [sine(hz, 24000)] }, Math.floor(24000 / ratio), {}, { pitch: ratio });
    expect(dB(power(left.subarray(2000, 8000)) / 0.125)).toBeLessThan(-80);
  }
});

test('each half octave up reads a level of its own, and what is read of it is the same at any block size', () => {
  expect([0.5, 1, 1.1, 1.42, 2, 2.9, 4.1, 6, 30].map((ratio) => levelFor(ratio, 7))).toEqual([0, 0, 1, 2, 3, 4, 5, 6, 6]); // prettier-ignore
  const audio = { channels: [noise(9000), noise(9000, 2)] };
  for (const ratio of [0.73, 1, 1.3, 2.6, 5.9]) {
    for (const looped of [false, true]) {
      const touch = { pitch: ratio, longer: 0.6, hold: 0.01 };
      const [a, b] = [[128], [1, 100, 64, 31]].map((blocks) => played(audio, 12000, { start: 0.1, end: 0.9, looped }, touch, 44100, blocks)); // prettier-ignore
      expect([a!.left, a!.right].map(bytesOf)).toEqual([b!.left, b!.right].map(bytesOf));
      expect(a!.sounding).toBe(looped);
    }
  }
});

test('at its own pitch and rate it is the recording itself, to the bit; backwards from its end', () => {
  const audio = { channels: [noise(3000), noise(3000, 2)] };
  const { left, right, sounding } = played(audio, 3200);
  expect([Array.from(left.subarray(0, 3000)), sounding]).toEqual([Array.from(audio.channels[0]!), false]);
  expect(Array.from(right.subarray(0, 3000))).toEqual(Array.from(audio.channels[1]!));
  expect(Array.from(left.subarray(3000))).toEqual(new Array(200).fill(0));
  const back = played(audio, 3000, { reverse: true }).left;
  expect(Array.from(back)).toEqual(Array.from(audio.channels[0]!).reverse());
});

test('two parts that meet are what they were as one; a part begins and ends without a step', () => {
  const audio = { channels: [Float32Array.from(noise(10000), (v, i) => v * 0.1 + 0.4 * Math.sin(i / 50))] };
  const [first, second, rest] = [[0, 0.37], [0.37, 0.8], [0.8, 1]].map(([start, end]) => played(audio, 10000, { start: start!, end: end! }).left); // prettier-ignore
  const sum = Float64Array.from({ length: 10000 }, (_, i) => first![i]! + (second![i - 3700] ?? 0) + (rest![i - 8000] ?? 0)); // prettier-ignore
  expect(Math.max(...sum.map((v, i) => Math.abs(v - audio.channels[0]![i]!)))).toBeLessThan(1e-9);
  expect(Math.abs(second![0]!)).toBeLessThan(1e-9);
});

test('it can begin later or sooner than its stretch does, and something of it is always left', () => {
  const audio = { channels: [Float32Array.from({ length: 10000 }, (_, i) => i / 10000)] };
  const begin = (later: number, reverse = false) => {
    const voice = new SampleVoice(SAMPLE_RATE);
    voice.start(prepareSample({ id: 'x', ...audio }), { ...WHOLE, start: 0.2, end: 0.8, reverse }, newTouch(), later);
    voice.render(128);
    // Behind the edge that it comes in over.
    return (leftSound[64]! * 10000 - (reverse ? -64 : 64)) / 10000;
  };
  const thousandths = (...values: number[]) => values.map((v) => Math.round(v * 1000) + 0);
  expect(thousandths(begin(0), begin(0.3), begin(-0.1), begin(-0.2))).toEqual([200, 500, 100, 0]);
  expect(thousandths(begin(0, true), begin(0.3, true))).toEqual([800, 500]);
  const voice = new SampleVoice(SAMPLE_RATE);
  for (const reverse of [false, true]) {
    voice.start(prepareSample({ id: 'x', ...audio }), { ...WHOLE, start: 0.2, end: 0.8, reverse }, newTouch(), 1);
    expect(voice.sounding).toBe(true);
    voice.render(128);
    expect(voice.sounding).toBe(false);
  }
});

test('it decays: half as long is 60 dB down at its half; held, it is not softer before', () => {
  const audio = { channels: [new Float32Array(48000).fill(0.5)] };
  const at = (touch: Partial<Touch>, frame: number) => played(audio, 48000, {}, touch).left[frame]! / 0.5;
  expect(20 * Math.log10(at({ longer: 0.5 }, 24000))).toBeCloseTo(-60 * 0.5, 1);
  expect(20 * Math.log10(at({ longer: 1 / 3 }, 24000))).toBeCloseTo(-60, 1);
  expect(at({ longer: 1 }, 47000)).toBeCloseTo(1, 9);
  expect(at({ longer: 1 / 3, hold: 0.25 }, 11990)).toBeCloseTo(1, 9);
});

test('round and round: the join is no step, forwards and backwards', () => {
  // A tone whose round does not fit the stretch: without a passage it would jump by up to twice its height.
  const audio = { channels: [sine(441, 9000)] };
  for (const reverse of [false, true]) {
    const { left, sounding } = played(audio, 40000, { start: 0.21, end: 0.77, looped: true, reverse });
    expect(sounding).toBe(true);
    const steps = Array.from(left.subarray(100)).map((v, i, all) => Math.abs(v - (all[i - 1] ?? v)));
    const own = (0.5 * 2 * Math.PI * 441) / SAMPLE_RATE;
    expect(Math.max(...steps)).toBeLessThan(1.6 * own);
    expect(power(left.subarray(30000))).toBeGreaterThan(0.06);
  }
});
