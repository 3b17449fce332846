import { ECHO_TIMES } from '../../document/mix';
import { random } from '../../random';
import { framesPerTick } from '../../time/ticks';
import { MAX_STRETCH } from '../stretch';
import { Echo, type EchoSetting } from './echo';
import { largestStep, levelAt, RATE, sine } from './mix.testing';

type Turn = [frame: number, setting: EchoSetting | 'time' | 'tape', value: number];

/** What comes back of a sound that is sent. @param block frames at once */
function echoed(sent: Float64Array, turns: readonly Turn[], block = MAX_STRETCH) {
  const echo = new Echo(RATE);
  const left = sent.map(() => 0);
  const right = sent.map(() => 0);
  const waiting = [...turns];
  for (let at = 0; at < sent.length;) {
    for (; waiting.length > 0 && waiting[0]![0] <= at; waiting.shift()) {
      const [, setting, value] = waiting[0]!;
      if (setting === 'time') echo.setTime(value);
      else if (setting === 'tape') echo.setTape(value > 0.5);
      else echo.set(setting, value);
    }
    const end = Math.min(at + block, sent.length, waiting[0]?.[0] ?? Infinity);
    echo.process(sent.subarray(at, end), left.subarray(at, end), right.subarray(at, end), end - at, at);
    at = end;
  }
  return { left, right, echo };
}

const click = (frames: number) => {
  const sent = new Float64Array(frames);
  sent[0] = 1;
  return sent;
};

test.each([['1/8', 112, 267.857], ['1/8 dotted', 112, 401.786], ['1/16', 112, 133.929], ['1/8', 125, 240], ['1/8 triplet', 120, 166.6667], ['1/4', 120, 500]] as const)('%s at %d BPM comes after %d ms (60000 / BPM times the value), then at two and three times that', (time, bpm, ms) => {
  const frames = Math.round((ms * RATE) / 1000);
  const { left, right } = echoed(click(4 * frames), [[0, 'time', ECHO_TIMES[time] * framesPerTick(bpm, RATE)], [0, 'width', 1], [0, 'feedback', 0.5], [0, 'tone', 1]]);
  const peaks = [left, right, left].map((side, n) => {
    const from = (n + 1) * frames - 100;
    const part = side.subarray(from, from + 200).map(Math.abs);
    return from + part.indexOf(Math.max(...part));
  });
  peaks.forEach((peak, n) => expect(Math.abs(peak - ((n + 1) * ms * RATE) / 1000)).toBeLessThanOrEqual(n + 1));
}); // prettier-ignore

test('each echo is softer than the one before by the feedback, and lies on the other side; in the middle both sides are the same', () => {
  const frames = 9600;
  const burst = new Float64Array(6 * frames);
  burst.set(sine(1000, 2400).left);
  // The loop's low-pass and high-pass take a little at 1 kHz: the feedback is told from 20 to 95 %, and what comes is within half a dB.
  const told = 0.5;
  const { left, right } = echoed(burst, [[0, 'time', frames], [0, 'feedback', told], [0, 'tone', 1], [0, 'width', 1]]); // prettier-ignore
  const level = (side: Float64Array, n: number) => levelAt(side, 1000, n * frames + 480, n * frames + 1920);
  expect(level(left, 1)).toBeCloseTo(0, 1);
  expect(level(right, 1)).toBeLessThan(-100);
  for (const n of [2, 3, 4]) {
    const fall = level(n % 2 === 0 ? right : left, n) - level(n % 2 === 0 ? left : right, n - 1);
    expect(Math.abs(fall - 20 * Math.log10(0.95 * told))).toBeLessThan(0.5);
  }
  const middle = echoed(burst, [
    [0, 'time', frames],
    [0, 'width', 0],
  ]);
  for (const n of [1, 2, 3]) expect(level(middle.left, n)).toBeCloseTo(level(middle.right, n), 3);
  expect(level(middle.left, 1)).toBeCloseTo(-3.01, 1);
});

test('tempo from 87 to 174 in a second while it rings: no click, and no pitch that moves by 5 cents', () => {
  const hz = 500;
  const frames = 4 * RATE;
  const sent = sine(hz, frames, 0.3).left;
  const turns: Turn[] = Array.from({ length: 100 }, (_, i) => [RATE + i * 480, 'time', 720 * framesPerTick(87 + (87 * i) / 99, RATE)]); // prettier-ignore
  const settings: Turn[] = [[0, 'time', 720 * framesPerTick(87, RATE)], [0, 'feedback', 0.5], [0, 'width', 0]]; // prettier-ignore
  const { left } = echoed(sent, [...settings, ...turns]);
  const still = largestStep(echoed(sent, settings).left);
  expect(20 * Math.log10(largestStep(left) / Math.max(still, largestStep(sent)))).toBeLessThan(6);
  // What was sent is one sine: all that is heard beside it would be a pitch that moved. 5 cents of 500 Hz are 1.4 Hz.
  const from = RATE + 48000;
  const around = (cents: number) => levelAt(left, hz * 2 ** (cents / 1200), from, from + 48000);
  for (const cents of [-100, -50, 50, 100]) expect(around(cents)).toBeLessThan(around(0) - 25);
});

