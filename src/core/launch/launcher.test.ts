import { Rig, hits } from '../engine/rig.testing';
import { random } from '../random';
import { framesPerTick } from '../time/ticks';
import { CHAIN, LEAVE, NO_SECTION, SILENT, THEN_STOP } from './launchState';
import { LIFT } from './launcher';
import { groupLine, pictureAt, type Deed, type Done, type World } from './launchModel.testing';
import type { Instruction } from '../protocol/commands';
import { LOOP_END, type SectionPlan } from './launchRules';

const BAR = 3840;
const BEAT = 960;
const section = (id: number, parts: number[], rounds = 1, then = NO_SECTION): SectionPlan => {
  const all = Array.from({ length: 16 }, (_, t) => parts[t] ?? LEAVE);
  return { id, parts: all, rounds, then };
};
/** Frames of a beat at 120 BPM and 48 kHz. */
const FRAMES = 24000;

/** Tracks with patterns of these lengths (ticks) in their slots, each with one hit at its top. */
function band(rig: Rig, lengths: readonly (readonly number[])[]): Rig {
  lengths.forEach((slots, track) =>
    slots.forEach((length, slot) =>
      rig.tell({
        type: 'pattern',
        track,
        slot,
        revision: 0,
        length,
        seen: 0,
        hits: hits([0, 0, 1 + 2 * (slot + 100 * track)]),
        feels: null,
      }),
    ),
  );
  return rig.tell({ type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false }, { type: 'tempo', bpm: 120 });
}
/** What sounded: beat, track, slot. */
const strokes = (rig: Rig) => rig.of('sounded').map(({ frame, track, id }) => [frame / FRAMES, track, ((id - 1) / 2) % 100]); // prettier-ignore

describe('launching', () => {
  test('twelve patterns of seven lengths that wait for one bar line change on one sample, and begin there', () => {
    const lengths = [3, 4, 5, 7, 12, 16, 28].map((steps) => steps * 240);
    const rig = new Rig();
    const tracks = Array.from({ length: 12 }, (_, t) => t);
    band(rig, tracks.map((t) => [lengths[t % 7]!, lengths[(t + 3) % 7]!])); // prettier-ignore
    for (const t of tracks) rig.tell({ type: 'launch', track: t, slot: 0, on: 0, inPlace: false });
    rig.tell({ type: 'tempo', bpm: 117.3 }, { type: 'play', startTick: 0, countInTicks: 0 }).runTo(60000);
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
    ['the next beat', BEAT, 6],
    ['the next bar', BAR, 8],
    ['the loop’s end', LOOP_END, 6],
    ['two bars', 2 * BAR, 8],
    ['four bars', 4 * BAR, 16],
  ])('drops on %s', (_, on, beat) => {
    const rig = band(new Rig(), [[3 * BEAT, BEAT]]);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES * 5.25);
    rig.tell({ type: 'launch', track: 0, slot: 1, on, inPlace: false }).runTo(FRAMES * 17);
    const first = strokes(rig).find(([, , slot]) => slot === 1)!;
    expect(Math.abs(first[0]! * FRAMES - beat * FRAMES)).toBeLessThanOrEqual(1);
  });

  test('goes on in place, in the phase of what it replaces', () => {
    const rig = band(new Rig(), [[BAR, 3 * BEAT]]);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES * 3.5);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: BEAT, inPlace: true }).runTo(FRAMES * 13);
    expect(strokes(rig)).toEqual([[0, 0, 0], [6, 0, 1], [9, 0, 1], [12, 0, 1]]); // prettier-ignore
  });

  test('tells what waits with the tick at which it comes, and keeps it through tempo changes', () => {
    const rig = band(new Rig(), [[BAR, BAR]]);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: 2 * BAR, inPlace: false }).runTo(FRAMES * 2);
    const told = rig.of('waiting').at(-1)!;
    expect([told.next, told.nextTick]).toEqual([1, 2 * BAR]);
    rig
      .tell({ type: 'tempo', bpm: 60 })
      .runTo(FRAMES * 4)
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
    const rig = band(new Rig(), [[BAR, BEAT]]);
    rig.tell({ type: 'play', startTick: 0, countInTicks: 0 }).runTo(FRAMES);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false },
        { type: 'moveLaunch', track: 0, tick: 6 * BEAT },
      )
      .runTo(FRAMES * 7.5);
    expect(strokes(rig).map(([beat]) => beat)).toEqual([6, 7]);
    rig
      .tell({ type: 'launch', track: 0, slot: SILENT, on: BAR, inPlace: false }, { type: 'cancelLaunch', track: 0 })
      .runTo(FRAMES * 9.5);
    expect(strokes(rig).map(([beat]) => beat)).toEqual([6, 7, 8, 9]);
  });

  test('in a count-in it is there when the count-in ends', () => {
    const rig = band(new Rig(), [[BAR, BAR]]);
    rig.tell({ type: 'play', startTick: 0, countInTicks: BAR }).runTo(FRAMES * 2);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: 4 * BAR, inPlace: false }).runTo(FRAMES * 5);
    expect(strokes(rig)).toEqual([[4, 0, 1]]);
  });

  test('stopped, the song keeps what plays and forgets what waited', () => {
    const rig = band(new Rig(), [[BEAT, BEAT]]);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES * 1.5);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false },
        { type: 'stop' },
        { type: 'locate', tick: 0 },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES * 7);
    expect(new Set(strokes(rig).map(([, , slot]) => slot))).toEqual(new Set([0]));
  });
});

