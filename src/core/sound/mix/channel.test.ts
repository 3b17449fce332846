import { MIX_CONTROLS, MIX_RANGES, type MixControl } from '../../document/mix';
import { equaliserDb } from '../../measure/equaliserCurve';
import { random } from '../../random';
import { compressedLevel } from './compressorCurve';
import { largestStep, levelAt, RATE, sine, through, type Sides, type Turn } from './mix.testing';
import { sweepHz } from './sweep';

const SECOND = RATE;
const channelControls = MIX_CONTROLS.filter((control): control is Exclude<MixControl, 'level'> => control !== 'level');
/** dB that a channel adds at a frequency once it has settled. */
const gainAt = (hz: number, ...settings: [Exclude<MixControl, 'level'>, number][]) =>
  levelAt(through(sine(hz, SECOND, 0.1), settings.map(([control, value]): Turn => [0, control, value])).left, hz, SECOND / 2) + 20; // prettier-ignore

/** Response of a filter of R. Bristow-Johnson's Audio EQ Cookbook, dB; formulas from memory. */
function cookbook(kind: 'low' | 'high' | 'bell', f0: number, dB: number, q: number, hz: number): number {
  const A = 10 ** (dB / 40);
  const w = (2 * Math.PI * f0) / RATE;
  const alpha = Math.sin(w) / (2 * q);
  const c = Math.cos(w);
  const s = 2 * Math.sqrt(A) * alpha;
  const [b, a] = {
    bell: [[1 + alpha * A, -2 * c, 1 - alpha * A], [1 + alpha / A, -2 * c, 1 - alpha / A]],
    low: [[A * (A + 1 - (A - 1) * c + s), 2 * A * (A - 1 - (A + 1) * c), A * (A + 1 - (A - 1) * c - s)], [A + 1 + (A - 1) * c + s, -2 * (A - 1 + (A + 1) * c), A + 1 + (A - 1) * c - s]],
    high: [[A * (A + 1 + (A - 1) * c + s), -2 * A * (A - 1 + (A + 1) * c), A * (A + 1 + (A - 1) * c - s)], [A + 1 - (A - 1) * c + s, 2 * (A - 1 - (A + 1) * c), A + 1 - (A - 1) * c - s]],
  }[kind] as [number[], number[]]; // prettier-ignore
  const power = (p: number[]) => {
    const t = (2 * Math.PI * hz) / RATE;
    return (p[0]! + p[1]! * Math.cos(t) + p[2]! * Math.cos(2 * t)) ** 2 + (p[1]! * Math.sin(t) + p[2]! * Math.sin(2 * t)) ** 2; // prettier-ignore
  };
  return 10 * Math.log10(power(b) / power(a));
}

test.each([['bell', 6, 1000, Math.SQRT1_2], ['bell', -12, 250, 4], ['low', 9, 120, Math.SQRT1_2], ['low', -18, 120, Math.SQRT1_2], ['high', 6, 6000, Math.SQRT1_2], ['high', -7.5, 6000, Math.SQRT1_2]] as const)('%s of %d dB: the response of the Audio EQ Cookbook', (kind, dB, f0, q) => {
  for (const hz of [30, 100, 120, 250, 700, 1000, 3000, 6000, 15000]) {
    const settings = kind === 'bell' ? { bell: dB, bellHz: f0, bellQ: q } : { [kind]: dB };
    // The picture, too.
    expect(equaliserDb(settings, hz)).toBeCloseTo(cookbook(kind, f0, dB, q, hz), 6);
    const got = kind === 'bell' ? gainAt(hz, ['bell', dB], ['bellHz', f0], ['bellQ', q]) : gainAt(hz, [kind, dB]);
    expect(Math.abs(got - cookbook(kind, f0, dB, q, hz))).toBeLessThan(0.02);
  }
}); // prettier-ignore

test('check values of the Cookbook: a bell of 6 dB has 6 at its middle, a shelf half of its gain at its own', () => {
  expect(gainAt(1000, ['bell', 6])).toBeCloseTo(6, 2);
  expect(gainAt(120, ['low', 6])).toBeCloseTo(3, 2);
  expect(gainAt(6000, ['high', -6])).toBeCloseTo(-3, 2);
});

test('the filter on one strip: left of its middle a low-pass, right of it a high-pass of 12 dB an octave; in it nothing', () => {
  expect(gainAt(5000, ['filter', 0])).toBeCloseTo(0, 6);
  // Two octaves beyond its edge, of 12 dB each; above, the bilinear transform falls a little faster.
  const low = sweepHz(-0.6)!;
  const high = sweepHz(0.6)!;
  expect(gainAt(4 * low, ['filter', -0.6])).toBeLessThan(-23.5);
  expect(gainAt(4 * low, ['filter', -0.6])).toBeGreaterThan(-26);
  expect(gainAt(high / 4, ['filter', 0.6])).toBeLessThan(-23.5);
  expect(gainAt(high / 4, ['filter', 0.6])).toBeGreaterThan(-25);
  expect(Math.abs(gainAt(low / 8, ['filter', -0.6]))).toBeLessThan(0.2);
  expect(sweepHz(-1)).toBeCloseTo(60, 6);
  expect(sweepHz(1)).toBeCloseTo(10000, 4);
  expect(sweepHz(0)).toBeNull();
});

