import { webcrypto } from 'node:crypto';
import type { SampleAudio } from '@/core/sample/levels';
import { random } from '@/core/random';
import { Memory } from './memory.testing';
import { AUDIO_PREFIX, isOutOfRoom, SAMPLE_PREFIX, type Storage } from './records';
import { SampleStore } from './samples';

beforeAll(() => {
  if (!globalThis.crypto?.subtle) Object.defineProperty(globalThis, 'crypto', { value: webcrypto });
});

/** Whole numbers of 24 bits, as samples have them. */
function audioOf(channels: number, frames: number, seed = 1): SampleAudio {
  const next = random(seed);
  const value = () => Math.round((next() * 2 - 1) * 8388607) / 8388608;
  return { channels: Array.from({ length: channels }, () => Float32Array.from({ length: frames }, value)) };
}

/** A storage that has room for so many letters, and its samples. */
function storeWith(room = Infinity, now = '2026-11-27T12:00:00Z') {
  const memory = new Memory();
  const setMany = memory.setMany;
  memory.setMany = (entries) => {
    const letters = [...memory.map.values(), ...Object.values(entries)].reduce((sum, text) => sum + text.length, 0);
    return letters > room ? Promise.reject(memory.refusal) : setMany(entries);
  };
  memory.setItem = (key, value) => memory.setMany({ [key]: value });
  const clock = { now };
  return { memory, clock, samples: new SampleStore(memory as unknown as Storage, () => new Date(clock.now)) };
}
const keysOf = ({ map }: Memory) => [...map.keys()].map((key) => key.split(' ')[0]);

test('what is kept comes back to the bit, whatever its length; the same audio is kept once', async () => {
  const { memory, samples } = storeWith();
  for (const [channels, frames] of [
    [1, 1],
    [2, 1000],
    [1, 262_144],
    [2, 300_001],
  ] as const) {
    const audio = audioOf(channels, frames);
    const source = await samples.keep(audio);
    expect([source.frames, source.sample]).toEqual([frames, expect.stringMatching(/^[0-9a-f]{32}$/)]);
    const loaded = await samples.load(source.sample);
    const bytes = ({ channels: all }: SampleAudio) => all.map(({ buffer }) => Buffer.from(buffer).toString('base64'));
    expect(bytes(loaded!)).toEqual(bytes(audio));
  }
  const before = memory.map.size;
  const [a, b] = [await samples.keep(audioOf(2, 1000)), await samples.keep(audioOf(2, 1000))];
  expect([a, memory.map.size]).toEqual([b, before]);
  // One channel twice as long holds the same numbers, and is another sample.
  const { channels } = audioOf(2, 500);
  const woven = Float32Array.from({ length: 1000 }, (_, i) => channels[i % 2]![i >> 1]!);
  expect((await samples.keep({ channels: [woven] })).sample).not.toBe((await samples.keep({ channels })).sample);
});

test('a storage that is full in the middle keeps nothing of it, and all that was there', async () => {
  const { memory, samples } = storeWith(2_000_000);
  const first = await samples.keep(audioOf(1, 200_000));
  await expect(samples.keep(audioOf(2, 600_000, 2))).rejects.toThrow(/quota/);
  await samples.keep(audioOf(2, 600_000, 2)).catch((error: unknown) => expect(isOutOfRoom(error)).toBe(true));
  expect(keysOf(memory).sort()).toEqual(['audio', 'sample']);
  expect((await samples.load(first.sample))?.channels[0]).toHaveLength(200_000);
});

test('what is missing, cut off or no sample is none; nothing throws', async () => {
  const { memory, samples } = storeWith();
  const { sample } = await samples.keep(audioOf(1, 400_000));
  expect(await samples.load('f'.repeat(32))).toBeNull();
  expect(await samples.load('no sample')).toBeNull();
  const piece = `${AUDIO_PREFIX}${sample} 1`;
  const text = memory.map.get(piece)!;
  memory.map.delete(piece);
  expect(await samples.load(sample)).toBeNull();
  memory.map.set(piece, text.repeat(3));
  expect(await samples.load(sample)).toBeNull();
  for (const head of ['', 'null', '{', '{"channels":0,"frames":1,"pieces":1}', '[]']) {
    memory.map.set(SAMPLE_PREFIX + sample, head);
    expect(await samples.load(sample)).toBeNull();
  }
});

test('what no record names goes after a day, and not before', async () => {
  const { memory, clock, samples } = storeWith();
  const [named, loose] = [await samples.keep(audioOf(1, 100)), await samples.keep(audioOf(1, 100, 2))];
  memory.map.set('version abc', JSON.stringify({ tracks: { 0: { kit: { pads: [{ sound: { source: named } }] } } } }));
  await samples.sweep();
  expect(await samples.load(loose.sample)).not.toBeNull();
  clock.now = '2026-11-29T12:00:00Z';
  await samples.sweep();
  expect([await samples.load(named.sample), await samples.load(loose.sample)]).toEqual([expect.anything(), null]);
  expect(keysOf(memory).sort()).toEqual(['audio', 'sample', 'version']);
});