describe('recording across a change of pattern', () => {
  const armed = () =>
    band(new Rig(), [[BAR, BAR]]).tell({ type: 'inputQuantize', grid: 240, on: true }, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, { type: 'record', on: true, session: 1 }, { type: 'play', startTick: 0, countInTicks: 0 }); // prettier-ignore

  test('a stroke just before the change belongs to the first step of the pattern that comes', () => {
    const rig = armed().runTo(FRAMES);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false }).strike(FRAMES * 4 - 700, 2, 51).runTo(FRAMES * 9); // prettier-ignore
    expect(rig.of('recorded')).toMatchObject([{ id: 51, slot: 1, struck: -28 }]);
    expect(
      rig
        .of('sounded')
        .filter((e) => e.pad === 2)
        .map((e) => e.frame / FRAMES),
    ).toEqual([4 - 700 / FRAMES, 8]);
  });

  test('a stroke that was heard before the change, and told of after it, belongs to the pattern that was heard', () => {
    const rig = armed().runTo(FRAMES);
    rig.tell({ type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false }).strike(FRAMES * 4 + 1000, 2, 51, 8000).runTo(FRAMES * 9); // prettier-ignore
    expect(rig.of('recorded')).toMatchObject([{ id: 51, slot: 0, struck: 4 * BEAT - 280 }]);
    expect(rig.of('sounded').filter((e) => e.pad === 2 && !e.live)).toEqual([]);
  });
});

describe('sections and chains', () => {
  test('a section goes round as often as it says, then goes to the next, and at last everything stops', () => {
    const rig = band(new Rig(), [[BAR, BEAT], [2 * BAR, BEAT]]); // prettier-ignore
    rig.tell({ type: 'sections', sections: [section(0, [0, 0], 2, 1), section(1, [1, LEAVE], 1, THEN_STOP)] });
    rig
      .tell(
        { type: 'launchSection', section: 0, on: 0, inPlace: false },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES * 30);
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
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES);
    rig.tell({ type: 'launch', track: 0, slot: 2, on: BAR, inPlace: false }).runTo(FRAMES * 6);
    expect(rig.of('loop').at(-1)).toMatchObject({ slot: 2, tick: BAR });
    expect(rig.of('launcher').findLast((e) => !e.beneath)).toMatchObject({ section: 1, nextSection: NO_SECTION });
  });

  test('a chain of four patterns goes through them, each as often as it says, and begins again', () => {
    const rig = band(new Rig(), [[BEAT, 2 * BEAT, 3 * BEAT, 5 * BEAT]]);
    const links = [[0, 2], [1, 1], [2, 1], [3, 1]].map(([slot, times]) => ({ slot: slot!, times: times! })); // prettier-ignore
    rig
      .tell({ type: 'chain', track: 0, chain: { links, again: true } }, { type: 'play', startTick: 0, countInTicks: 0 })
      .runTo(FRAMES * 0.5);
    rig.tell({ type: 'launch', track: 0, slot: CHAIN, on: BEAT, inPlace: false }).runTo(FRAMES * 14.5);
    const changes = rig.of('loop').filter((e) => e.slot >= 0 && e.frame > 0).map((e) => [e.tick / BEAT, e.slot]); // prettier-ignore
    expect(changes).toEqual([[1, 0], [3, 1], [5, 2], [8, 3], [13, 0]]); // prettier-ignore
  });
});

