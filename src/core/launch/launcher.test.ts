import { band, section } from './band.testing';
import { BAR, BEAT, PLAY, Rig } from '../engine/rig.testing';
import { CHAIN, LEAVE, NO_SECTION, SILENT, THEN_STOP } from './launchState';
import { LIFT } from './launcher';
import { LOOP_END } from './launchRules';

/** Ticks of a quarter. */
const QUARTER = 960;

/** What sounded: beat, track, slot. */
const strokes = (rig: Rig) => rig.of('sounded').map(({ frame, track, id }) => [frame / BEAT, track, ((id - 1) / 2) % 100]); // prettier-ignore

describe('launching', () => {
  test('twelve patterns of seven lengths that wait for one bar line change on one sample, and begin there', () => {
    const lengths = [3, 4, 5, 7, 12, 16, 28].map((steps) => steps * 240);
    const rig = new Rig();
    const tracks = Array.from({ length: 12 }, (_, t) => t);
    band(rig, tracks.map((t) => [lengths[t % 7]!, lengths[(t + 3) % 7]!])); // prettier-ignore
    for (const t of tracks) rig.tell({ type: 'launch', track: t, slot: 0, on: 0, inPlace: false });
    rig.tell({ type: 'tempo', bpm: 117.3 }, PLAY).runTo(60000);
    for (const t of tracks)
      rig.tell({ type: 'launch', track: t, slot: 1, on: BAR, inPlace: false }).runTo(60000 + (t + 1) * 997);
    rig.tell({ type: 'tempo', bpm: 163.1 }).runTo(48000 * 6);
    const changes = rig.of('loop').filter((e) => e.slot === 1);
    expect(changes).toHaveLength(12);
    const [{ frame, tick }] = changes as [(typeof changes)[0]];
    expect(tick % BAR).toBe(0);
    expect(new Set(changes.map((e) => e.frame))).toEqual(new Set([frame]));
    const first = (t: number) => rig.of('sounded').find((e) => e.track === t && e.id % 200 === 3)!;
    for (const t of tracks) expect(first(t).frame).toBe(frame);
    // And nothing of the old ones from there on.
    expect(rig.of('sounded').filter((e) => e.frame >= frame && e.id % 200 === 1)).toEqual([]);
  });

  test.each<[string, number, number]>([
    ['now', 0, 5.25],
    ['the next beat', QUARTER, 6],
    ['the next bar', BAR, 8],
    ['the loop’s end', LOOP_END, 6],
    ['two bars', 2 * BAR, 8],
    ['four bars', 4 * BAR, 16],
  ])('drops on %s', (_, on, beat) => {
    const rig = band(new Rig(), [[3 * QUARTER, QUARTER]]);
    rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, PLAY).runTo(BEAT * 5.25);
    rig.tell({ type: 'launch', track: 0, slot: 1, on, inPlace: false }).runTo(BEAT * 17);
    const first = strokes(rig).find(([, , slot]) => slot === 1)!;
    expect(Math.abs(first[0]! * BEAT - beat * BEAT)).toBeLessThanOrEqual(1);
  });

  test('goes on in place, in the phase of what it replaces', () => {
    const rig = band(new Rig(), [[BAR, 3 * QUARTER]]);
    rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, PLAY).runTo(BEAT * 3.5);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: QUARTER, inPlace: true }).runTo(BEAT * 13);
    expect(strokes(rig)).toEqual([[0, 0, 0], [6, 0, 1], [9, 0, 1], [12, 0, 1]]); // prettier-ignore
  });

  test('tells what waits with the tick at which it comes, and keeps it through tempo changes', () => {
    const rig = band(new Rig(), [[BAR, BAR]]);
    rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, PLAY).runTo(BEAT);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: 2 * BAR, inPlace: false }).runTo(BEAT * 2);
    const told = rig.of('waiting').at(-1)!;
    expect([told.next, told.nextTick]).toEqual([1, 2 * BAR]);
    rig
      .tell({ type: 'tempo', bpm: 60 })
      .runTo(BEAT * 4)
      .tell({ type: 'tempo', bpm: 181 })
      .runTo(48000 * 10);
    const change = rig.of('loop').find((e) => e.slot === 1)!;
    expect(change.tick).toBe(2 * BAR);
    // The sample on which it happened is that tick, by the anchors that the engine reported.
    const anchor = rig.of('anchor').findLast((a) => a.frame <= change.frame)!;
    expect(change.frame).toBe(Math.round(anchor.frame + (2 * BAR - anchor.tick) * anchor.framesPerTick));
    expect(rig.of('waiting').at(-1)!.nextTick).toBe(Infinity);
  });

  test('what waits can be moved to another line, and taken back', () => {
    const rig = band(new Rig(), [[BAR, QUARTER]]);
    rig.tell(PLAY).runTo(BEAT);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false },
        { type: 'moveLaunch', track: 0, tick: 6 * QUARTER },
      )
      .runTo(BEAT * 7.5);
    expect(strokes(rig).map(([beat]) => beat)).toEqual([6, 7]);
    rig
      .tell({ type: 'launch', track: 0, slot: SILENT, on: BAR, inPlace: false }, { type: 'cancelLaunch', track: 0 })
      .runTo(BEAT * 9.5);
    expect(strokes(rig).map(([beat]) => beat)).toEqual([6, 7, 8, 9]);
  });

  test('in a count-in it is there when the count-in ends', () => {
    const rig = band(new Rig(), [[BAR, BAR]]);
    rig.tell({ type: 'play', startTick: 0, countInTicks: BAR }).runTo(BEAT * 2);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: 4 * BAR, inPlace: false }).runTo(BEAT * 5);
    expect(strokes(rig)).toEqual([[4, 0, 1]]);
  });

  test('stopped, the song keeps what plays and forgets what waited', () => {
    const rig = band(new Rig(), [[QUARTER, QUARTER]]);
    rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, PLAY).runTo(BEAT * 1.5);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false },
        { type: 'stop' },
        { type: 'locate', tick: 0 },
        PLAY,
      )
      .runTo(BEAT * 7);
    expect(new Set(strokes(rig).map(([, , slot]) => slot))).toEqual(new Set([0]));
  });
});

