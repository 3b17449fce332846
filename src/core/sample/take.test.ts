import { random } from '../random';
import { levelled, loudestOf, Take, trimmed } from './take';

const RATE = 48000;
const OPTIONS = { rate: RATE, most: 10 * RATE, endsItself: true };
/** A sound that counts its frames, so that each can be told from the others. */
const counting = (frame: number, length: number) => Float32Array.from({ length }, (_, i) => (frame + i) / 1e6);
const feed = (take: Take, from: number, to: number, sound = counting, piece = 1024) => {
  for (let frame = from; frame < to; frame += piece) take.add(frame, [sound(frame, Math.min(piece, to - frame))]);
};

test('it begins at its frame, were it only told afterwards, and in the middle of a piece', () => {
  const next = random(3);
  for (let i = 0; i < 50; i++) {
    const [begin, told] = [Math.floor(next() * 50_000) + 100_000, 100_000 + Math.floor(next() * 140_000)];
    const take = new Take({ ...OPTIONS, endsItself: false });
    feed(take, 0, told, counting, 128);
    take.begin(begin);
    feed(take, told, 260_000, counting, 128);
    take.end(250_007);
    const [channel] = take.audio().channels;
    expect([channel!.length, channel![0], channel!.at(-1)]).toEqual([250_007 - begin, Math.fround(begin / 1e6), Math.fround(250_006 / 1e6)]); // prettier-ignore
  }
});

test('it ends itself a second and a half after the last sound, not before there was any, and not if that is not wanted', () => {
  const sound = (frame: number, length: number) => Float32Array.from({ length }, (_, i) => (frame + i >= 96_000 && frame + i < 120_000 ? 0.3 : 0.001)); // prettier-ignore
  const [take, other] = [new Take(OPTIONS), new Take({ ...OPTIONS, endsItself: false })];
  for (const one of [take, other]) {
    one.begin(0);
    feed(one, 0, 120_000 + 1.5 * RATE + 1024, sound);
  }
  expect([take.isOver(96_000), take.isOver(120_000 + RATE), take.isOver(120_000 + 1.5 * RATE + 1024)]).toEqual([false, false, true]); // prettier-ignore
  expect(other.isOver(120_000 + 1.5 * RATE + 1024)).toBe(false);
});

test('it is never longer than it may be', () => {
  const take = new Take({ rate: RATE, most: 5000, endsItself: true });
  take.begin(100);
  feed(take, 0, 20_000);
  expect([take.isOver(5100), take.lengthAt(20_000), take.audio().channels[0]!.length]).toEqual([true, 5000, 5000]);
});

test('trimmed, it begins 5 ms before its sound; levelled, it is 1 dB below full scale; silence stays what it is', () => {
  const channel = new Float32Array(48_000);
  channel.fill(0.2, 20_000, 25_000);
  const { channels } = trimmed({ channels: [channel] });
  expect([channels[0]!.length, channels[0]!.findIndex((v) => v > 0)]).toEqual([240 + 5000 + 2400, 240]);
  expect(20 * Math.log10(loudestOf(levelled({ channels })))).toBeCloseTo(-1, 1);
  const silence = { channels: [new Float32Array(100)] };
  expect([trimmed(silence), levelled(silence)]).toEqual([silence, silence]);
});
