import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { touchItem } from './support/menu';
import type { Sound } from '@/core/document/sound';
import type { Track } from '@/core/document/track';
import { writeSampleWav } from '@/core/formats/sampleWav';
import { random } from '@/core/random';
import { DIALOG, expectUsable } from './support/access';
import { expect, test, type App } from './support/app';
import { heard, listen, of } from './support/ear';
import { choose } from './support/steps';
import { demoSet, emptySet } from './support/sets';

/** A file for the page. */
interface Brought {
  name: string;
  mimeType: string;
  buffer: Buffer;
}
const wav = (name: string, buffer: Uint8Array): Brought => ({
  name,
  mimeType: 'audio/wav',
  buffer: Buffer.from(buffer),
});

/** A tone of a second that begins hard, at 48 kHz. */
function toneWav(name: string, hz = 440, seconds = 1, cues: number[] = []): Brought {
  const channel = Float32Array.from({ length: seconds * 48000 }, (_, i) => 0.5 * Math.cos((2 * Math.PI * hz * i) / 48000)); // prettier-ignore
  return wav(name, writeSampleWav({ channels: [channel] }, cues));
}

async function openSounds(app: App, set = demoSet()): Promise<void> {
  await app.openSet(set);
  await app.page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await expect(app.button('Sound 1 Kick')).toBeVisible();
}

async function load(app: App, ...files: Brought[]): Promise<void> {
  const [chooser] = await Promise.all([app.page.waitForEvent('filechooser'), app.button('Load sample').click()]);
  await chooser.setFiles(files);
}

/** The sounds of the first track, as they are stored. */
const soundsOf = async (app: App) => ((await app.savedNow()).tracks[0] as Track).kit.pads.map(({ sound }) => sound);
const samplesTold = async (app: App) => (await heard(app.page)).applied.filter(({ type }) => type === 'sample').length;

/** Which share of the energy of a second of what is heard lies around a frequency. */
async function shareAt(app: App, hz: number): Promise<number> {
  const { left, sampleRate } = await listen(app.page, 1).then(() => heard(app.page));
  const x = left.subarray(left.length - Math.round(0.6 * sampleRate));
  let [re, im, all] = [0, 0, 0];
  x.forEach((v, i) => {
    const w = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / x.length);
    re += w * v * Math.cos((2 * Math.PI * hz * i) / sampleRate);
    im += w * v * Math.sin((2 * Math.PI * hz * i) / sampleRate);
    all += w * w * v * v;
  });
  return all === 0 ? 0 : (2 * (re * re + im * im)) / (x.length * all) / 0.375 / 2;
}

test('WAV, FLAC, MP3, Ogg Vorbis, Opus and M4A come onto pads, several at once, and are there after a reload', async ({
  app,
  page,
}) => {
  test.slow();
  const folder = mkdtempSync(path.join(tmpdir(), 'chaffinch-'));
  const source = path.join(folder, 'in.wav');
  execFileSync('/usr/bin/sox', ['-n', '-r', '44100', '-c', '2', source, 'synth', '0.5', 'sine', '440', 'vol', '0.5']);
  const made = [['Deep_Kick.wav', []], ['rim.flac', []], ['snare.mp3', ['-b:a', '192k']], ['a clap.ogg', ['-c:a', 'libvorbis']], ['OpenHat.opus', ['-c:a', 'libopus', '-ar', '48000']], ['hit.m4a', ['-c:a', 'aac']]] as const; // prettier-ignore
  const files = made.map(([name, how]): Brought => {
    const file = path.join(folder, name);
    execFileSync('/usr/bin/ffmpeg', ['-loglevel', 'error', '-y', '-i', source, ...how, file]);
    return { name, mimeType: `audio/${name.split('.')[1]}`, buffer: readFileSync(file) };
  });
  await openSounds(app);
  await app.button('Sound 3 Snare').click();
  await load(app, ...files);
  await expect(page.getByText('Loaded onto pads 3 to 8.')).toBeVisible();
  await expect.poll(() => samplesTold(app)).toBe(6);
  const sounds = (await soundsOf(app)).slice(2, 8);
  expect(sounds.map(({ name, kind }) => [name, kind])).toEqual([['Deep Kick', 'kick'], ['rim', 'rim'], ['snare', 'snare'], ['a clap', 'clap'], ['OpenHat', 'openHat'], ['hit', 'other']]); // prettier-ignore
  // Half a second each, at 48 kHz; MPEG and AAC add what their frames need (ISO/IEC 11172-3: 1,152 samples a frame; ISO/IEC 14496-3: 1,024).
  for (const { source: of_ } of sounds) {
    const { frames } = of_ as Extract<Sound['source'], { frames: number }>;
    expect(frames).toBeGreaterThan(23700);
    expect(frames).toBeLessThan(24000 + 6000);
  }
  await page.reload();
  await expect.poll(() => samplesTold(app)).toBe(6);
  await app.button('Sound 3 Deep Kick').click();
  await app.button('Hear').focus();
  await page.keyboard.down(' ');
  expect(await shareAt(app, 440)).toBeGreaterThan(0);
  await page.keyboard.up(' ');
});

