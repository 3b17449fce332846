import { band, section } from './band.testing';
import { BAR, Rig } from '../engine/rig.testing';
import { random } from '../random';
import { framesPerTick } from '../time/ticks';
import { CHAIN, LEAVE, NO_SECTION, SILENT, THEN_STOP } from './launchState';
import { groupLine, pictureAt, type Deed, type Done, type World } from './launchModel.testing';
import { LOOP_END } from './launchRules';
import type { Instruction } from '../protocol/commands';

const QUARTER = 960;

// DEEDS=10000 looks longer than every test run can.
const DEEDS = Number(process.env.DEEDS ?? 4000);

/**
 * Thousands of things that hands do, with tempo changes between them, and the plain model beside the engine: the same
 * pattern on each track from the same line on, the same mutes and sections, Lift included.
 */
test('a long random performance is what the plain model says', () => {
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

  const drop = () => [0, QUARTER, BAR, LOOP_END, 2 * BAR, 4 * BAR][pick(6)]!;
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
  while (done < DEEDS) {
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
  expect(lifts).toBeGreaterThan(DEEDS / 100);
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