/** Hz between each two upward zero crossings of a sound, by where a line crosses zero. */
function pitches(sound: Float64Array, from: number, to: number): number[] {
  const crossings: number[] = [];
  for (let i = from; i < to; i++) {
    const [before, now] = [sound[i - 1]!, sound[i]!];
    if (before < 0 && now >= 0) crossings.push(i - now / (now - before));
  }
  return crossings.slice(1).map((at, i) => RATE / (at - crossings[i]!));
}

test.each([['half', 0.5, 1, 2], ['twice', 2, 0.5, 1]] as const)('as a tape, told %s the time, it bends by an octave at most, without a click, and comes to the very sample', (_, times, lowest, highest) => {
  const hz = 500;
  const [frames, turned] = [6 * RATE, 2 * RATE];
  const sent = sine(hz, frames, 0.3).left;
  const settings: Turn[] = [[0, 'time', 24000], [0, 'feedback', 0], [0, 'width', 0], [0, 'tape', 1]]; // prettier-ignore
  const still = echoed(sent, settings).left;
  const { left } = echoed(sent, [...settings, [turned, 'time', 24000 * times]]);
  expect(left.subarray(0, turned)).toEqual(still.subarray(0, turned));
  const bent = pitches(left, turned, frames);
  expect(Math.min(...bent) / hz).toBeGreaterThan(lowest * 0.99);
  expect(Math.max(...bent) / hz).toBeLessThan(highest * 1.01);
  // It comes all but to the octave: it is heard to bend.
  expect(times < 1 ? Math.max(...bent) / hz : hz / Math.min(...bent)).toBeGreaterThan(1.9);
  // Twice as fast a sound has twice the steps.
  expect(largestStep(left.subarray(turned)) / largestStep(still.subarray(turned))).toBeLessThan(2.02);
  const late = 24000 * times;
  const root = Math.SQRT1_2;
  for (let i = frames - RATE; i < frames; i++) expect(Math.abs(left[i]! - root * sent[i - late]!)).toBeLessThan(1e-9);
}); // prettier-ignore

test('told to fade or to bend while its time changes, it goes on as it began: nothing clicks', () => {
  const sent = sine(500, 5 * RATE, 0.3).left;
  const settings: Turn[] = [[0, 'time', 24000], [0, 'feedback', 0], [0, 'width', 0]]; // prettier-ignore
  const still = largestStep(echoed(sent, settings).left);
  // In the middle of a fade, which takes 30 ms, and of a bend; each time the other is wanted, and another time.
  const fading: Turn[] = [[RATE, 'time', 20000], [RATE + 700, 'tape', 1], [RATE + 701, 'time', 15000]]; // prettier-ignore
  const bending: Turn[] = [[120000, 'time', 30000], [122000, 'tape', 0], [125000, 'time', 21000]]; // prettier-ignore
  const { left } = echoed(sent, [...settings, ...fading, ...bending]);
  expect(largestStep(left.subarray(RATE)) / still).toBeLessThan(2.02);
  for (let i = 4.5 * RATE; i < 5 * RATE; i++) expect(Math.abs(left[i]! - Math.SQRT1_2 * sent[i - 21000]!)).toBeLessThan(1e-9); // prettier-ignore
});

test('the longest time is four seconds to the sample', () => {
  const { left } = echoed(click(5 * RATE), [[0, 'time', 9 * RATE], [0, 'feedback', 0], [0, 'width', 0]]); // prettier-ignore
  expect(left.findIndex((x) => x !== 0)).toBe(4 * RATE);
});

test('whatever is told, and however it is cut into blocks, the samples are the same; it always ends, and then sleeps', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const chance = random(seed);
    const frames = 40000;
    const sent = Float64Array.from({ length: frames }, (_, i) => (i % 9000 < 2000 ? chance() - 0.5 : 0));
    const turns = Array.from({ length: 30 }, (): Turn => {
      const setting = (['time', 'tape', 'feedback', 'tone', 'width'] as const)[Math.floor(chance() * 5)]!;
      return [Math.floor(chance() * frames), setting, setting === 'time' ? 1 + chance() * 20000 : chance()];
    }).sort(([a], [b]) => a - b);
    const whole = echoed(sent, turns);
    for (const block of [1, 50, 77]) {
      const cut = echoed(sent, turns, block);
      const off = cut.left.findIndex((x, i) => x !== whole.left[i] || cut.right[i] !== whole.right[i]);
      expect([seed, block, off]).toEqual([seed, block, -1]);
    }
    expect(Math.max(...whole.left.map(Math.abs))).toBeLessThan(4);
  }
  const { echo, left } = echoed(click(20 * RATE), [[0, 'feedback', 1], [0, 'time', 4800], [0, 'tone', 1]]); // prettier-ignore
  expect(echo.isAsleep).toBe(true);
  expect(left.at(-1)).toBe(0);
});
