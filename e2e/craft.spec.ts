import { demoSet, emptySet, type StoredSet } from './support/sets';
import { renderCommands } from '@/core/engine/offline';
import { frameAt } from '@/core/time/timeline';
import { gridTicks, nextLine, type GridName } from '@/core/quantize/grid';
import { soundingHits } from '@/core/sequence/soundingHits';
import { expect, test, type App } from './support/app';
import { drum, drumDuring, drumFreely, steadily, tapToTheCheck, type Stroke } from './support/drummer';
import { differing, heard, listen, onsets, stall } from './support/ear';
import { at, type Command } from '@/core/protocol/commands';

// It is measured when something sounds.
test.use({ warmUp: true });

const KICK = 1;
const SNARE = 3;
const HAT = 5;

const hits = (set: StoredSet) => {
  const { slot } = set.stage.tracks[0]!;
  return set.tracks[0]!.patterns[slot]?.hits ?? [];
};
const repeating = async (app: App, tempo: number, rate: GridName) => {
  await app.store('set', JSON.stringify({ ...emptySet(), tempo, countIn: 0 }));
  await app.store('settings', JSON.stringify({ repeatRate: rate }));
  await app.open();
  await app.button('Note repeat').click();
  await app.play.click();
};

for (const [rate, tempo] of [
  ['1/32', 96],
  ['1/16T', 174],
] as const) {
  test(`note repeat at ${rate}, ${tempo} BPM, the page blocked 300 ms at a time: what is heard is the ideal, to the sample`, async ({
    app,
    page,
  }) => {
    await repeating(app, tempo, rate);
    await listen(page, 0.5);
    await page.keyboard.down('KeyA');
    await stall(page, 300, 8);
    await page.keyboard.up('KeyA');
    await listen(page, 1.5);
    const sound = await heard(page);

    // The ideal: the first stroke where it came, then one on every line of the grid until the key came up.
    const strokes = sound.events.filter((e) => e.kind === 'sounded');
    const anchor = sound.events.filter((e) => e.kind === 'anchor').findLast((e) => e.playing)!;
    const released = sound.applied.find((c) => c.type === 'padUp')!.frame;
    const ideal: number[] = [strokes[0]!.frame];
    for (let line = 0; ;) {
      line = nextLine(line, gridTicks(rate));
      const frame = frameAt(anchor, line);
      if (frame >= released) break;
      if (frame > ideal[0]!) ideal.push(frame);
    }
    expect(ideal.length).toBeGreaterThan(25);
    const quiet = sound.applied.filter((c) => !['padDown', 'padUp', 'noteRepeat'].includes(c.type));
    const struck = ideal.map((frame, i) =>
      at(frame, { type: 'padDown', track: 0, pad: HAT - 1, velocity: 0.8, heard: frame, id: i + 1 }),
    );
    const byFrame = (a: Command, b: Command) => a.frame - b.frame;
    const frames = sound.from + sound.left.length;
    const { left } = renderCommands([...quiet, ...struck].sort(byFrame), sound.sampleRate, frames);
    const skip = Math.max(0, -sound.from);
    expect(left.reduce((most, x) => Math.max(most, Math.abs(x)), 0)).toBeGreaterThan(0.02);
    expect(differing(sound.left.subarray(skip), left.subarray(Math.max(0, sound.from)))).toBe(0);
  });
}

test('a finger slides the rate and presses harder; latched, the roll goes on; it is recorded as ordinary hits', async ({
  app,
  page,
}) => {
  await repeating(app, 120, '1/16');
  await app.record.click();
  await app.tool('Latch');
  const box = (await app.pad(HAT).boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.7);
  await page.mouse.down();
  await listen(page, 0.4);
  await page.mouse.move(box.x + box.width / 2 + 80, box.y + box.height * 0.7 + 30, { steps: 4 });
  await listen(page, 0.4);
  await page.mouse.up();
  await listen(page, 0.4);
  await app.pad(HAT).click();
  const sound = await heard(page);
  const live = sound.events.filter((e) => e.kind === 'sounded').filter((e) => e.live);
  const gaps = live.slice(1).map((e, i) => Math.round(e.struck - live[i]!.struck));
  expect(gaps).toContain(240);
  expect(gaps.at(-1)).toBeLessThan(240);
  expect(live.at(-1)!.velocity).toBeLessThan(live[0]!.velocity);
  const set = await app.savedSet((s) => hits(s).length > 3);
  expect(new Set(hits(set).map((h) => h.id)).size).toBe(hits(set).length);
  expect(hits(set).every((h) => h.pad === HAT - 1 && h.take! >= 1)).toBe(true);
});