describe('recording across a change of pattern', () => {
  const armed = () =>
    band(new Rig(), [[BAR, BAR]]).tell({ type: 'inputQuantize', grid: 240, on: true }, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, { type: 'record', on: true, session: 1 }, PLAY); // prettier-ignore

  test('a stroke just before the change belongs to the first step of the pattern that comes', () => {
    const rig = armed().runTo(BEAT);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false }).strike(BEAT * 4 - 700, 2, 51).runTo(BEAT * 9); // prettier-ignore
    expect(rig.of('recorded')).toMatchObject([{ id: 51, slot: 1, struck: -28 }]);
    expect(
      rig
        .of('sounded')
        .filter((e) => e.pad === 2)
        .map((e) => e.frame / BEAT),
    ).toEqual([4 - 700 / BEAT, 8]);
  });

  test('a stroke that was heard before the change, and told of after it, belongs to the pattern that was heard', () => {
    const rig = armed().runTo(BEAT);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false }).strike(BEAT * 4 + 1000, 2, 51, 8000).runTo(BEAT * 9); // prettier-ignore
    expect(rig.of('recorded')).toMatchObject([{ id: 51, slot: 0, struck: 4 * QUARTER - 280 }]);
    expect(rig.of('sounded').filter((e) => e.pad === 2 && !e.live)).toEqual([]);
  });
});

