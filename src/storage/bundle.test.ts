import { webcrypto } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { demoSet } from '@/core/document/demo';
import type { Sound } from '@/core/document/sound';
import type { Track } from '@/core/document/track';
import { replayLog } from '@/core/engine/replay';
import { wavFacts } from '@/core/formats/sampleWav';
import { random } from '@/core/random';
import { playTracks } from '@/core/score/playThrough';
import { SHIPPED_KITS } from '@/core/shelf/shippedKits';
import { makeBundle, makeKitFile, readBundle } from './bundle';

beforeAll(() => {
  if (!globalThis.crypto?.subtle) Object.defineProperty(globalThis, 'crypto', { value: webcrypto });
});

const bytesOf = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());

const demo = () => ({ ...demoSet(), set: { ...demoSet().set, name: 'Rink Night – Kanäle' } });

test('a set comes out of its bundle as it went in', async () => {
  const open = demo();
  const bytes = await bytesOf(await makeBundle(open));
  expect(await readBundle(bytes)).toEqual(open);
});

test('the set from a bundle sounds as it did, to the sample', async () => {
  const open = demo();
  const read = await readBundle(await bytesOf(await makeBundle(open)));
  if (!('set' in read)) throw new Error('error' in read ? read.error : 'It is a kit.');
  const [mine, its] = [open, read].map((of) => {
    const { performed, run } = playTracks(of, 3840, 48000);
    const replay = replayLog(performed);
    const sound = { left: new Float32Array(run.to), right: new Float32Array(run.to) };
    replay.process(sound.left, sound.right);
    return sound;
  });
  expect(Math.max(...mine!.left.map(Math.abs))).toBeGreaterThan(0.1);
  expect(its).toEqual(mine);
});

test('unzip and Python’s zipfile are content with it, and sha256sum with its manifest', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'chaffinch-'));
  const file = path.join(folder, 'bundle.zip');
  const bytes = await bytesOf(await makeBundle(demo()));
  writeFileSync(file, bytes);
  const python = spawnSync('/usr/bin/python3', ['-c', 'import zipfile, sys; z = zipfile.ZipFile(sys.argv[1]); print(z.testzip(), ",".join(sorted(z.namelist()))); z.extractall(sys.argv[2])', file, folder], { encoding: 'utf8' }); // prettier-ignore
  expect(python.stdout.trim()).toBe('None manifest.json,set.json');
  expect(spawnSync('unzip', ['-t', file], { encoding: 'utf8' }).stdout).toMatch(/No errors detected/);
  const { files } = JSON.parse(Buffer.from(unzipSync(bytes)['manifest.json']!).toString()) as { files: Record<string, string> }; // prettier-ignore
  expect(spawnSync('sha256sum', [path.join(folder, 'set.json')], { encoding: 'utf8' }).stdout.split(' ')[0]).toBe(files['set.json']); // prettier-ignore
});

test('five hundred mutated bundles: each is refused with a sentence, or gives the very set', async () => {
  const open = demo();
  const bytes = await bytesOf(await makeBundle(open));
  const next = random(3);
  let refused = 0;
  for (let i = 0; i < 500; i++) {
    const at = Math.floor(next() * bytes.length);
    const mutated = i % 3 === 0 ? bytes.slice(0, at) : Uint8Array.from(bytes);
    if (i % 3 === 1) mutated[at] = Math.floor(next() * 256);
    if (i % 3 === 2) mutated.fill(Math.floor(next() * 256), at, at + 40);
    const read = await readBundle(mutated);
    if ('error' in read) {
      expect(read.error).toMatch(/\.$/);
      refused++;
    } else expect(read).toEqual(open);
  }
  expect(refused).toBeGreaterThan(400);
});

test('what is no bundle says what it is instead', async () => {
  const error = async (files: Record<string, Uint8Array>) => {
    const read = await readBundle(zipSync(files));
    return 'error' in read ? read.error : '';
  };
  expect(await error({ 'a.txt': strToU8('a') })).toMatch('no bundle of Chaffinch');
  expect(await error({ 'manifest.json': strToU8('{"bundle":9}') })).toMatch('a newer Chaffinch (bundle 9');
  expect(await error({ 'manifest.json': strToU8('{"bundle":1,"files":{"set.json":"00"}}') })).toMatch('“set.json” is missing'); // prettier-ignore
  expect(await error({ 'manifest.json': strToU8('{"bundle":1,"files":{"set.json":"00"}}'), 'set.json': strToU8('{}') })).toMatch('its checksum is another'); // prettier-ignore
  expect(await error({ 'manifest.json': strToU8('[') })).toMatch('cannot be read');
});

test('a kit comes out of its file as it went in, readable in between; a damaged one says what is wrong', async () => {
  const kit = { id: 'k', name: 'Rink', tags: ['dry'], tempo: 112, kit: SHIPPED_KITS[2]!.kit! };
  const bytes = await bytesOf(await makeKitFile(kit));
  expect(await readBundle(bytes)).toEqual({ shelved: kit });
  const files = unzipSync(bytes);
  expect(Object.keys(files)).toEqual(['manifest.json', 'kit.json']);
  expect(JSON.parse(strFromU8(files['kit.json']!)).kit.pads[0].sound.name).toBe('Kick');
  files['kit.json'] = strToU8('{}');
  expect(await readBundle(zipSync(files))).toEqual({ error: expect.stringMatching(/kit.json.*damaged/) });
});

const withSoundOn = (track: Track, sound: Sound): Track => ({ ...track, kit: { ...track.kit, pads: track.kit.pads.map((pad, i) => (i === 0 ? { ...pad, sound } : pad)) } }); // prettier-ignore

test('recordings lie in it as WAV files of 24 bits that SoX reads, and come out to the bit; one that is damaged is told', async () => {
  const next = random(9);
  const value = () => Math.round((next() * 2 - 1) * 8388607) / 8388608;
  const sample = { id: 'ab'.repeat(16), channels: [0, 1].map(() => Float32Array.from({ length: 4001 }, value)) };
  const open = demo();
  const bytes = await bytesOf(await makeBundle(open, [sample]));
  expect(await readBundle(bytes)).toEqual({ ...open, samples: [sample] });
  const files = unzipSync(bytes);
  const wav = files[`samples/${sample.id}.wav`]!;
  const sox = spawnSync('/usr/bin/sox', ['--i', '-'], { input: wav, encoding: 'utf8' }).stdout;
  for (const fact of [/Channels *: 2/, /Sample Rate *: 48000/, /Precision *: 24-bit/]) expect(sox).toMatch(fact);
  // Where the first sound that has cuts cuts it, for other programs (RIFF cue points); the set says it for this one.
  const { set } = open;
  const sound = {
    ...set.tracks[0]!.kit.pads[0]!.sound,
    source: { sample: sample.id, frames: 4001 },
    cuts: [1000, 3000],
  };
  const cut = { ...open, set: { ...set, tracks: { ...set.tracks, 0: withSoundOn(set.tracks[0]!, sound) } } };
  const packed = unzipSync(await bytesOf(await makeBundle(cut, [sample])))[`samples/${sample.id}.wav`]!;
  expect([wavFacts(wav), wavFacts(packed)]).toMatchObject([{ cues: [] }, { cues: [1000, 3000] }]);
  wav[1000]! ^= 1;
  expect(await readBundle(zipSync(files))).toEqual({ error: expect.stringMatching(/samples.*damaged/) });
});