describe('Lift', () => {
  const playing = () => {
    const rig = band(new Rig(), [[3 * BEAT, BEAT], [BAR, BEAT], [BAR, BEAT]]); // prettier-ignore
    rig.tell({ type: 'sections', sections: [section(0, [SILENT, 1, 1])] });
    rig.tell(
      { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
      { type: 'launch', track: 1, slot: 0, on: 0, inPlace: false },
      { type: 'play', startTick: 0, countInTicks: 0 },
    );
    return rig.runTo(FRAMES * 1.5);
  };
  test('brings back what played and where it was, through launches, sections, mutes and tempo', () => {
    const untouched = playing().runTo(FRAMES * 30);
    const rig = playing().tell({ type: 'lift', held: true, on: BAR });
    rig
      .tell(
        { type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false },
        { type: 'muteSolo', track: 1, mute: 1, solo: 0, on: 0 },
      )
      .runTo(FRAMES * 2.5);
    rig
      .tell(
        { type: 'launchSection', section: 0, on: BEAT, inPlace: false },
        { type: 'launch', track: 2, slot: 1, on: 0, inPlace: false },
        { type: 'tempo', bpm: 90 },
      )
      .runTo(FRAMES * 4);
    rig.tell({ type: 'tempo', bpm: 120 }).runTo(FRAMES * 5).tell({ type: 'lift', held: false, on: BAR }); // prettier-ignore
    expect(
      rig
        .runTo(FRAMES * 5.1)
        .of('launcher')
        .at(-1),
    ).toMatchObject({ lift: LIFT.RETURNING, liftTick: 2 * BAR });
    rig.runTo(FRAMES * 30);
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
    const rig = band(new Rig(), [[3 * BEAT, BEAT]]).tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }, { type: 'play', startTick: 0, countInTicks: 0 }).runTo(FRAMES * 2); // prettier-ignore
    rig.tell(
      { type: 'launch', track: 0, slot: 1, on: 0, inPlace: false },
      { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
      { type: 'stop' },
      { type: 'locate', tick: 0 },
      { type: 'lift', held: true, on: 0 },
    );
    rig.tell({ type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false }, { type: 'play', startTick: 0, countInTicks: 0 }).runTo(FRAMES * 4.5).tell({ type: 'lift', held: false, on: 0 }); // prettier-ignore
    rig.runTo(FRAMES * 12);
    expect(rig.of('loop').at(-1)).toMatchObject({ slot: 0, launchTick: 0 });
  });

  test('what waited when it was pressed has come meanwhile; pressed again before the line, it goes on', () => {
    const rig = playing().tell({ type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false }, { type: 'lift', held: true, on: 0 }).runTo(FRAMES * 2); // prettier-ignore
    rig.tell({ type: 'launch', track: 1, slot: SILENT, on: 0, inPlace: false }).runTo(FRAMES * 5.5);
    rig.tell({ type: 'lift', held: false, on: BAR }).runTo(FRAMES * 6).tell({ type: 'lift', held: true, on: 0 }).runTo(FRAMES * 9.5); // prettier-ignore
    expect(rig.of('loop').findLast((e) => e.track === 1)!.slot).toBe(SILENT);
    rig.tell({ type: 'lift', held: false, on: 0 }).runTo(FRAMES * 10);
    expect(rig.of('loop').findLast((e) => e.track === 1)).toMatchObject({ slot: 0, launchTick: 0 });
    expect(rig.of('loop').findLast((e) => e.track === 0)).toMatchObject({ slot: 1, launchTick: BAR });
  });
});

describe('stopping everything', () => {
  test('drops on its line, or at once, and nothing follows', () => {
    const rig = band(new Rig(), [[BEAT], [BEAT]]);
    rig
      .tell(
        { type: 'sections', sections: [section(0, [0, 0], 8, 0)] },
        { type: 'launchSection', section: 0, on: 0, inPlace: false },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES * 1.5);
    rig.tell({ type: 'stopAll', on: BAR }).runTo(FRAMES * 6);
    expect(Math.max(...strokes(rig).map(([beat]) => beat!))).toBe(3);
    rig.tell({ type: 'launchSection', section: 0, on: BEAT, inPlace: false }).runTo(FRAMES * 8.5).tell({ type: 'stopAll', on: BAR }, { type: 'stopAll', on: 0 }).runTo(FRAMES * 20); // prettier-ignore
    expect(Math.max(...strokes(rig).map(([beat]) => beat!))).toBe(8);
  });

  test('a fade goes down evenly over its bars, ends in silence and gives the level back', () => {
    const rig = band(new Rig(), [[BEAT / 4]]);
    rig
      .tell(
        { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(FRAMES);
    rig.tell({ type: 'fade', ticks: 2 * BAR, on: BAR });
    const loudest: number[] = [];
    for (let beat = 1; beat < 14; beat++) {
      let most = 0;
      for (let f = rig.engine.frame; f < (beat + 1) * FRAMES; f += 128) {
        rig.runTo(Math.min(f + 128, (beat + 1) * FRAMES));
        for (const x of rig.left) most = Math.max(most, Math.abs(x));
      }
      loudest.push(most);
    }
    const [, , full, ...faded] = loudest;
    for (let i = 1; i < 8; i++) expect(faded[i]!).toBeLessThan(faded[i - 1]!);
    expect(faded[4]! / full!).toBeLessThan(0.35);
    expect(faded.slice(9).every((x) => x < 0.001)).toBe(true);
    rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }).runTo(FRAMES * 15);
    expect(Math.max(...rig.left.map(Math.abs), ...loudest.slice(0, 2))).toBeGreaterThan(0.1);
    expect(rig.of('loop').findLast((e) => e.slot === SILENT)!.tick).toBe(3 * BAR);
  });
});