test('the compressor’s static curve has the values of Giannoulis, Massberg and Reiss (2012), and the sound follows it', () => {
  // Threshold -20 dB, ratio 4, knee 6 dB; computed from their formulas.
  for (const [level, out] of [[-30, -30], [-23, -23], [-20, -20.5625], [-17, -19.25], [-10, -17.5], [0, -15]] as const) {
    expect(compressedLevel(level, -20, 4, 6)).toBeCloseTo(out, 9);
    const constant = new Float64Array(SECOND).fill(10 ** (level / 20));
    const { left } = through({ left: constant, right: constant }, [[0, 'threshold', -20], [0, 'ratio', 4], [0, 'knee', 6]]);
    expect(20 * Math.log10(left[SECOND - 1]!)).toBeCloseTo(out, 3);
  }
}); // prettier-ignore

test('attack and release reach 63 % of the way in their times: a coefficient of exp(-1 / (time x rate))', () => {
  const loud = new Float64Array(2 * SECOND).fill(0.01);
  loud.fill(1, SECOND / 2, SECOND);
  const { left } = through({ left: loud, right: loud }, [[0, 'threshold', -20], [0, 'ratio', 20], [0, 'knee', 0], [0, 'attack', 20], [0, 'release', 200]]); // prettier-ignore
  const reduction = (frame: number) => -20 * Math.log10(left[frame]! / loud[frame]!);
  const full = 19;
  expect(reduction(SECOND / 2 + 0.02 * RATE)).toBeGreaterThan(full * (1 - 1 / Math.E) - 0.3);
  expect(reduction(SECOND / 2 + 0.02 * RATE)).toBeLessThan(full * (1 - 1 / Math.E) + 0.3);
  expect(Math.abs(reduction(SECOND + 0.2 * RATE) - full / Math.E)).toBeLessThan(0.3);
});

test('pan has constant power: with a voice in the middle 0.7071 each, half way 0.9239 and 0.3827, at the end 1 and 0', () => {
  const voice = new Float64Array(4800).fill(Math.SQRT1_2);
  for (const [pan, l, r] of [[0, Math.SQRT1_2, Math.SQRT1_2], [-0.5, 0.92388, 0.382683], [0.5, 0.382683, 0.92388], [-1, 1, 0], [1, 0, 1]] as const) {
    const { left, right } = through({ left: voice, right: voice }, [[0, 'pan', pan]]);
    expect(left[4799]).toBeCloseTo(l, 5);
    expect(right[4799]).toBeCloseTo(r, 5);
  }
}); // prettier-ignore

test('a send is the share of the sum of both sides, after all else', () => {
  const { room, echo } = through(sine(500, 4800, 0.5), [[0, 'room', 0.4], [0, 'echo', 0.25], [0, 'low', -6]]); // prettier-ignore
  expect(levelAt(room, 500, 960)).toBeCloseTo(20 * Math.log10(0.2) + gainAt(500, ['low', -6]), 2);
  expect(levelAt(echo, 500, 960)).toBeCloseTo(20 * Math.log10(0.125) + gainAt(500, ['low', -6]), 2);
});

/** Something like music: a low tone, a high one, and strokes. */
function music(frames: number, seed: number): Sides {
  const chance = random(seed);
  const side = () => {
    let stroke = 0;
    return Float64Array.from({ length: frames }, (_, i) => {
      if (i % 4800 === 0) stroke = 0.6;
      stroke *= 0.9992;
      const silent = i > frames * 0.6 && i < frames * 0.7 ? 0 : 1;
      return silent * (0.3 * Math.sin(i * 0.01) + 0.1 * Math.sin(i * 0.3) + stroke * (chance() - 0.5));
    });
  };
  return { left: side(), right: side() };
}

const anyTurns = (seed: number, frames: number, count: number): Turn[] => {
  const chance = random(seed);
  const turns = Array.from({ length: count }, (): Turn => {
    const control = channelControls[Math.floor(chance() * channelControls.length)]!;
    const { min, max, neutral } = MIX_RANGES[control];
    const value = chance() < 0.3 ? neutral : min + chance() * (max - min);
    return [Math.floor(chance() * frames), control, value];
  });
  return turns.sort(([a], [b]) => a - b);
};

test('whatever is turned, and however it is cut into blocks, the samples are the same, and none of them is lost', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const sound = music(24000, seed);
    const turns = anyTurns(seed * 31, 24000, 40);
    const whole = through(sound, turns);
    for (const block of [1, 7, 100]) {
      const cut = through(sound, turns, block);
      for (const part of ['left', 'right', 'room', 'echo'] as const) {
        const off = cut[part].findIndex((x, i) => x !== whole[part][i]);
        expect([seed, block, part, off]).toEqual([seed, block, part, -1]);
      }
    }
    expect(whole.left.every(Number.isFinite)).toBe(true);
  }
});