describe('sections and chains', () => {
  test('a section goes round as often as it says, then goes to the next, and at last everything stops', () => {
    const rig = band(new Rig(), [[BAR, QUARTER], [2 * BAR, QUARTER]]); // prettier-ignore
    rig.tell({ type: 'sections', sections: [section(0, [0, 0], 2, 1), section(1, [1, LEAVE], 1, THEN_STOP)] });
    rig.tell({ type: 'launchSection', section: 0, on: 0, inPlace: false }, PLAY).runTo(BEAT * 30);
    const changes = rig.of('loop').filter((e) => e.frame > 0).map((e) => [e.tick / BAR, e.track, e.slot]); // prettier-ignore
    // Its longest loop has two bars: two rounds are four. The second has one bar, and leaves the second track as it is.
    expect(changes).toEqual([[4, 0, 1], [5, 0, SILENT], [5, 1, SILENT]]); // prettier-ignore
  });

  test('what hands queue for the line on which a section follows has the last word', () => {
    const rig = band(new Rig(), [[BAR, BAR, BAR]]);
    rig
      .tell(
        { type: 'sections', sections: [section(0, [0], 1, 1), section(1, [1])] },
        { type: 'launchSection', section: 0, on: 0, inPlace: false },
        PLAY,
      )
      .runTo(BEAT);
    rig.tell({ type: 'launch', track: 0, slot: 2, on: BAR, inPlace: false }).runTo(BEAT * 6);
    expect(rig.of('loop').at(-1)).toMatchObject({ slot: 2, tick: BAR });
    expect(rig.of('launcher').findLast((e) => !e.beneath)).toMatchObject({ section: 1, nextSection: NO_SECTION });
  });

  test('a chain of four patterns goes through them, each as often as it says, and begins again', () => {
    const rig = band(new Rig(), [[QUARTER, 2 * QUARTER, 3 * QUARTER, 5 * QUARTER]]);
    const links = [[0, 2], [1, 1], [2, 1], [3, 1]].map(([slot, times]) => ({ slot: slot!, times: times! })); // prettier-ignore
    rig.tell({ type: 'chain', track: 0, chain: { links, again: true } }, PLAY).runTo(BEAT * 0.5);
    rig.tell({ type: 'launch', track: 0, slot: CHAIN, on: QUARTER, inPlace: false }).runTo(BEAT * 14.5);
    const changes = rig.of('loop').filter((e) => e.slot >= 0 && e.frame > 0).map((e) => [e.tick / QUARTER, e.slot]); // prettier-ignore
    expect(changes).toEqual([[1, 0], [3, 1], [5, 2], [8, 3], [13, 0]]); // prettier-ignore
  });
});