test('a sample is heard at its pitch and tuned; undo brings the old sound back', async ({ app, page }) => {
  await openSounds(app);
  await app.button('Sound 8 Low tom').click();
  await load(app, toneWav('Bell.wav', 880, 1.8));
  await expect(page.getByText('Loaded onto pad 8.')).toBeVisible();
  await expect.poll(() => samplesTold(app)).toBe(1);
  const hear = async () => {
    await app.button('Hear').focus();
    await page.keyboard.down(' ');
    const share = await shareAt(app, 880);
    await page.keyboard.up(' ');
    // It rings out.
    await listen(page, 2);
    return share;
  };
  expect(await hear()).toBeGreaterThan(0.8);
  await page.getByRole('slider', { name: 'Pitch', exact: true }).focus();
  await page.keyboard.press('Home');
  // Two octaves down there is nothing left at 880 Hz.
  expect(await hear()).toBeLessThan(0.05);
  await app.undo.click();
  await app.undo.click();
  await expect(app.button('Sound 8 Low tom')).toBeVisible();
});

test('grips and strips say which part is played, backwards or round; the picture follows', async ({ app, page }) => {
  await openSounds(app);
  await load(app, toneWav('Rail.wav', 300, 2, [24000]));
  await expect(page.getByText('Loaded onto pad 1.')).toBeVisible();
  expect((await soundsOf(app))[0]!.cuts).toEqual([24000]);
  await app.button('Sample').click();
  const end = page.getByRole('spinbutton', { name: 'End number' });
  await expect(end).toHaveValue('2000');
  await end.fill('500');
  await end.press('Enter');
  await app.savedSet((set) => (set.tracks[0] as Track).kit.pads[0]!.sound.settings.end === 0.25);
  // The first grip, at the left edge, is dragged a tenth of the picture to the right.
  const whole = page.getByRole('img', { name: /^1, Rail/ });
  await whole.scrollIntoViewIfNeeded();
  const picture = (await whole.boundingBox())!;
  const [x, y] = [picture.x + 9, picture.y + picture.height / 2];
  await whole.hover({ position: { x: 9, y: picture.height / 2 } });
  await page.mouse.down();
  await page.mouse.move(x + (picture.width - 16) / 10, y, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await soundsOf(app))[0]!.settings.start).toBeCloseTo(0.1, 2);
  await app.button('Backwards').click();
  await app.button('Playing').click();
  await app.button('Plays Round, held').click();
  const { settings } = (await soundsOf(app))[0]!;
  expect([settings.reverse, settings.plays]).toEqual([true, 'looped']);
  await app.undo.click();
  await app.undo.click();
  await app.undo.click();
  await app.undo.click();
  await expect.poll(async () => (await soundsOf(app))[0]!.settings).toEqual({});
});