test('Keep with the song: the last bars that were played, unarmed, become a pattern that goes on in step @alone', async ({
  app,
  page,
}) => {
  // As many as a slow machine may need until Keep is touched.
  const beats = Array.from({ length: 100 }, (_, i): Stroke => ({
    pad: i % 2 ? SNARE : KICK,
    ms: 2000 + i * 500 + (i % 3) * 9,
  }));
  const start = async () => {
    await app.openSet({ ...emptySet(), tempo: 120, countIn: 0 });
    await app.play.click();
  };
  const keep = async () => {
    await expect(app.position).toHaveText(/^([4-9]|\d\d)\./);
    await app.button('Keep').click();
    await page.getByRole('menuitem', { name: 'Keep 2 bars' }).click();
    await expect(page.getByText(/^Kept 2 bars, \d+ hits/)).toBeVisible();
  };
  await steadily(page, start, () => drumDuring(page, beats, keep));
  const set = await app.savedSet((s) => hits(s).length === 8);
  expect(set.tracks[0]!.patterns[0]).toMatchObject({ name: 'Kept 1', length: 7680 });
  expect(hits(set).map((h) => Math.round(h.tick / 960) + 0)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
  expect(set.tempo).toBe(120);
  await listen(page, 2.5);
  const sound = await heard(page);
  const played = sound.events.filter((e) => e.kind === 'sounded').filter((e) => !e.live);
  expect(played.length).toBeGreaterThan(2);
  expect(played.every((e) => Math.abs(e.placed / 480 - Math.round(e.placed / 480)) < 1e-9)).toBe(true);
  await app.undo.click();
  await app.savedSet((s) => hits(s).length === 0);
});

test('Keep of free playing: tempo and first beat are found, can be halved and nudged, and come along @alone', async ({
  app,
  page,
}) => {
  const eighth = 30000 / 104;
  const strokes: Stroke[] = [];
  for (let i = 0; i < 32; i++) {
    const off = [4, -6, 9, -3, 7][i % 5]!;
    strokes.push({ pad: HAT, ms: i * eighth + off });
    if (i % 4 === 0) strokes.push({ pad: KICK, ms: i * eighth + off + 1 });
    if (i % 4 === 2) strokes.push({ pad: SNARE, ms: i * eighth + off + 1 });
  }
  const fresh = () => app.openSet({ ...emptySet(), tempo: 140 });
  await steadily(page, fresh, () => drumFreely(page, strokes));
  await app.button('Keep').click();
  const tempo = page.getByRole('spinbutton', { name: 'Estimated tempo' });
  const found = Number(await tempo.inputValue());
  expect(Math.abs(found / 104 - 1)).toBeLessThan(0.01);
  await app.button('Halve estimated tempo').click();
  await expect(tempo).toHaveValue(/^5[12]/);
  await app.button('Double estimated tempo').click();
  await app.button('One and a half times estimated tempo').click();
  await expect(tempo).toHaveValue(/^15[56]/);
  await app.button('Two thirds of estimated tempo').click();
  // With the first beat an eighth earlier, every stroke lies an eighth later in its bar.
  const kicksOf = (set: StoredSet) => hits(set).filter((h) => h.pad === KICK - 1).map((h) => Math.round(h.tick / 240) + 0); // prettier-ignore
  await app.button('First beat an eighth earlier').click();
  await page.getByRole('menuitem', { name: 'Keep 2 bars' }).click();
  const late = await app.savedSet((s) => hits(s).length > 0);
  expect(kicksOf(late).map((place) => place % 8)).toEqual([2, 2, 2, 2]);
  await app.undo.click();
  await app.savedSet((s) => hits(s).length === 0);
  await app.button('Keep').click();
  await page.getByRole('menuitem', { name: 'Keep 4 bars' }).click();
  const set = await app.savedSet((s) => hits(s).length > 0);
  expect(Math.abs(set.tempo / 104 - 1)).toBeLessThan(0.01);
  expect(hits(set)).toHaveLength(strokes.length);
  expect(kicksOf(set)).toEqual([0, 8, 16, 24, 32, 40, 48, 56]);
  await app.undo.click();
  const back = await app.savedSet((s) => hits(s).length === 0);
  expect(back.tempo).toBe(140);
});

test('Feel: hits that would meet are told before; swing is heard at once; as played by holding; taken away, nothing is changed', async ({
  app,
  page,
}) => {
  await app.openSet(demoSet());
  await app.play.click();
  await app.tool('Feel');
  await app.button('Treat Closed hat').click();
  await app.button('Feel grid 1/4').click();
  await expect(page.getByRole('alert')).toContainText('8 hits land on a step');
  await app.button('Leave the grid as it is').click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText(/Closed hat has 8 hits between the lines of 1\/8/)).toBeVisible();
  await app.button('Use 1/16 for Closed hat').click();
  await app.strip('Swing').focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press('PageUp');
  await expect(app.strip('Swing')).toHaveAttribute('aria-valuetext', '60 %, 60 : 40');
  const set = await app.savedSet((s) => s.tracks[0]!.patterns[0]!.lanes?.[0]?.feel?.swing?.ratio === 0.6);
  expect(set.tracks[0]!.patterns[0]!.lanes).toMatchObject([{ pad: 4, feel: { grid: 240, strength: 1 } }]);
  const raw = demoSet().tracks[0]!.patterns[0]!;
  expect(hits(set)).toEqual(raw.hits);

  const hats = async (from: number) => {
    const { events } = await heard(page);
    return events.filter((e) => e.kind === 'sounded').filter((e) => e.pad === 4 && e.frame > from);
  };
  const mark = (await heard(page)).events.at(-1)!.frame;
  await listen(page, 3);
  // Second sixteenths at 60 % of an eighth of 480 ticks: 288.
  const within = (await hats(mark)).map((e) => Math.round((e.placed % 480) * 1000) / 1000);
  expect([...new Set(within)].sort((a, b) => a - b)).toEqual([0, 288]);

  const hold = (await app.button('As played').boundingBox())!;
  await page.mouse.move(hold.x + 20, hold.y + 20);
  await page.mouse.down();
  await listen(page, 0.5);
  const held = (await heard(page)).events.at(-1)!.frame;
  await listen(page, 2);
  expect((await hats(held)).every((e) => Math.abs(e.placed - e.struck) < 1e-9)).toBe(true);
  await page.mouse.up();
  await app.button('Remove Feel').click();
  const after = await app.savedSet((s) => s.tracks[0]!.patterns[0]!.lanes === undefined);
  expect(after.tracks[0]!.patterns[0]).toEqual(raw);
});

