import type { Mix } from '@/core/document/mix';
import { demoSet, emptySet, type StoredSet } from './support/sets';
import { renderCommands } from '@/core/engine/offline';
import { openLaunch } from './support/launch';
import { expect, test } from './support/app';
import { differing, heard, listen, of, onsets, stall, type Heard } from './support/ear';

// It is measured when something sounds.
test.use({ warmUp: true });

/** One closed hat on every beat. */
function hatSet(tempo: number): StoredSet {
  const set = emptySet();
  set.tempo = tempo;
  set.tracks[0]!.patterns[0]!.hits = [0, 1, 2, 3].map((beat) => ({
    id: beat + 1,
    pad: 4,
    tick: beat * 960,
    length: 120,
    velocity: 1,
    snap: null,
  }));
  return set;
}

/** Renders the engine's own log again, for the frames that were heard. */
function again(sound: Heard, blockSize: number) {
  const skip = Math.max(0, -sound.from);
  const frames = sound.from + sound.left.length;
  const { left, right } = renderCommands(sound.applied, sound.sampleRate, frames, blockSize);
  return {
    left: differing(sound.left.subarray(skip), left.subarray(Math.max(0, sound.from))),
    right: differing(sound.right.subarray(skip), right.subarray(Math.max(0, sound.from))),
    loudest: sound.left.reduce((most, x) => Math.max(most, Math.abs(x)), 0),
  };
}

test('every hit of a loop is heard within a sample of its time while the page is blocked 400 ms at a time', async ({
  app,
  page,
}) => {
  const tempo = 75; // a hat every 800 ms leaves silence to find its onset in
  await app.openSet(hatSet(tempo));
  await app.play.click();
  await listen(page, 2);
  await stall(page, 400, 12);
  await listen(page, 4);
  const sound = await heard(page);
  const found = onsets(sound, 1e-5, Math.round(sound.sampleRate * 0.1));
  const beat = (60 / tempo) * sound.sampleRate; // common practice: a quarter lasts 60000 / BPM ms
  const heardBeats = Math.floor((sound.from + sound.left.length - found[0]!) / beat);
  expect(found.length).toBeGreaterThanOrEqual(heardBeats);
  expect(found.length).toBeGreaterThan(10);
  const worst = Math.max(...found.map((frame, i) => Math.abs(frame - found[0]! - i * beat)));
  expect(worst).toBeLessThanOrEqual(1);
});

test('what is heard is what Node renders from the log, to the sample, at any block size', async ({ app, page }) => {
  await app.openSet(demoSet());
  await app.timeKey('Metronome');
  await app.play.click();
  await listen(page, 3);
  await app.pad(3).click();
  await app.setTempo(140);
  await app.pad(7).click({ position: { x: 10, y: 60 } });
  await stall(page, 400, 2);
  await app.setTempo('87.5');
  await listen(page, 2);
  await app.stop.click();
  await listen(page, 1);
  const sound = await heard(page);
  for (const blockSize of [128, 997, 4096]) {
    const { left, right, loudest } = again(sound, blockSize);
    expect(loudest).toBeGreaterThan(0.2);
    expect({ blockSize, left, right }).toEqual({ blockSize, left: 0, right: 0 });
  }
});

test('a launched performance, notes and Lift among it, is what Node renders from its log, to the sample', async ({
  app,
  page,
}) => {
  const set = demoSet();
  const tracks = { ...set.tracks };
  tracks[0] = { ...tracks[0]!, goesTo: 2, channel: { low: 3, ratio: 4, threshold: -20 } };
  tracks[3] = { ...tracks[3]!, channel: { echo: 0.5, room: 0.3, filter: -0.3, pan: -0.4 } };
  const mix: Mix = {
    ...set.mix,
    groups: [...set.mix!.groups!, { id: 2, name: 'Drums', colour: 0, level: 0.8, settings: { bell: -4 } }],
    whole: { high: 2 },
  };
  await openLaunch(app, { ...set, tracks, mix, launching: { ...set.launching, dropOn: 'beat' } });
  await app.button('Section Fast Laps').click();
  await app.play.click();
  await listen(page, 1);
  await app.button('Lamps Blink').click();
  await app.button('Mute Rails').click();
  await stall(page, 400, 2);
  await page.keyboard.down('l');
  await app.button('Wheels Brake').click();
  await app.button('Kerb Low Kerb').click();
  await listen(page, 1);
  await app.setTempo(131);
  await page.keyboard.up('l');
  await listen(page, 1);
  await app.button('Section Last Lap').click();
  await app.button('Launching').click();
  await app.button('Fade out over 1 bar').click();
  await listen(page, 3);
  await app.stop.click();
  await listen(page, 0.5);
  const sound = await heard(page);
  expect(new Set(of(sound.events, 'loop').map((e) => `${e.track} ${e.slot}`)).size).toBeGreaterThan(9);
  for (const blockSize of [128, 997]) {
    const { left, right, loudest } = again(sound, blockSize);
    expect(loudest).toBeGreaterThan(0.2);
    expect({ blockSize, left, right }).toEqual({ blockSize, left: 0, right: 0 });
  }
});