describe('Lift', () => {
  const playing = () => {
    const rig = band(new Rig(), [[3 * QUARTER, QUARTER], [BAR, QUARTER], [BAR, QUARTER]]); // prettier-ignore
    rig.tell({ type: 'sections', sections: [section(0, [SILENT, 1, 1])] });
    rig.tell(
      { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
      { type: 'launch', track: 1, slot: 0, on: 0, inPlace: false },
      PLAY,
    );
    return rig.runTo(BEAT * 1.5);
  };
  test('brings back what played and where it was, through launches, sections, mutes and tempo', () => {
    const untouched = playing().runTo(BEAT * 30);
    const rig = playing().tell({ type: 'lift', held: true, on: BAR });
    rig
      .tell(
        { type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false },
        { type: 'muteSolo', track: 1, mute: 1, solo: 0, on: 0 },
      )
      .runTo(BEAT * 2.5);
    rig
      .tell(
        { type: 'launchSection', section: 0, on: QUARTER, inPlace: false },
        { type: 'launch', track: 2, slot: 1, on: 0, inPlace: false },
        { type: 'tempo', bpm: 90 },
      )
      .runTo(BEAT * 4);
    rig.tell({ type: 'tempo', bpm: 120 }).runTo(BEAT * 5).tell({ type: 'lift', held: false, on: BAR }); // prettier-ignore
    expect(
      rig
        .runTo(BEAT * 5.1)
        .of('launcher')
        .at(-1),
    ).toMatchObject({ lift: LIFT.RETURNING, liftTick: 2 * BAR });
    rig.runTo(BEAT * 30);
    expect(rig.of('launcher').findLast((e) => !e.beneath)!.lift).toBe(LIFT.NONE);
    const back = rig.of('loop').filter((e) => e.tick === 2 * BAR);
    // Three beats and four, from where they would have been; the third track is silent again.
    expect(back.map((e) => [e.track, e.slot, e.launchTick])).toEqual([[0, 0, 0], [1, 0, 0], [2, SILENT, expect.any(Number)]]); // prettier-ignore
    // From there on every stroke has the song tick that it would have had.
    const ticks = (r: Rig) => r.of('sounded').filter((e) => e.placed >= 2 * BAR && e.placed < 5 * BAR).map((e) => `${e.track} ${e.id} ${e.placed}`); // prettier-ignore
    expect(ticks(rig)).toEqual(ticks(untouched));
    expect(ticks(rig).length).toBeGreaterThan(6);
    expect(
      rig
        .of('waiting')
        .filter((e) => e.track === 1)
        .at(-1)!.muted,
    ).toBe(0);
  });

  test('pressed before the song begins, it brings back what would have begun with it', () => {
    const rig = band(new Rig(), [[3 * QUARTER, QUARTER]]).tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, PLAY).runTo(BEAT * 2); // prettier-ignore
    rig.tell(
      { type: 'launch', track: 0, slot: 1, on: 0, inPlace: false },
      { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
      { type: 'stop' },
      { type: 'locate', tick: 0 },
      { type: 'lift', held: true, on: 0 },
    );
    rig.tell({ type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false }, PLAY).runTo(BEAT * 4.5).tell({ type: 'lift', held: false, on: 0 }); // prettier-ignore
    rig.runTo(BEAT * 12);
    expect(rig.of('loop').at(-1)).toMatchObject({ slot: 0, launchTick: 0 });
  });

  test('what waited when it was pressed has come meanwhile; pressed again before the line, it goes on', () => {
    const rig = playing().tell({ type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false }, { type: 'lift', held: true, on: 0 }).runTo(BEAT * 2); // prettier-ignore
    rig.tell({ type: 'launch', track: 1, slot: SILENT, on: 0, inPlace: false }).runTo(BEAT * 5.5);
    rig.tell({ type: 'lift', held: false, on: BAR }).runTo(BEAT * 6).tell({ type: 'lift', held: true, on: 0 }).runTo(BEAT * 9.5); // prettier-ignore
    expect(rig.of('loop').findLast((e) => e.track === 1)!.slot).toBe(SILENT);
    rig.tell({ type: 'lift', held: false, on: 0 }).runTo(BEAT * 10);
    expect(rig.of('loop').findLast((e) => e.track === 1)).toMatchObject({ slot: 0, launchTick: 0 });
    expect(rig.of('loop').findLast((e) => e.track === 0)).toMatchObject({ slot: 1, launchTick: BAR });
  });
});

describe('stopping everything', () => {
  test('drops on its line, or at once, and nothing follows', () => {
    const rig = band(new Rig(), [[QUARTER], [QUARTER]]);
    rig
      .tell(
        { type: 'sections', sections: [section(0, [0, 0], 8, 0)] },
        { type: 'launchSection', section: 0, on: 0, inPlace: false },
        PLAY,
      )
      .runTo(BEAT * 1.5);
    rig.tell({ type: 'stopAll', on: BAR }).runTo(BEAT * 6);
    expect(Math.max(...strokes(rig).map(([beat]) => beat!))).toBe(3);
    rig.tell({ type: 'launchSection', section: 0, on: QUARTER, inPlace: false }).runTo(BEAT * 8.5).tell({ type: 'stopAll', on: BAR }, { type: 'stopAll', on: 0 }).runTo(BEAT * 20); // prettier-ignore
    expect(Math.max(...strokes(rig).map(([beat]) => beat!))).toBe(8);
  });

  test('a fade goes down evenly over its bars, ends in silence and gives the level back', () => {
    const rig = band(new Rig(), [[QUARTER / 4]]);
    rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, PLAY).runTo(BEAT);
    rig.tell({ type: 'fade', ticks: 2 * BAR, on: BAR });
    const loudest: number[] = [];
    for (let beat = 1; beat < 14; beat++) {
      let most = 0;
      for (let f = rig.engine.frame; f < (beat + 1) * BEAT; f += 128) {
        rig.runTo(Math.min(f + 128, (beat + 1) * BEAT));
        for (const x of rig.left) most = Math.max(most, Math.abs(x));
      }
      loudest.push(most);
    }
    const [, , full, ...faded] = loudest;
    for (let i = 1; i < 8; i++) expect(faded[i]!).toBeLessThan(faded[i - 1]!);
    expect(faded[4]! / full!).toBeLessThan(0.35);
    expect(faded.slice(9).every((x) => x < 0.001)).toBe(true);
    rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }).runTo(BEAT * 15);
    expect(Math.max(...rig.left.map(Math.abs), ...loudest.slice(0, 2))).toBeGreaterThan(0.1);
    expect(rig.of('loop').findLast((e) => e.slot === SILENT)!.tick).toBe(3 * BAR);
  });
});