test('loudness: ghost notes for a lane, accents, and back; chosen hits alone', async ({ app, page }) => {
  await app.openSet(demoSet());
  await app.tool('Feel');
  await app.button('Treat Shaker').click();
  await app.button('Ghost notes').click();
  await app.button('Accent beat 2').click();
  const set = await app.savedSet((s) => s.tracks[0]!.patterns[0]!.lanes?.[0]?.loudness?.accents !== undefined);
  expect(set.tracks[0]!.patterns[0]!.lanes).toMatchObject([{ pad: 12, loudness: { even: 1, accents: { at: [960] } } }]);
  expect(hits(set)).toEqual(demoSet().tracks[0]!.patterns[0]!.hits);
  await app.undo.click();
  await app.undo.click();
  await app.savedSet((s) => s.tracks[0]!.patterns[0]!.lanes === undefined);
  // A tap on the second beat's quill chooses it alone.
  await app.button('Treat Kick').click();
  const lane = (await page.getByLabel('Choose hits').boundingBox())!;
  await page.mouse.click(lane.x + lane.width / 8 + 1, lane.y + lane.height / 2);
  await expect(app.button('Treat chosen hits')).toHaveText('1 chosen');
  await app.button('Level all').click();
  await app.savedSet((s) => hits(s).filter((h) => h.loudness).length === 1);
});

