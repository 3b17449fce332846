import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { writeSampleWav } from '@/core/formats/sampleWav';
import { random } from '@/core/random';
import { expect, test } from './support/app';
import { emptySet } from './support/sets';

/** HOSTILE=300 brings more than every test run can. */
const COUNT = Number(process.env.HOSTILE ?? 42);
/** So many at once, and one that is good: together they have pads enough, were all of them read. */
const BATCH = 14;
const SECONDS = 0.2;
/** Where the fields of a WAV header lie, in bytes, and how many they have (RIFF, as `writeSampleWav` writes it). */
const FIELDS = { size: [4, 4], chunk: [16, 4], format: [20, 2], channels: [22, 2], rate: [24, 4], bytesASecond: [28, 4], block: [32, 2], bits: [34, 2], data: [40, 4] } as const; // prettier-ignore
const VALUES = [0, 1, 2, 3, 7, 8, 16, 24, 32, 64, 255, 8000, 48000, 65534, 65535, 192000, 0x7fffffff, 0x80000000, 0xffffffff]; // prettier-ignore

type Random = () => number;
const pick = <T>(next: Random, from: readonly T[]): T => from[Math.floor(next() * from.length)]!;

/** A good file of each kind, made by ffmpeg. */
function goodFiles(): { extension: string; bytes: Buffer }[] {
  const folder = mkdtempSync(path.join(tmpdir(), 'chaffinch-'));
  const source = path.join(folder, 'in.wav');
  execFileSync('/usr/bin/sox', ['-n', '-r', '44100', '-c', '2', source, 'synth', String(SECONDS), 'sine', '440', 'vol', '0.5']); // prettier-ignore
  const made = [['flac', []], ['mp3', []], ['ogg', ['-c:a', 'libvorbis']], ['opus', ['-c:a', 'libopus', '-ar', '48000']], ['m4a', ['-c:a', 'aac']], ['float.wav', ['-c:a', 'pcm_f32le']], ['eight.wav', ['-ac', '8']], ['fast.wav', ['-ar', '192000']]] as const; // prettier-ignore
  return made.map(([extension, how]) => {
    const file = path.join(folder, `a.${extension}`);
    execFileSync('/usr/bin/ffmpeg', ['-loglevel', 'error', '-y', '-i', source, ...how, file]);
    return { extension: extension.replace(/^.*\./, ''), bytes: readFileSync(file) };
  });
}

/** One thing, or a few, that is wrong with a file. */
const HARMS: readonly ((next: Random, bytes: Buffer) => Buffer)[] = [
  (next, bytes) => bytes.subarray(0, Math.floor(next() * bytes.length)),
  (next, bytes) => {
    const [at, length] = pick(next, Object.values(FIELDS));
    if (bytes.length > 44) bytes.writeUIntLE(pick(next, VALUES) % 256 ** length, at, length);
    return bytes;
  },
  (next, bytes) => {
    for (let i = 0; i < 20 && bytes.length > 0; i++) bytes[Math.floor(next() * Math.min(400, bytes.length))] = Math.floor(next() * 256); // prettier-ignore
    return bytes;
  },
  (next, bytes) => {
    for (let i = 0; i < 200 && bytes.length > 0; i++) bytes[Math.floor(next() * bytes.length)] = Math.floor(next() * 256); // prettier-ignore
    return bytes;
  },
  // Numbers that are none, where a file has floats.
  (next, bytes) => {
    for (let at = 100 + 4 * Math.floor(next() * 50); at + 4 <= bytes.length; at += 4) bytes.writeUInt32LE(pick(next, [0x7fc00000, 0x7f800000, 0xff800000, 0x00000001]), at); // prettier-ignore
    return bytes;
  },
  (next, bytes) => Buffer.concat([Buffer.from(pick(next, ['RIFF', 'OggS', 'fLaC', 'ID3\u0004', '....ftyp', '{}', '']), 'latin1'), bytes]), // prettier-ignore
];

test(`${COUNT} hostile files: each is loaded or it is said why not, and nothing is lost`, async ({ app, page }) => {
  test.setTimeout(240_000 + COUNT * 1000);
  const crashes: string[] = [];
  page.on('pageerror', ({ message }) => crashes.push(message));
  const next = random(Number(process.env.SEED ?? 14));
  const good = goodFiles();
  const hostile = (n: number) => {
    const { extension, bytes } = pick(next, good);
    let harmed: Buffer = Buffer.from(bytes);
    for (let times = 1 + Math.floor(next() * 2); times > 0; times--)
      harmed = Buffer.from(pick(next, HARMS)(next, harmed));
    const name = `h${n}.${next() < 0.1 ? pick(next, ['mp3', 'wav', 'ogg', 'm4a']) : extension}`;
    return { name, mimeType: 'application/octet-stream', buffer: harmed };
  };
  const tone = Float32Array.from({ length: 4800 }, (_, i) => 0.5 * Math.sin(i / 9));
  const safe = Buffer.from(writeSampleWav({ channels: [tone] }));

  await app.openSet(emptySet());
  await page.getByRole('link', { name: 'Sounds', exact: true }).click();
  for (let batch = 0; batch * BATCH < COUNT; batch++) {
    const files = Array.from({ length: BATCH }, (_, i) => hostile(batch * BATCH + i));
    // By keys: the notice of the last ones lies over it.
    await page.getByRole('button', { name: /^Sound 1 / }).press('Enter');
    const [chooser] = await Promise.all([page.waitForEvent('filechooser'), app.button('Load sample').click()]);
    await chooser.setFiles([...files, { name: `Safe ${batch}.wav`, mimeType: 'audio/wav', buffer: safe }]);
    // The good one comes last, on the pad after those that were read.
    const last = page.getByRole('button', { name: new RegExp(`^Sound \\d+ Safe ${batch}$`) });
    await expect(last).toBeVisible({ timeout: 60_000 });
    const read = Number(/\d+/.exec((await last.getAttribute('aria-label'))!)![0]) - 1;
    const told = page.getByText(/^Loaded onto pad/);
    await expect(told).toContainText(read === 0 ? 'Loaded onto pad 1.' : `Loaded onto pads 1 to ${read + 1}.`);
    const words = (await told.textContent())!;
    const named = words.match(/could not be loaded\. [A-Z]/g)?.length ?? 0;
    const more = Number(/(\d+) more could not be loaded\./.exec(words)?.[1] ?? 0);
    expect([words, named + more]).toEqual([words, BATCH - read]);
  }
  expect(crashes).toEqual([]);
  // What was loaded is there after a reload, and so is the rest of the set.
  const before = await app.savedNow();
  await page.reload();
  await expect(page.getByRole('button', { name: new RegExp(`Safe ${Math.ceil(COUNT / BATCH) - 1}$`) })).toBeVisible();
  expect((await app.savedNow()).tracks).toEqual(before.tracks);
});