test('a made sound becomes a recording of itself', async ({ app, page }) => {
  await openSounds(app);
  await app.button('Sound menu').click();
  await touchItem(page, 'Turn into a sample');
  await expect(page.getByText('Kick is a recording of itself now.')).toBeVisible();
  await expect.poll(() => samplesTold(app)).toBe(1);
  await page.keyboard.press('Escape');
  await app.play.click();
  await listen(page, 1.5);
  // The kick of the pattern is heard from the recording.
  expect(of((await heard(page)).events, 'sounded').some(({ pad }) => pad === 0)).toBe(true);
});

test('files dropped on a pad and the next ones are loaded there', async ({ app, page }) => {
  await app.openSet(emptySet());
  const files = [toneWav('One.wav', 200, 0.2), toneWav('Two.wav', 300, 0.2)];
  const data = await page.evaluateHandle((all) => {
    const transfer = new DataTransfer();
    for (const { name, mimeType, base64 } of all) {
      const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
      transfer.items.add(new File([bytes], name, { type: mimeType }));
    }
    return transfer;
  }, files.map(({ name, mimeType, buffer }) => ({ name, mimeType, base64: buffer.toString('base64') }))); // prettier-ignore
  await app.page.getByRole('button', { name: 'Pad 5 Closed hat' }).dispatchEvent('drop', { dataTransfer: data });
  await expect(page.getByText('Loaded onto pads 5 to 6.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pad 5 One' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pad 6 Two' })).toBeVisible();
});

test('a bundle takes recordings to another browser; one that is missing leaves its pad silent, and is told', async ({
  app,
  page,
  browser,
}) => {
  await openSounds(app);
  await load(app, toneWav('Gong.wav', 500, 1));
  await expect(page.getByText('Loaded onto pad 1.')).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), app.menu('Bundle')]);
  const bundle = readFileSync(await download.path());
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByRole('button', { name: 'Set menu' }).first().click();
  const [chooser] = await Promise.all([other.waitForEvent('filechooser'), touchItem(other, 'Bring in')]); // prettier-ignore
  await chooser.setFiles({ name: 'x.chaffinch.zip', mimeType: 'application/zip', buffer: bundle });
  await expect(other.getByText(/is open\.$/)).toBeVisible();
  await expect(other.getByRole('button', { name: 'Sound 1 Gong' })).toBeVisible();
  await expect(other.getByText(/This sound is silent/)).toHaveCount(0);
  await context.close();
  // The set alone, where the recording is not.
  const set = await app.savedNow();
  await app.openSet(set);
  await page.evaluate(() => new Promise<void>((done) => {
    const request = indexedDB.open('chaffinch');
    request.onsuccess = () => {
      const store = request.result.transaction('entries', 'readwrite').objectStore('entries');
      store.delete(IDBKeyRange.bound('sample ', 'sample!')).onsuccess = () => { request.result.close(); done(); };
    };
  })); // prettier-ignore
  await page.reload();
  await page.getByRole('link', { name: 'Sounds', exact: true }).click();
  await expect(page.getByText('This sound is silent: its recording is not on this device. Load it again, or swap it.')).toBeVisible(); // prettier-ignore
  await load(app, toneWav('Gong.wav', 500, 1));
  await expect(page.getByText(/This sound is silent/)).toHaveCount(0);
});

