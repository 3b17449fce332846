import { leftSound } from './sampleReader';
import { newTouch } from './touch';
import { BodyVoice } from './bodyVoice';
import { renderCommands } from '../engine/offline';
import { STILL } from '../engine/rig.testing';
import { PAD_KINDS } from '../document/soundKinds';
import { DcBlocker } from './dcBlocker';
import { Limiter, CEILING, LIMITER_LATENCY } from './limiter';
import { decayPerFrame, decibels, exp2, sinTurns, softClip, tanHalfTurns } from '../math';
import { MAX_VOICES, VoicePool } from './voicePool';
import { patchOf } from './patch';
import { at, type Command } from '../protocol/commands';

const SR = 48000;
const pads = STILL.pads;
const padOf = (sound: string) => pads.findIndex((p) => p.sound.kind === sound);

/** One stroke of a pad, both sides. */
function stroke(sound: string, velocity = 1, seconds = 1, more: Command[] = []) {
  const { left, right } = renderCommands(
    [at(0, { type: 'kit', track: 0, kit: STILL }), at(0, { type: 'padDown', track: 0, pad: padOf(sound), velocity, heard: 0, id: 1 }), ...more], // prettier-ignore
    SR,
    SR * seconds,
  );
  return Float64Array.from(left, (l, i) => l + right[i]!);
}

const energy = (x: Float64Array) => x.reduce((sum, v) => sum + v * v, 0);
const peak = (x: Float64Array) => x.reduce((most, v) => Math.max(most, Math.abs(v)), 0);

/** Energy-weighted frequency in Hz, from the ratio of the slope's energy to the signal's (Parseval: a mean of ω²). */
function brightness(x: Float64Array): number {
  let slope = 0;
  for (let i = 1; i < x.length; i++) slope += (x[i]! - x[i - 1]!) ** 2;
  return (Math.acos(1 - slope / energy(x) / 2) * SR) / (2 * Math.PI);
}

/** Ms after which the sound stays 40 dB below its peak. */
function ringMs(x: Float64Array): number {
  const floor = peak(x) / 100;
  for (let i = x.length - 1; i >= 0; i--) if (Math.abs(x[i]!) > floor) return (i / SR) * 1000;
  return 0;
}

describe('elementary functions against the platform’s own', () => {
  const grid = Array.from({ length: 4001 }, (_, i) => (i - 2000) / 321);
  test('sine, power, tangent, decay', () => {
    expect(Math.max(...grid.map((x) => Math.abs(sinTurns(x) - Math.sin(2 * Math.PI * x))))).toBeLessThan(1e-7);
    expect(Math.max(...grid.map((x) => Math.abs(exp2(x) / 2 ** x - 1)))).toBeLessThan(1e-8);
    expect(exp2(10)).toBe(1024);
    expect(tanHalfTurns(0.1)).toBeCloseTo(Math.tan(Math.PI * 0.1), 6);
    expect(decibels(-6)).toBeCloseTo(10 ** (-6 / 20), 8);
    expect(decayPerFrame(0.5, SR) ** (0.5 * SR)).toBeCloseTo(0.001, 6);
  });

  test('the saturation is odd, monotonic and within one', () => {
    const values = grid.map(softClip);
    expect(values.every((y, i) => i === 0 || y >= values[i - 1]!)).toBe(true);
    expect(grid.every((x) => softClip(-x) === -softClip(x) && Math.abs(softClip(x)) <= 1)).toBe(true);
    expect([softClip(1.5), softClip(9)]).toEqual([1, 1]);
    expect(Math.abs(softClip(0.5) - Math.tanh(0.5))).toBeLessThan(0.03);
  });
});

describe('limiter', () => {
  function limit(input: Float64Array) {
    const out = new Float32Array(input.length);
    new Limiter(SR).process(input, input, out, new Float32Array(input.length), 0, input.length);
    return out;
  }

  test('lets pass what is below the ceiling, delayed and otherwise untouched', () => {
    const input = Float64Array.from({ length: 4000 }, (_, i) => Math.fround(0.8 * Math.sin(i / 7)));
    const out = limit(input);
    expect([...out.subarray(LIMITER_LATENCY)]).toEqual([...input.subarray(0, 4000 - LIMITER_LATENCY)]);
  });

  test('holds the ceiling against steps, bursts and single samples', () => {
    const input = Float64Array.from(
      { length: 48000 },
      (_, i) => (i % 977 === 0 ? 6 : 0) + (i > 20000 ? 2.5 * Math.sin(i / 3) : 0.1),
    );
    expect(limit(input).every((y) => Math.abs(y) <= CEILING * (1 + 1e-6))).toBe(true);
  });

  test('comes back to unity', () => {
    const input = new Float64Array(96000).fill(0.5);
    input[100] = 4;
    expect(limit(input)[95999]).toBeCloseTo(0.5, 6);
  });
});