test.each(channelControls)('%s jumps, and is swept in 10 ms, without a click: no step beyond 6 dB above the sound’s own', (control) => {
  const { min, max } = MIX_RANGES[control];
  // What is moved must be heard: the bell and the compressor have something to do.
  const heard: Turn[] = [[0, 'bell', 12], [0, 'ratio', 4], [0, 'threshold', -30]];
  const sound = sine(220, SECOND, 0.5);
  for (const turns of [
    Array.from({ length: 20 }, (_, i): Turn => [4000 + 2003 * i, control, i % 2 === 0 ? max : min]),
    Array.from({ length: 480 }, (_, i): Turn => [20000 + i, control, min + ((max - min) * i) / 480]),
  ]) {
    const { left } = through(sound, [...heard, ...turns].sort(([a], [b]) => a - b));
    // At either end of its range it may be loud by itself: the louder of both is the sound's own.
    const own = Math.max(...[min, max].map((value) => largestStep(through(sound, [...heard, [0, control, value]]).left, 4800)), largestStep(sound.left)); // prettier-ignore
    expect(20 * Math.log10(largestStep(left, 3000) / own)).toBeLessThan(6);
  }
}); // prettier-ignore

test('what is neutral changes nothing, to the bit, and does nothing; with nothing in it, it sleeps', () => {
  const sound = music(12000, 5);
  const { left, right, channel } = through(sound, [[100, 'low', 3], [100, 'filter', 0.3], [4000, 'low', 0], [4000, 'filter', 0]]); // prettier-ignore
  expect(left.subarray(6000)).toEqual(sound.left.subarray(6000));
  expect(right.subarray(3000, 4000)).not.toEqual(sound.right.subarray(3000, 4000));
  const neutral = through(sound, channelControls.map((control): Turn => [0, control, MIX_RANGES[control].neutral])); // prettier-ignore
  expect(neutral.left).toEqual(sound.left);
  expect(neutral.channel.isWanted).toBe(false);
  const silent = { left: new Float64Array(3 * SECOND), right: new Float64Array(3 * SECOND) };
  silent.left.set(sound.left);
  const asleep = through(silent, [[0, 'low', 3], [0, 'ratio', 3], [0, 'filter', -0.4]]).channel; // prettier-ignore
  expect(asleep.isAwake).toBe(false);
  expect(channel.isAwake).toBe(true);
});

test('what the compressor folds of a sine of 5 kHz, as quick and strong as it can be, is 60 dB down', () => {
  const settings: Turn[] = [[0, 'threshold', -40], [0, 'ratio', 20], [0, 'attack', 0.1], [0, 'release', 10]]; // prettier-ignore
  const { left } = through(sine(5000, 2 * SECOND, 0.9), settings);
  const tone = levelAt(left, 5000, SECOND);
  // Two channels of one sine have harmonics at multiples of 5 kHz alone: all that lies elsewhere has folded.
  for (let hz = 500; hz < 24000; hz += 500) {
    if (hz % 5000 !== 0) expect([hz, levelAt(left, hz, SECOND) - tone < -60]).toEqual([hz, true]);
  }
});

test('drive at its end: what a sine of 5 kHz folds to where anybody hears it, below 20 kHz, is 60 dB down', () => {
  const { left } = through(sine(5000, SECOND, 1), [[0, 'drive', 1]]);
  const tone = levelAt(left, 5000, SECOND / 2);
  for (let hz = 500; hz < 20000; hz += 500) {
    if (hz % 5000 !== 0) expect([hz, levelAt(left, hz, SECOND / 2) - tone < -60]).toEqual([hz, true]);
  }
  // It is driven: the third harmonic of a square is a third of the tone, -9.54 dB.
  expect(levelAt(left, 15000, SECOND / 2) - tone).toBeGreaterThan(-16);
});

test('the more drive, the more harmonics, odd ones alone; what peaks at -12 dBFS keeps its peak; as it begins nothing is bent', () => {
  const driven = [0.001, 0.25, 0.5, 0.75, 1].map((drive) => through(sine(500, SECOND, 0.25), [[0, 'drive', drive]]).left); // prettier-ignore
  const third = driven.map((left) => levelAt(left, 1500, SECOND / 2) - levelAt(left, 500, SECOND / 2));
  expect(third[0]!).toBeLessThan(-70);
  for (let i = 1; i < third.length; i++) expect(third[i]!).toBeGreaterThan(third[i - 1]! + 3);
  for (const left of driven) {
    const peak = left.subarray(SECOND / 2).reduce((most, x) => Math.max(most, x), 0);
    expect(20 * Math.log10(peak / 0.25)).toBeGreaterThan(-0.5);
    expect(20 * Math.log10(peak / 0.25)).toBeLessThan(0.5);
    expect(levelAt(left, 1000, SECOND / 2)).toBeLessThan(-120);
  }
  for (const hz of [50, 1000, 10000, 18000]) expect(Math.abs(gainAt(hz, ['drive', 0.001]))).toBeLessThan(0.1);
});