test('hostile files each get a sentence, and nothing is lost', async ({ app, page }) => {
  test.slow();
  await openSounds(app);
  const before = await soundsOf(app);
  const good = toneWav('good.wav', 100, 0.1).buffer;
  const next = random(11);
  const changed = (at: number, ...values: number[]) => {
    const bytes = Uint8Array.from(good);
    values.forEach((value, i) => (bytes[at + i] = value));
    return bytes;
  };
  const files: Brought[] = [
    wav('empty.wav', new Uint8Array(0)),
    wav('no sound.wav', good.subarray(0, 44)),
    wav('cut off.wav', good.subarray(0, 30)),
    wav('slow.wav', changed(24, 1, 0, 0, 0)),
    wav('none.wav', changed(22, 0, 0)),
    wav('packed.wav', changed(20, 0x11, 0)),
    { name: 'text.mp3', mimeType: 'audio/mpeg', buffer: Buffer.from('I am no sound at all.') },
    { name: 'noise.flac', mimeType: 'audio/flac', buffer: Buffer.concat([Buffer.from('fLaC'), Buffer.from(Array.from({ length: 3000 }, () => Math.floor(next() * 256)))]) }, // prettier-ignore
    { name: 'noise.ogg', mimeType: 'audio/ogg', buffer: Buffer.concat([Buffer.from('OggS'), Buffer.alloc(500, 7)]) },
    { name: 'noise.m4a', mimeType: 'audio/mp4', buffer: Buffer.concat([Buffer.alloc(4), Buffer.from('ftypM4A '), Buffer.alloc(500, 3)]) }, // prettier-ignore
  ];
  for (const file of files) {
    await load(app, file);
    await expect(page.getByText(new RegExp(`“${file.name}” could not be loaded\\. [A-Z].*\\.`))).toBeVisible();
  }
  expect(await soundsOf(app)).toEqual(before);
  // Ones that can be read in spite of what they say: eight channels, a header of 2 GB, numbers that are none.
  const nan = Buffer.from(changed(20, 3, 0, 1, 0, 0x80, 0xbb, 0, 0, 0, 0xee, 2, 0, 4, 0, 32, 0));
  nan.writeFloatLE(NaN, 44);
  nan.writeFloatLE(8, 48);
  for (let at = 52; at + 4 <= nan.length; at += 4) nan.writeFloatLE(0.1, at);
  await load(app, wav('huge.wav', changed(40, 0, 0, 0, 0x7f)), wav('nan.wav', nan));
  await expect(page.getByText(/Loaded onto pads 1 to 2\..*nan\.wav.*no numbers.*louder than full scale/)).toBeVisible();
  await expect.poll(() => samplesTold(app)).toBe(2);
});

test('a sample is recorded from the microphone, by hand or with the next bar; trimmed, levelled, heard, taken', async ({
  app,
  page,
}) => {
  await openSounds(app);
  await app.button('Sound 2 Rim').click();
  await app.button('Record sample').click();
  const start = app.button('Start recording the sample');
  await expect(start).toBeEnabled();
  await expectUsable(page, DIALOG);
  // Its beeps come once a second: without a pause it does not stop itself.
  await start.click();
  const meter = page.getByRole('img', { name: 'Level of the microphone' });
  await expect(meter).toContainText(/^[2-9]\.\d s/);
  await app.button('Stop recording the sample').click();
  const recording = page.getByRole('img', { name: /^Recording, / });
  const seconds = async () => Number(/Recording, ([\d.]+) s/.exec((await recording.getAttribute('aria-label'))!)![1]);
  const whole = await seconds();
  expect(whole).toBeGreaterThan(1.9);
  await expectUsable(page, DIALOG);
  await app.button('Trim').click();
  expect(await seconds()).toBeLessThan(whole);
  await app.button('Level it').click();
  await expect(recording).toHaveAttribute('aria-label', /loudest -1 dB/);
  await app.button('Hear recording').click();
  // Once more, with the song: it waits for the bar, after a count-in, since the song stood still.
  await app.button('Record again').click();
  await app.button('Starts Next bar').click();
  await app.button('Start recording the sample').click();
  await expect(meter).toContainText(/^in \d/);
  await expect(app.stop.first()).toBeVisible();
  await expect(meter).toContainText(/^[1-9]\.\d s/);
  await app.button('Stop recording the sample').click();
  await app.button('Take it').click();
  await expect(page.getByText('Recorded onto pad 2.')).toBeVisible();
  await expect(app.button('Sound 2 Recording')).toBeVisible();
  await expect.poll(() => samplesTold(app)).toBe(1);
  await app.undo.click();
  await expect(app.button('Sound 2 Rim')).toBeVisible();
});