test('the DC blocker takes a constant away and leaves the bass', () => {
  const steady = new Float64Array(SR).fill(0.5);
  new DcBlocker(SR).process(steady, SR);
  expect(Math.abs(steady[SR - 1]!)).toBeLessThan(1e-3);
  const bass = Float64Array.from({ length: SR }, (_, i) => Math.sin((2 * Math.PI * 50 * i) / SR));
  new DcBlocker(SR).process(bass, SR);
  expect(peak(bass.subarray(SR / 2))).toBeGreaterThan(0.98);
});

describe('the kit', () => {
  test.each(PAD_KINDS)(
    '%s: audible at once, without DC, ends, and velocity changes tone as well as loudness',
    (sound) => {
      const loud = stroke(sound, 1, 7);
      const soft = stroke(sound, 0.3, 7);
      expect(peak(loud)).toBeGreaterThan(0.15);
      // Heard within 3 ms of the stroke, the limiter's look-ahead not counted (a shaker swells for longer).
      expect(peak(loud.subarray(LIMITER_LATENCY, LIMITER_LATENCY + 144))).toBeGreaterThan(peak(loud) * 0.02);
      expect(Math.abs(loud.reduce((sum, v) => sum + v, 0) / loud.length)).toBeLessThan(1e-6);
      expect(peak(loud.subarray(SR * 6.9))).toBe(0);
      expect(energy(loud) / energy(soft)).toBeGreaterThan(6);
      // Brought to one loudness, they are still different sounds.
      const [loudest, softest] = [Math.sqrt(energy(loud)), Math.sqrt(energy(soft))];
      expect(energy(loud.map((v, i) => v / loudest - soft[i]! / softest))).toBeGreaterThan(0.03);
    },
  );

  test('each sound lies where its instrument lies (common practice)', () => {
    const hz = Object.fromEntries(PAD_KINDS.map((s) => [s, brightness(stroke(s, 1, 2))]));
    expect(hz.kick).toBeLessThan(700);
    expect(hz.lowTom!).toBeLessThan(hz.midTom!);
    expect(hz.midTom!).toBeLessThan(hz.highTom!);
    for (const metal of ['closedHat', 'pedalHat', 'openHat', 'crash', 'tambourine'])
      expect(hz[metal]).toBeGreaterThan(6000);
    const ms = Object.fromEntries(PAD_KINDS.map((s) => [s, ringMs(stroke(s, 1, 5))]));
    expect(ms.closedHat!).toBeLessThan(150);
    expect(ms.openHat!).toBeGreaterThan(3 * ms.closedHat!);
    expect(ms.crash!).toBeGreaterThan(1200);
    expect(ms.kick).toBeLessThan(700);
  });

  test('no two strokes of a noisy sound are alike, as under hands', () => {
    const { left } = renderCommands(
      [
        at(0, { type: 'padDown', track: 0, pad: 2, velocity: 1, heard: 0, id: 1 }),
        at(SR, { type: 'padDown', track: 0, pad: 2, velocity: 1, heard: 0, id: 2 }),
      ],
      SR,
      SR * 2,
    );
    const differing = left.subarray(63, 5000).filter((x, i) => x !== left[SR + 63 + i]!);
    expect(differing.length).toBeGreaterThan(4000);
  });

  test.each([
    ['closedHat', 'openHat'],
    ['pedalHat', 'openHat'],
    ['openHat', 'closedHat'],
  ])('%s cuts %s off (common practice: the three hats choke each other)', (cutter, cut) => {
    const alone = stroke(cut, 1, 1);
    const choked = stroke(cut, 1, 1, [
      at(800, { type: 'padDown', track: 0, pad: padOf(cutter), velocity: 0.001, heard: 0, id: 2 }),
    ]);
    // A hat falls shut in some 30 ms.
    const after = LIMITER_LATENCY + 800 + 1600;
    const tail = (x: Float64Array) => energy(x.subarray(after, after + 1000));
    expect(tail(choked)).toBeLessThan(tail(alone) / 20);
  });

  test.each(['kick', 'lowTom', 'snare', 'openHat'])('%s: no click when it is struck again or cut', (sound) => {
    // A jump would be far larger than the steepest slope that the sound itself has anywhere.
    const slope = (x: Float64Array, from: number, to: number) => {
      let most = 0;
      for (let i = from; i < to; i++) most = Math.max(most, Math.abs(x[i]! - x[i - 1]!));
      return most;
    };
    const once = stroke(sound, 1, 1);
    const twice = stroke(sound, 1, 1, [
      at(4801, { type: 'padDown', track: 0, pad: padOf(sound), velocity: 1, heard: 0, id: 2 }),
    ]);
    expect(slope(twice, 4800, 6000)).toBeLessThan(1.35 * slope(once, 64, 6000) + 0.02);
  });

  test('sounds of other groups ring on', () => {
    const kick = padOf('kick');
    const ride = stroke('ride', 1, 1);
    const both = stroke('ride', 1, 1, [
      at(6000, { type: 'padDown', track: 0, pad: kick, velocity: 0.0001, heard: 0, id: 2 }),
    ]);
    expect(energy(both.subarray(9000))).toBeGreaterThan(energy(ride.subarray(9000)) * 0.95);
  });
});