/**
 * Ten thousand things that hands do, with tempo changes between them, and the plain model beside the engine: the same
 * pattern on each track from the same line on, the same mutes and sections, Lift included.
 */
test('a random performance of 10,000 commands is what the plain model says', () => {
  const rate = 8000; // a low rate, so that it takes seconds; the arithmetic is the same
  const tracks = 5;
  const next = random(20261125);
  const pick = (n: number) => Math.floor(next() * n);
  const spans = Array.from({ length: tracks }, () => [3, 4, 5, 7, 16].map((steps) => steps * 240 * (1 + pick(3))));
  const chains = spans.map((_, t) => ({ links: [0, 2, 4].map((slot) => ({ slot, times: 1 + pick(2) })), again: t % 2 === 0 })); // prettier-ignore
  const choices = [0, 1, 2, 3, 4, SILENT, LEAVE, CHAIN];
  const sections = Array.from(
    { length: 6 },
    (_, i) =>
    section(i, spans.map(() => choices[pick(8)]!), 1 + pick(3), [NO_SECTION, (i + 1) % 6, THEN_STOP, (i + 3) % 6][pick(4)]), // prettier-ignore
  );
  const world: World = { bar: BAR, tracks, spans, sections, chains };
  const rig = band(new Rig(512, rate), spans).tell({ type: 'sections', sections });
  chains.forEach((chain, t) => rig.tell({ type: 'chain', track: t, chain }));
  rig.tell({ type: 'play', startTick: 0, countInTicks: 0 });

  const drop = () => [0, BEAT, BAR, LOOP_END, 2 * BAR, 4 * BAR][pick(6)]!;
  const deed = (): Done => {
    const track = pick(tracks);
    const kind = pick(20);
    if (kind < 9) return { do: 'launch', track, slot: [0, 1, 2, 3, 4, SILENT, SILENT, CHAIN][pick(8)]!, on: drop(), inPlace: pick(3) === 0 }; // prettier-ignore
    if (kind < 11) return { do: 'cancel', track };
    if (kind < 14) return { do: 'gate', track, mute: pick(3) - 1, solo: pick(3) - 1, on: drop() };
    if (kind < 18) return { do: 'section', index: pick(6), on: drop(), inPlace: pick(3) === 0 };
    return kind < 19 ? { do: 'cancelSection' } : { do: 'stopAll', on: drop() };
  };
  const instruction = (what: Done): Instruction => {
    switch (what.do) {
      case 'launch':
        return { type: 'launch', track: what.track, slot: what.slot, on: what.on, inPlace: what.inPlace };
      case 'cancel':
        return { type: 'cancelLaunch', track: what.track };
      case 'gate':
        return { type: 'muteSolo', track: what.track, mute: what.mute, solo: what.solo, on: what.on };
      case 'section':
        return { type: 'launchSection', section: what.index, on: what.on, inPlace: what.inPlace };
      case 'cancelSection':
        return { type: 'cancelSection' };
      case 'stopAll':
        return { type: 'stopAll', on: what.on };
    }
  };

  // What was done, but for what was lifted away; the longer list is what is heard now.
  let kept: Deed[] = [];
  let lifted: Deed[] | null = null;
  let returning = Infinity;
  let perTick = framesPerTick(120, rate);
  let anchor = { frame: 0, tick: 0 };
  const tickOf = (frame: number) => anchor.tick + (frame - anchor.frame) / perTick;
  /** Deeds so old that they cannot matter are folded into none: the model would take days over all of them. */
  let done = 0;
  let frame = 0;
  let lifts = 0;
  while (done < 10000) {
    frame += 1 + pick(900);
    rig.runTo(frame);
    // What has its sample behind it has passed: the next line is one that sounds later.
    const now = tickOf(frame + 0.5);
    if (returning <= now) {
      lifted = null;
      returning = Infinity;
    }
    const heard = lifted ?? kept;
    const picture = pictureAt(world, heard, tickOf(frame - 0.5));
    check(picture, rig, tracks);
    const kind = pick(40);
    if (kind < 2) {
      const tempo = 60 + pick(140);
      rig.tell({ type: 'tempo', bpm: tempo });
      anchor = { frame, tick: tickOf(frame) };
      perTick = framesPerTick(tempo, rate);
    } else if (kind < 4 && (!lifted || returning < Infinity)) {
      rig.tell({ type: 'lift', held: true, on: 0 });
      lifted ??= [...kept];
      returning = Infinity;
      lifts++;
    } else if (kind < 8 && lifted && returning === Infinity) {
      const on = drop();
      rig.tell({ type: 'lift', held: false, on });
      // By what would have been heard without the Lift.
      returning = groupLine(world, pictureAt(world, kept, now), on, now);
      if (returning <= now) [lifted, returning] = [null, Infinity];
    } else {
      const what = deed();
      rig.tell(instruction(what));
      if (lifted) lifted.push({ at: now, what });
      if (!lifted || returning < Infinity) kept.push({ at: now, what });
      done++;
    }
    // A fresh start now and then keeps the lists short, and tries the beginning of a song too.
    if (!lifted && kept.length > 60) {
      rig.runTo(frame + 1).tell({ type: 'stop' }, { type: 'locate', tick: 0 });
      for (let t = 0; t < tracks; t++)
        rig.tell(
          { type: 'launch', track: t, slot: SILENT, on: 0, inPlace: false },
          { type: 'muteSolo', track: t, mute: 0, solo: 0, on: 0 },
        );
      rig.tell({ type: 'stopAll', on: 0 }, { type: 'play', startTick: 0, countInTicks: 0 });
      kept = [];
      frame += 1;
      anchor = { frame, tick: 0 };
    }
  }
  expect(lifts).toBeGreaterThan(100);
});