test('where the microphone is not allowed, it is said so', async ({ app, page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await openSounds(app);
  await app.button('Record sample').click();
  await expect(page.getByText(/The browser was not allowed to use the microphone\./)).toBeVisible();
});

test('a sample in Sounds is usable on a phone held both ways and on a desk', async ({ app, page }) => {
  await openSounds(app);
  await load(app, toneWav('Lantern_slide_rattle.wav', 300, 1));
  await expect(app.button('Sound 1 Lantern slide rattle')).toBeVisible();
  await app.button('Sample').click();
  for (const [width, height] of [
    [390, 844],
    [844, 390],
    [1280, 800],
  ] as const) {
    // prettier-ignore
    await page.setViewportSize({ width, height });
    await expect(app.button('Slice')).toBeVisible();
    await expectUsable(page);
  }
});

test('a Move of the start is there for a sample, and not for a made sound', async ({ app, page }) => {
  await openSounds(app);
  await load(app, toneWav('Skate.wav', 300, 1));
  await expect(app.button('Sound 1 Skate')).toBeVisible();
  await page.getByRole('link', { name: 'Steps' }).click();
  await app.button('Moves lane').click();
  await touchItem(page, 'Record Moves');
  await app.strip('Start').fill('25');
  await app.strip('Start').press('Enter');
  await expect.poll(async () => (await heard(page)).applied.some((c) => c.type === 'turn' && c.control === 'start' && c.value === 0.25)).toBe(true); // prettier-ignore
  await choose(app, 'Moves of', 'Snare');
  await expect(app.strip('Resonance')).toBeVisible();
  await expect(app.strip('Start')).toHaveCount(0);
});

/** Pieces of audio that the storage holds. */
const piecesStored = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((done, failed) => {
        const request = indexedDB.open('chaffinch');
        request.onerror = () => failed(request.error!);
        request.onsuccess = () => {
          const keys = request.result.transaction('entries').objectStore('entries').getAllKeys();
          keys.onsuccess = () => {
            request.result.close();
            done(keys.result.filter((key) => String(key).startsWith('audio ')).length);
          };
        };
      }),
  );

test('where the storage fills in the middle of a recording it is said, nothing of it is kept, and what there was stays', async ({
  app,
  page,
}) => {
  // The second of its pieces finds no more room: a piece is a megabyte of text.
  await page.addInitScript(() => {
    const full = { after: Infinity };
    (window as unknown as { full: typeof full }).full = full;
    const put = IDBObjectStore.prototype.put as (this: IDBObjectStore, ...args: unknown[]) => IDBRequest<IDBValidKey>;
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...args: unknown[]) {
      if (JSON.stringify(args).length > 500_000 && full.after-- <= 0) {
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      }
      return put.apply(this, args);
    } as typeof IDBObjectStore.prototype.put;
  });
  await openSounds(app);
  await load(app, toneWav('Kept.wav', 300, 1));
  await expect(app.button('Sound 1 Kept')).toBeVisible();
  await app.savedSet((set) => (set.tracks[0] as Track).kit.pads[0]!.sound.name === 'Kept');
  const before = await app.savedNow();
  await page.evaluate(() => void ((window as unknown as { full: { after: number } }).full.after = 1));
  await app.button('Sound 2 Rim').press('Enter');
  await load(app, toneWav('Too long.wav', 200, 20));
  await expect(page.getByText(/“Too long\.wav” could not be loaded\. The browser has no room for it\./)).toBeVisible();
  expect((await app.savedNow()).tracks).toEqual(before.tracks);
  // Its first piece does not lie about: there is the one of what was kept.
  await expect.poll(() => piecesStored(page)).toBe(1);
  await page.reload();
  await expect(app.button('Sound 1 Kept')).toBeVisible();
  await expect.poll(() => samplesTold(app)).toBe(1);
});
