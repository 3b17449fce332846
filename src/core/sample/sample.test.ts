import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sampleWavData, wavFacts, writeSampleWav } from '../formats/sampleWav';
import { random } from '../random';
import { bessel0, kernelTable, PHASES, TAPS } from './kernel';
import { fromPcm24, toPcm24 } from './pcm';
import { audioPeaks, tidied } from './tidy';

const audioOf = (channels: number, frames: number) => {
  const next = random(frames);
  return { channels: Array.from({ length: channels }, () => Float32Array.from({ length: frames }, () => Math.round((next() * 2 - 1) * 8388607) / 8388608)) }; // prettier-ignore
};

/** Does something with a file of some bytes that is gone afterwards. */
function withFile<T>(bytes: Uint8Array, act: (file: string) => T): T {
  const folder = mkdtempSync(path.join(tmpdir(), 'chaffinch-'));
  const file = path.join(folder, 'sample.wav');
  writeFileSync(file, bytes);
  try {
    return act(file);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

test('the Bessel function is that of the tables', () => {
  // Abramowitz and Stegun, Handbook of Mathematical Functions, table 9.8 (from memory): I0(1), I0(2), I0(5).
  expect(bessel0(1)).toBeCloseTo(1.2660658778, 9);
  expect(bessel0(2)).toBeCloseTo(2.2795853023, 9);
  expect(bessel0(5)).toBeCloseTo(27.2398718236, 8);
});

test('each row of weights adds up to one; the first reads the frame itself', () => {
  const { weights } = kernelTable();
  for (let phase = 0; phase < PHASES; phase++) {
    const row = weights.subarray(phase * TAPS, (phase + 1) * TAPS);
    expect(row.reduce((sum, weight) => sum + weight, 0)).toBeCloseTo(1, 12);
  }
  expect(Array.from(weights.subarray(0, TAPS)).filter((weight) => Math.abs(weight) > 1e-12)).toEqual([1]);
});

test('24 bits: what came as whole numbers stays what it was, what is beyond full scale is clipped', () => {
  for (const channels of [1, 2]) {
    const audio = audioOf(channels, 333);
    expect(fromPcm24(toPcm24(audio), channels)).toEqual(audio);
  }
  const edge = { channels: [Float32Array.from([-1, 1, 2, -2, 0, 32767 / 32768])] };
  expect(Array.from(fromPcm24(toPcm24(edge), 1).channels[0]!)).toEqual([-1, 8388607 / 8388608, 8388607 / 8388608, -1, 0, 32767 / 32768].map(Math.fround)); // prettier-ignore
});

test('the WAV file is read by SoX, and its cue points by another reader', () => {
  const audio = audioOf(2, 5001);
  const bytes = writeSampleWav(audio, [100, 2500, 4999]);
  withFile(bytes, (file) => {
    const raw = execFileSync('/usr/bin/sox', ['-D', file, '-t', 'raw', '-e', 'signed', '-b', '32', '-'], { maxBuffer: 1e8 }); // prettier-ignore
    const read = new Int32Array(raw.buffer, raw.byteOffset, raw.length / 4);
    expect(read).toHaveLength(2 * 5001);
    audio.channels.forEach((channel, c) => expect(channel.every((v, i) => Math.round(v * 8388608) * 256 === read[2 * i + c])).toBe(true)); // prettier-ignore
    // Python's chunk module reads RIFF files of any kind.
    const script = `
import chunk, struct, sys, json, warnings
f = open(sys.argv[1], 'rb'); f.read(12)
while True:
    c = chunk.Chunk(f, bigendian=False)
    if c.getname() == b'cue ': break
    c.skip()
d = c.read(); n = struct.unpack('<I', d[:4])[0]
print(json.dumps([struct.unpack('<I', d[4 + 24 * i + 20: 4 + 24 * i + 24])[0] for i in range(n)]))`;
    const { stdout } = spawnSync('/usr/bin/python3', ['-W', 'ignore', '-c', script, file], { encoding: 'utf8' });
    expect(JSON.parse(stdout)).toEqual([100, 2500, 4999]);
    expect(readFileSync(file).length).toBe(bytes.length);
  });
  expect(wavFacts(bytes)).toEqual({ channels: 2, sampleRate: 48000, frames: 5001, cues: [100, 2500, 4999] });
  expect(fromPcm24(sampleWavData(bytes), 2)).toEqual(audio);
});

test('a WAV file that is not right says what is wrong, and no file makes it throw', () => {
  const good = writeSampleWav(audioOf(1, 500), [20]);
  const with_ = (at: number, ...values: number[]) => {
    const bytes = good.slice();
    values.forEach((value, i) => (bytes[at + i] = value));
    return wavFacts(bytes);
  };
  expect(wavFacts(good.subarray(0, 30))).toEqual({ error: expect.stringMatching(/cut off/) });
  expect(wavFacts(good.subarray(0, 44))).toEqual({ error: expect.stringMatching(/0 samples/) });
  expect(with_(22, 0, 0)).toEqual({ error: expect.stringMatching(/no channels/) });
  expect(with_(20, 0x55, 0)).toEqual({ error: expect.stringMatching(/not known/) });
  // A header that says 2 GB: what there is is what there is.
  expect(with_(40, 0xff, 0xff, 0xff, 0x7f)).toMatchObject({ frames: Math.floor((good.length - 44) / 3) });
  expect(with_(0, 0x50)).toEqual({ error: 'It is no WAV file.' });
  const next = random(7);
  for (let i = 0; i < 2000; i++) {
    const bytes = good.slice(0, 12 + Math.floor(next() * good.length));
    for (let k = 0; k < 8; k++) bytes[12 + Math.floor(next() * 60)] = Math.floor(next() * 256);
    const facts = wavFacts(bytes);
    if ('error' in facts) continue;
    expect(facts.frames).toBeGreaterThan(0);
    expect(facts.cues.every((cue, k) => cue > (facts.cues[k - 1] ?? 0) && cue < facts.frames)).toBe(true);
  }
});

test('what was decoded is brought into form, and it is said what was done', () => {
  const channel = Float32Array.from([0.5, NaN, -2, Infinity]);
  const { audio, notes } = tidied({ channels: [channel, channel, channel] }, 100);
  expect(audio.channels).toEqual([Float32Array.from([0.25, 0, -1, 0])]);
  expect(notes).toEqual(['4 values in it were no numbers, and are silent', 'it was 6.0 dB louder than full scale, and is softer now']); // prettier-ignore
  const long = tidied({ channels: [new Float32Array(96000), new Float32Array(96000).fill(0.1)] }, 48000);
  expect([long.audio.channels.map(({ length }) => length), long.notes]).toEqual([[48000, 48000], ['only the first 1 s were taken']]); // prettier-ignore
});

test('peaks are the loudest of each part, of any stretch', () => {
  const channels = [Float32Array.from([0.1, -0.9, 0.2, 0.3]), Float32Array.from([0, 0, 0, -0.4])];
  expect(audioPeaks({ channels }, 2).map((peak) => peak.toFixed(1))).toEqual(['0.9', '0.4']);
  expect(audioPeaks({ channels }, 4, 2, 4)).toHaveLength(4);
});