describe('whatever the device’s sample rate', () => {
  const strokes = (sound: string, rate: number) => {
    const commands: Command[] = [
      // No two strokes of noise are alike: their mean is what counts.
      ...Array.from({ length: 24 }, (_, i) => at((i * rate) / 4, { type: 'padDown', track: 0, pad: padOf(sound), velocity: 1, heard: 0, id: i + 1 })),
    ]; // prettier-ignore
    const { left, right } = renderCommands(commands, rate, 6 * rate);
    return Float64Array.from(left, (l, i) => l + right[i]!);
  };
  /** Energy below 20 kHz, as a mean over time: what is heard. */
  const heard = (x: Float64Array, rate: number) => {
    const pole = Math.exp((-2 * Math.PI * 12000) / rate);
    let low = 0;
    let sum = 0;
    for (const y of x) {
      low = y * (1 - pole) + low * pole;
      sum += low * low;
    }
    return 10 * Math.log10(sum / rate);
  };

  test.each(['snare', 'clap', 'shaker'])('%s is as loud at 96 and 192 kHz as at 48', (sound) => {
    // What lies above hearing still drives the snare's saturation a little harder (1.8 dB), so live the engine stays at 48 kHz.
    // Noise that is white to half the rate has its power spread over twice the width at twice the rate: 3 dB less in each band.
    const reference = heard(strokes(sound, 48000), 48000);
    for (const rate of [96000, 192000]) expect(Math.abs(heard(strokes(sound, rate), rate) - reference)).toBeLessThan(2);
  });
});

test('a mode above what the rate can hold is silent, and does not fold back down', () => {
  const low = { ratio: 1, level: 1, decay: 0.2 };
  const body = { pitch: 9000, modes: [low, { ...low, ratio: 2.4 }], sweep: 1.4, sweepTime: 0.01 };
  const alone = new BodyVoice(44100);
  const both = new BodyVoice(44100);
  const rendered = (body: BodyVoice) => {
    leftSound.fill(0);
    body.render(leftSound.length);
    return Array.from(leftSound);
  };
  alone.start({ ...body, modes: [low] }, newTouch());
  both.start(body, newTouch());
  for (let stretch = 0; stretch < 40; stretch++) {
    const plain = rendered(alone);
    expect(rendered(both)).toEqual(plain); // 21.6 kHz is above 0.45 of 44.1 kHz
    if (stretch === 0) expect(plain.some((x) => Math.abs(x) > 0.1)).toBe(true);
  }
});

test('64 ringing voices and 32 notes at once: each that gives way fades, none is cut', () => {
  const keys = Float64Array.from({ length: 16 }, (_, pad) => 40 + pad);
  const commands: Command[] = [0, 1, 2, 3, 4, 5].map((track) => at(0, { type: 'notes', track, layout: { voice: 'keys', notes: keys, octave: 0 } })); // prettier-ignore
  for (let i = 0; i < 64; i++) {
    commands.push(at(0, { type: 'padDown', track: i >> 4, pad: i & 15, velocity: 0.3, heard: 0, id: 2 * i + 1 }));
  }
  const notes: Command[] = [];
  for (let i = 0; i < 32; i++) {
    notes.push(at(20000, { type: 'padDown', track: 4 + (i >> 4), pad: i & 15, velocity: 0.001, heard: 0, id: 2 * i + 201 })); // prettier-ignore
  }
  const { left } = renderCommands([...commands, ...notes], SR, SR);
  const step = (from: number, to: number) => {
    let most = 0;
    for (let i = from; i < to; i++) most = Math.max(most, Math.abs(left[i]! - 2 * left[i - 1]! + left[i - 2]!));
    return most;
  };
  // A cut is a jump: its second difference is far above that of the sound itself.
  expect(step(20000, 20400)).toBeLessThan(2 * step(15000, 20000) + 0.01);
});

test('there are never more voices than the limit, and the oldest give way', () => {
  const now = { frame: 0, tick: 0, framesPerTick: 25, playing: false, recording: false };
  const pool = new VoicePool(SR, { now, startFrame: 0, repeatClock: { ...now, playing: true } });
  const crash = patchOf(pads[padOf('crash')]!.sound);
  for (let i = 0; i < 500; i++) {
    pool.trigger(crash, { track: i % 16, pad: i % 16, velocity: 1 }, 0, i);
    expect(pool.voices.filter((v) => v.active && !v.fading).length).toBeLessThanOrEqual(MAX_VOICES);
  }
  expect(pool.ringing).toBeGreaterThan(40);
});