function check(picture: ReturnType<typeof pictureAt>, rig: Rig, tracks: number): void {
  const expected = picture.lines.map((line) => ({
    slot: line.slot,
    launchTick: line.slot === SILENT ? null : near(line.launchTick),
    mute: line.mute,
    solo: line.solo,
    waits: line.wait ? [line.wait.slot, near(line.wait.tick)] : null,
    chain: line.chain ? [line.chain.link, near(line.chain.tick)] : null,
  }));

  const told = Array.from({ length: tracks }, (_, t) => {
    const loop = rig.of('loop').findLast((e) => e.track === t);
    const waiting = rig.of('waiting').findLast((e) => e.track === t && !e.beneath);
    const slot = loop?.slot ?? SILENT;
    return {
      slot,
      launchTick: slot === SILENT ? null : near(loop!.launchTick),
      mute: waiting?.muted === 1,
      solo: waiting?.soloed === 1,
      waits: waiting && waiting.nextTick < Infinity ? [waiting.next, near(waiting.nextTick)] : null,
      chain: waiting && waiting.linkTick < Infinity ? [waiting.link, near(waiting.linkTick)] : null,
    };
  });
  expect(told).toEqual(expected);
  const set = rig.of('launcher').findLast((e) => !e.beneath);
  expect([set?.section ?? NO_SECTION, near(set?.sectionTick ?? Infinity)]).toEqual([
    picture.section,
    near(picture.next?.tick ?? Infinity),
  ]);
  // Only the newest of each are looked at again.
  if (rig.events.length > 300) rig.events.splice(0, rig.events.length - 100, ...newest(rig, tracks));
}

function newest(rig: Rig, tracks: number) {
  const all = Array.from({ length: tracks }, (_, t) => [
    rig.of('loop').findLast((e) => e.track === t),
    rig.of('waiting').findLast((e) => e.track === t && !e.beneath),
  ]).flat();
  return [...all, rig.of('launcher').findLast((e) => !e.beneath)].flatMap((event) => (event ? [event] : []));
}

/** Ticks to a tenth: what was done at once is done on a sample, whose tick is rounded. */
function near(tick: number): number {
  return Math.round(tick * 10) / 10;
}
