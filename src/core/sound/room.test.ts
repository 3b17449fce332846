import { spectrumOf } from '../measure/spectrum';
import { random } from '../random';
import { Room } from './room';

const RATE = 48000;
const BLOCK = 128;

/** What a room answers to what is sent into it. */
function answer(sent: Float64Array, rate = RATE, block = BLOCK) {
  const room = new Room(rate);
  const [left, right] = [new Float64Array(sent.length), new Float64Array(sent.length)];
  for (let at = 0; at < sent.length; at += block) {
    const frames = Math.min(block, sent.length - at);
    room.process(sent.subarray(at, at + frames), left.subarray(at, at + frames), right.subarray(at, at + frames), frames, at); // prettier-ignore
  }
  return { left, right, room };
}

function impulse(seconds = 1, rate = RATE) {
  const sent = new Float64Array(Math.round(seconds * rate));
  sent[0] = 1;
  return sent;
}

const energy = (x: Float64Array) => x.reduce((sum, sample) => sum + sample * sample, 0);
const { left, right } = answer(impulse());

test('the first echoes come after 5 to 15 ms, from both sides', () => {
  for (const side of [left, right]) {
    const first = side.findIndex((sample) => Math.abs(sample) > 1e-3);
    expect(first / RATE).toBeGreaterThan(0.005);
    expect(first / RATE).toBeLessThan(0.015);
  }
});

/** The response between two frequencies, by taking all others away. */
function band(sound: Float64Array, low: number, high: number): Float64Array {
  // A windowed sinc of 20 ms each way.
  const reach = 960;
  const kernel = Float64Array.from({ length: 2 * reach + 1 }, (_, i) => {
    const n = i - reach;
    const sinc = (hz: number) => (n === 0 ? (2 * hz) / RATE : Math.sin((2 * Math.PI * hz * n) / RATE) / (Math.PI * n));
    return (sinc(high) - sinc(low)) * (0.5 + 0.5 * Math.cos((Math.PI * n) / reach));
  });
  return sound.map((_, at) => {
    let sum = 0;
    for (let i = 0, from = at + reach; i < kernel.length; i++, from--) {
      if (from >= 0 && from < sound.length) sum += kernel[i]! * sound[from]!;
    }
    return sum;
  });
}

test.each([
  [500, 0.3, 0.65],
  [1000, 0.3, 0.6],
  [4000, 0.2, 0.45],
])('around %d Hz it falls 60 dB in %d to %d s (ISO 3382-1: Schroeder’s integral, T30)', (hz, least, most) => {
  const heard = band(left.subarray(0, 0.75 * RATE), hz / Math.SQRT2, hz * Math.SQRT2);
  let rest = 0;
  const after = heard.slice();
  for (let i = heard.length - 1; i >= 0; i--) after[i] = rest += heard[i]! ** 2;
  const at = (dB: number) => after.findIndex((e) => 10 * Math.log10(e / after[0]!) < dB);
  const time = (2 * (at(-35) - at(-5))) / RATE;
  expect(time).toBeGreaterThan(least);
  expect(time).toBeLessThan(most);
});

test('by 100 ms its echoes are as dense as noise, and no late one stands out (Abel and Huang 2006, from memory)', () => {
  for (const side of [left, right]) {
    for (const ms of [100, 150, 200]) {
      const part = side.subarray((ms - 10) * 48, (ms + 10) * 48);
      const spread = Math.sqrt(energy(part) / part.length);
      const beyond = part.filter((sample) => Math.abs(sample) > spread).length / part.length;
      // Of Gaussian noise 0.3173 lie beyond one standard deviation.
      expect(beyond / 0.3173).toBeGreaterThan(0.8);
    }
    for (let ms = 50; ms < 400; ms++) {
      const here = energy(side.subarray(ms * 48, (ms + 2) * 48)) / 2;
      const around = (energy(side.subarray((ms - 20) * 48, ms * 48)) + energy(side.subarray((ms + 2) * 48, (ms + 22) * 48))) / 40; // prettier-ignore
      expect(10 * Math.log10(here / around)).toBeLessThan(8);
    }
  }
});

test('its sides have little in common', () => {
  const together = left.reduce((sum, sample, i) => sum + sample * right[i]!, 0);
  expect(Math.abs(together / Math.sqrt(energy(left) * energy(right)))).toBeLessThan(0.3);
});

test('no tone sticks out of it: the late spectrum is even', () => {
  const { power, hzPerBin } = spectrumOf(left.subarray(4800, 4800 + 16384), RATE);
  const part = (low: number, high: number) => power.subarray(Math.round(low / hzPerBin), Math.round(high / hzPerBin));
  for (const hz of [400, 800, 1600, 3200]) {
    const around = part(hz / 1.2, hz * 1.2);
    const mean = around.reduce((sum, bin) => sum + bin, 0) / around.length;
    // Of noise, one bin in a thousand stands 8.4 dB above the mean (exponential distribution).
    expect(10 * Math.log10(Math.max(...around) / mean)).toBeLessThan(12);
  }
});

test('it is the same at any block size, and what is sent together is heard as what is sent apart', () => {
  const next = random(3);
  const sent = Float64Array.from({ length: 3 * RATE }, (_, i) => (i % 40000 < 3000 && i > 700 ? next() - 0.5 : 0));
  const [a, b] = [answer(sent, RATE, 64), answer(sent, RATE, 997)];
  expect(a.left.every((sample, i) => sample === b.left[i])).toBe(true);
  const first = sent.map((sample, i) => (i < 30000 ? sample : 0));
  const rest = sent.map((sample, i) => (i < 30000 ? 0 : sample));
  const [one, other] = [answer(first), answer(rest)];
  expect(Math.max(...a.left.map((sample, i) => Math.abs(sample - one.left[i]! - other.left[i]!)).slice(0, 60000))).toBeLessThan(1e-9); // prettier-ignore
});

test('with nothing sent for long it sleeps, and is as it was at first', () => {
  const { room, left: tail } = answer(impulse(2));
  expect(room.isAsleep).toBe(true);
  expect(tail[2 * RATE - 1]).toBe(0);
});
