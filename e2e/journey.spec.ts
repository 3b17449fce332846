import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { soundingHits } from '@/core/sequence/soundingHits';
import { expect, test } from './support/app';
import { drum, steadily, tapEvenly, type Stroke } from './support/drummer';
import { heard, listen, onsets } from './support/ear';

// It is measured when something sounds.
test.use({ warmUp: true });

const KICK = 1;
const SNARE = 3;
const HAT = 5;

/** Plays notes of a one-bar loop in one pass, each a little off, as hands are. */
function pass(bpm: number, index: number, pad: number, eighths: number[], off: number[]): Stroke[] {
  const eighth = 30000 / bpm;
  return eighths.map((e, i) => ({ pad, ms: (index * 8 + e) * eighth + off[i % off.length]! }));
}

test('tap a beat in over a click, hear it loop, undo, keep it, carry it away @alone', async ({ app, page }) => {
  await app.open();
  await app.menu('Start empty');

  // The tempo, by tapping.
  await tapEvenly(page, 'Tap tempo', 60000 / 110, 6);
  await expect(app.tempo).toHaveValue('110');
  const bpm = 100;

  // Click on, a bar counted in, and three passes over one bar.
  let mark = 0;
  const countIn = async () => {
    if (await app.stop.isVisible()) {
      await app.stop.click();
      // On a slow machine the engine says only a little later that it has stopped.
      await expect(app.play).toBeVisible();
      await app.stop.click(); // back to the top: the song is counted in from where it stands
      await expect(app.stop).toBeHidden();
      await app.menu('Start empty');
    }
    await app.setTempo(bpm);
    const click = app.button('Metronome');
    if ((await click.getAttribute('aria-pressed')) !== 'true') await click.click();
    await expect(click).toHaveAttribute('aria-pressed', 'true');
    await app.countIn('1 bar');
    await app.record.click();
    await expect(app.record).toHaveAttribute('aria-pressed', 'true');
    mark = (await heard(page)).left.length;
    await app.watchPositions();
    await app.play.click();
  };
  const strokes = [
    ...pass(bpm, 0, KICK, [0, 2, 4, 6], [-22, 14, -9, 25]),
    ...pass(bpm, 1, SNARE, [2, 6], [18, -20]),
    ...pass(bpm, 2, HAT, [0, 1, 2, 3, 4, 5, 6, 7], [-24, 11, 20, -15, 3, -8, 24, -19]),
  ];
  await steadily(page, countIn, () => drum(page, strokes));
  expect(await app.positions()).toContainEqual(expect.stringMatching(/^0\.[1-4]$/));
  await expect(app.position).toHaveText(/^([4-9]|\d\d)\./);
  await listen(page, 2.5);
  await app.stop.click();
  await expect(app.record).toHaveAttribute('aria-pressed', 'false');

  // The count-in was heard: four clicks a beat apart, before anything else.
  const sound = await heard(page);
  const clicks = onsets({ ...sound, left: sound.left.slice(mark), right: sound.right.slice(mark) }, 0.01, 12000).slice(
    0,
    4,
  );
  const beat = (60 / bpm) * sound.sampleRate;
  expect(clicks.map((frame) => Math.round(((frame - clicks[0]!) / beat) * 100) / 100)).toEqual([0, 1, 2, 3]);

  // Every hit landed on the grid, and where it was struck is kept.
  const played = await app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === 14);
  const pattern = played.tracks[0]!.patterns[0]!;
  const places = (pad: number) => soundingHits(pattern).filter((h) => h.pad === pad - 1).map((h) => h.tick / 480); // prettier-ignore
  expect(places(KICK)).toEqual([0, 2, 4, 6]);
  expect(places(SNARE)).toEqual([2, 6]);
  expect(places(HAT)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
  expect(pattern.hits.every((hit) => hit.tick % 120 !== 0)).toBe(true);

  // A bad pass is undone, and redone, and undone.
  await app.undo.click();
  await app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === 6);
  await app.redo.click();
  await app.savedSet((set) => set.tracks[0]!.patterns[0]!.hits.length === 14);
  await app.undo.click();

  // Another tempo; the page is loaded again; the beat is there.
  await app.setTempo(112);
  const kept = await app.savedSet((set) => set.tempo === 112);
  await page.reload();
  await expect(app.tempo).toHaveValue('112');
  expect(kept.tracks[0]!.patterns[0]!.hits).toHaveLength(6);

  // And it leaves as a MIDI file that other software opens.
  const download = page.waitForEvent('download');
  await app.menu('Export MIDI');
  const file = await (await download).path();
  const { stdout, stderr } = spawnSync('/usr/bin/python3', ['-c', MIDO, file], { encoding: 'utf8' });
  expect(stderr).toBe('');
  expect(JSON.parse(stdout)).toEqual({
    tempo: 535714,
    notes: [
      [0, 36],
      [960, 36],
      [960, 38],
      [1920, 36],
      [2880, 36],
      [2880, 38],
    ],
  });
  expect(readFileSync(file).subarray(0, 4).toString()).toBe('MThd');
});

const MIDO = `
import mido, json, sys
m = mido.MidiFile(sys.argv[1])
now, notes, tempo = 0, [], None
for t in m.tracks:
    now = 0
    for e in t:
        now += e.time
        if e.type == 'set_tempo': tempo = e.tempo
        if e.type == 'note_on' and e.velocity > 0: notes.append([now, e.note])
print(json.dumps(dict(tempo=tempo, notes=sorted(notes))))`;
