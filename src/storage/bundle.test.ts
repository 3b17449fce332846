import { webcrypto } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { zipSync, strToU8, unzipSync } from 'fflate';
import { demoSet } from '@/core/document/demo';
import { replayLog } from '@/core/engine/replay';
import { random } from '@/core/random';
import { playTracks } from '@/core/score/playThrough';
import { makeBundle, readBundle } from './bundle';

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
  if ('error' in read) throw new Error(read.error);
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