test('takes: each pass is listed, heard alone, dropped and brought back; good bars are cropped and doubled @alone', async ({
  app,
  page,
}) => {
  const record = async () => {
    await app.openSet({ ...emptySet(), tempo: 120, countIn: 0 });
    await app.record.click();
    await app.play.click();
  };
  const strokes = [
    ...[500, 1000, 1500].map((ms): Stroke => ({ pad: KICK, ms: ms + 12 })),
    ...[2500, 3000].map((ms): Stroke => ({ pad: SNARE, ms: ms - 9 })),
  ];
  await steadily(page, record, () => drum(page, strokes));
  await listen(page, 0.5);
  await app.record.click();
  await app.tool('Takes');
  await expect(page.getByText('Snare · 2 hits')).toBeVisible();
  await expect(page.getByText('Kick · 3 hits')).toBeVisible();
  await expect(page.getByRole('img', { name: /^Take 2: .* early, spread/ })).toBeVisible();
  await app.button('Hear take 2 alone').click();
  await listen(page, 0.3);
  const mark = (await heard(page)).events.at(-1)!.frame;
  await listen(page, 2.2);
  const alone = (await heard(page)).events.filter((e) => e.kind === 'sounded').filter((e) => e.frame > mark);
  expect(new Set(alone.map((e) => e.pad))).toEqual(new Set([SNARE - 1]));
  await app.button('Hear take 2 alone').click();
  await app.button('Drop take 2').click();
  await app.savedSet((s) => hits(s).length === 3);
  await page.getByRole('button', { name: 'Undo this' }).click();
  await app.savedSet((s) => hits(s).length === 5);
  await app.button('Double with repeat').click();
  await app.savedSet((s) => hits(s).length === 10 && s.tracks[0]!.patterns[0]!.length === 7680);
  await app.button('First good bar 2').click();
  await app.button('Crop to these bars').click();
  const cropped = await app.savedSet((s) => s.tracks[0]!.patterns[0]!.length === 3840);
  expect(soundingHits(cropped.tracks[0]!.patterns[0]!)).toHaveLength(5);
  expect(hits(cropped)).toHaveLength(10); // the other bar waits on the tape
});

test('step input: a press enters and goes on, held pads share a step, a rest and the arrows move', async ({
  app,
  page,
}) => {
  await app.openSet(emptySet());
  await app.chooseGrid('1/8');
  await app.tool('Step input');
  const step = page.getByRole('status', { name: 'Step' });
  await expect(step).toHaveText('1.1');
  await app.pad(KICK).click();
  await expect(step).toHaveText('1.1 +50 %');
  await app.button('Rest').click();
  await page.keyboard.down('KeyZ');
  await page.keyboard.down('KeyC');
  await page.keyboard.up('KeyZ');
  await page.keyboard.up('KeyC');
  await expect(step).toHaveText('1.2 +50 %');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('KeyA');
  const set = await app.savedSet((s) => hits(s).length === 4);
  expect(hits(set).map((h) => [h.pad, h.tick])).toEqual([
    [0, 0],
    [0, 960],
    [2, 960],
    [4, 1920],
  ]);
  await app.undo.click();
  await app.savedSet((s) => hits(s).length === 3);
});

test('a meter of three: bars, count-in and loop follow; a metronome for the count-in only is silent after it', async ({
  app,
  page,
}) => {
  await app.openSet({ ...emptySet(), tempo: 100 });
  await app.menu('Setup');
  await app.button('Meter 3/4').click();
  await app.button('Click when Count-in only').click();
  await app.button('Click sound Tick').click();
  await app.button('Close setup').click();
  await app.timeKey('Metronome');
  const set = await app.savedSet((s) => s.metronome.on && s.meter.beats === 3);
  expect(set.metronome).toMatchObject({ when: 'countIn', sound: 'tick' });
  expect(set.tracks[0]!.patterns[0]!.length).toBe(2880);
  await expect(page.getByRole('spinbutton', { name: 'Loop length' })).toHaveAttribute('aria-valuenow', '1');
  await app.record.click();
  await app.watchPositions();
  await app.play.click();
  await expect.poll(() => app.positions()).toEqual(expect.arrayContaining(['0.3', '2.1']));
  await listen(page, 1);
  const sound = await heard(page);
  expect(onsets(sound, 0.01, Math.round(sound.sampleRate * 0.2))).toHaveLength(3);
});

test('the latency check finds a delay of 37 ms, corrects it, and a second reading tells that it helped @alone', async ({
  app,
  page,
}) => {
  await app.open();
  await app.menu('Setup');
  await app.button('Latency check').click();
  const tapAlong = async () => {
    await tapToTheCheck(page, 37);
    await expect(app.button('Start latency check')).toHaveText('Check again');
  };
  const check = () => steadily(page, async () => {}, tapAlong, 2);
  await check();
  await expect(page.getByText(/^[5-8] taps by touch: [34]\d(\.\d)? ms after the click/)).toBeVisible();
  await app.button('Use this correction').click();
  const field = page.getByRole('spinbutton', { name: 'Touch correction' });
  const corrected = Number(await field.inputValue());
  expect(Math.abs(corrected - 37)).toBeLessThanOrEqual(3);
  await check();
  await expect(page.getByText(/The correction helped: it was [34]\d ms before\./)).toBeVisible();
  await expect
    .poll(
      async () => (JSON.parse((await app.stored('settings')) ?? '{}') as { latencyMs?: { touch?: number } }).latencyMs,
    )
    .toEqual({ touch: corrected });
});
