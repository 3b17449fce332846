import { spectrumOf } from '../../../measure/spectrum';
import { random } from '../../../random';
import { FIRST_ROOM, ROOM_RANGES, type RoomSettings } from '../../../document/mix';
import { Room, ROOM_SETTINGS } from './room';

const RATE = 48000;
const BLOCK = 128;

/** What a room answers to what is sent into it. `turned` is told it at frames that are ends of blocks. */
function answer(
  sent: Float64Array,
  rate = RATE,
  block = BLOCK,
  settings: Partial<RoomSettings> = {},
  turned: ReadonlyMap<number, Partial<RoomSettings>> = new Map(),
) {
  const room = new Room(rate);
  const tell = (told: Partial<RoomSettings> = {}) => {
    for (const setting of ROOM_SETTINGS) if (told[setting] !== undefined) room.set(setting, told[setting]);
  };
  tell(settings);
  const [left, right] = [new Float64Array(sent.length), new Float64Array(sent.length)];
  for (let at = 0; at < sent.length; at += block) {
    const frames = Math.min(block, sent.length - at);
    tell(turned.get(at));
    room.process(sent.subarray(at, at + frames), left.subarray(at, at + frames), right.subarray(at, at + frames), frames, at); // prettier-ignore
  }
  return { left, right, room };
}

function impulse(seconds = 1, rate = RATE) {
  const sent = new Float64Array(Math.round(seconds * rate));
  sent[0] = 1;
  return sent;
}

/** Compared at once: Jest takes seconds for a second of sound. */
const isSame = (a: Float64Array, b: Float64Array) => a.length === b.length && a.every((sample, i) => sample === b[i]);
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

/** Seconds in which a response falls by 60 dB around a frequency (ISO 3382-1: Schroeder’s integral, T30). */
function reverberation(sound: Float64Array, hz: number): number {
  const heard = band(sound, hz / Math.SQRT2, hz * Math.SQRT2);
  let rest = 0;
  const after = heard.slice();
  for (let i = heard.length - 1; i >= 0; i--) after[i] = rest += heard[i]! ** 2;
  const at = (dB: number) => after.findIndex((e) => 10 * Math.log10(e / after[0]!) < dB);
  return (2 * (at(-35) - at(-5))) / RATE;
}

test.each([
  [500, 0.3, 0.65],
  [1000, 0.3, 0.6],
  [4000, 0.2, 0.45],
])('around %d Hz it falls 60 dB in %d to %d s (ISO 3382-1: Schroeder’s integral, T30)', (hz, least, most) => {
  const time = reverberation(left.subarray(0, 0.75 * RATE), hz);
  expect(time).toBeGreaterThan(least);
  expect(time).toBeLessThan(most);
});

test('told to be 1.2 s large it is, within 15 %; half damped, it is so much shorter at 4 kHz as it is told', () => {
  const seconds = (damping: number, hz: number) =>
    reverberation(answer(impulse(0.85), RATE, BLOCK, { size: 1.2, damping }).left, hz);
  const within = (time: number, of: number) => expect(Math.abs(time / of - 1)).toBeLessThan(0.15);
  within(seconds(0, 500), 1.2);
  within(seconds(0, 4000), 1.2);
  within(seconds(0.5, 4000), 1.2 / (1 + 2.94 * 0.5 ** 2));
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

test('a pre-delay of so many ms has it answer so many ms later, and by nothing else', () => {
  const late = answer(impulse(), RATE, BLOCK, { preDelay: 40 });
  // Its lines sway with the time, which is another one then.
  const first = (side: Float64Array) => side.findIndex((sample) => Math.abs(sample) > 1e-3);
  expect(first(late.left) - first(left)).toBe(0.04 * RATE);
  expect(energy(late.left) / energy(left)).toBeCloseTo(1, 1);
});

test('without any width both sides are the same, and half way they have half in common', () => {
  const narrow = answer(impulse(), RATE, BLOCK, { width: 0 });
  expect(isSame(narrow.left, narrow.right)).toBe(true);
  const half = answer(impulse(), RATE, BLOCK, { width: 0.5 });
  const away = half.left.map((sample, i) => Math.abs(sample - (0.75 * left[i]! + 0.25 * right[i]!)));
  expect(Math.max(...away)).toBeLessThan(1e-12);
});

test('told the settings that it has, it is the room that it was, to the bit', () => {
  expect(isSame(answer(impulse(), RATE, BLOCK, FIRST_ROOM).left, left)).toBe(true);
});

describe('turned while it rings', () => {
  const sent = Float64Array.from({ length: RATE }, (_, i) => (i < 0.8 * RATE ? Math.sin((2 * Math.PI * 220 * i) / RATE) : 0)); // prettier-ignore
  const steepest = (side: Float64Array) => {
    let most = 0;
    for (let i = 1; i < side.length; i++) most = Math.max(most, Math.abs(side[i]! - side[i - 1]!));
    return most;
  };
  const ends = (setting: keyof RoomSettings) => {
    const { min, max } = ROOM_RANGES[setting];
    return [{ [setting]: min }, { [setting]: max }] as const;
  };

  test.each(ROOM_SETTINGS)('%s jumps to and fro: no step beyond 6 dB above those of the louder end', (setting) => {
    const [low, high] = ends(setting);
    const still = [low, high].map((settings) => steepest(answer(sent, RATE, BLOCK, settings).left));
    const turned = new Map(Array.from({ length: 12 }, (_, i) => [BLOCK * (80 + 20 * i), i % 2 === 0 ? high : low]));
    expect(steepest(answer(sent, RATE, BLOCK, low, turned).left)).toBeLessThan(2 * Math.max(...still));
  });

  test('it is the same at any block size, and sleeps in the end', () => {
    const next = random(11);
    const turned = new Map(
      Array.from({ length: 40 }, (_, i) => {
        const setting = ROOM_SETTINGS[Math.floor(next() * ROOM_SETTINGS.length)]!;
        const { min, max } = ROOM_RANGES[setting];
        // Large rooms take long to fall silent.
        return [1024 * (i + 1), { [setting]: min + next() * (setting === 'size' ? 0.4 : max - min) }] as const;
      }),
    );
    const noise = Float64Array.from({ length: 5 * RATE }, (_, i) => (i < 41000 && i % 9000 < 4000 ? next() - 0.5 : 0));
    const [a, b, c] = [64, 512, 1024].map((block) => answer(noise, RATE, block, {}, turned));
    expect(isSame(a!.left, b!.left) && isSame(a!.right, c!.right)).toBe(true);
    expect([a!.room.isAsleep, a!.left.at(-1)]).toEqual([true, 0]);
  });
});
