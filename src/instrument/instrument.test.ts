import fc from 'fast-check';
import { newSet } from '@/core/document/create';
import { demoSet } from '@/core/document/demo';
import type { Hit } from '@/core/document/hit';
import { patternAt, type OpenSet } from '@/core/document/set';
import { MAX_HITS } from '@/core/document/limits';
import { FIRST_STAGE, WAITING_STAGE } from '@/core/document/stage';
import { newTrack } from '@/core/document/track';
import type { Edit } from '@/core/edit/edit';
import { CHAIN } from '@/core/launch/launchState';
import { planAhead } from '@/core/launch/planAhead';
import { arraysOf } from '@/core/protocol/commands';
import { soundingHits } from '@/core/sequence/soundingHits';
import { setLoaded } from '@/store/openSlice';
import { edited, hitsRecorded, treatmentSet } from '@/store/patternsSlice';
import { selectPattern, selectSet, selectSlot } from '@/store/selectors';
import { slotCopied, slotsSwapped } from '@/store/slotsSlice';
import { slotOpened } from '@/store/stageSlice';
import { createStore } from '@/store/store';
import { trackDuplicated } from '@/store/tracksSlice';
import { redone, undone } from '@/store/undoable';
import { HostInNode } from './engineHost.testing';
import { Instrument } from './instrument';

const BEAT = 24000; // frames of a quarter at 120 BPM
const hit = (id: number, tick: number, pad = 0): Hit => ({ id, pad, tick, length: 100, velocity: 0.5, snap: { grid: 240, strength: 1 } }); // prettier-ignore

/** One track whose first pattern holds these hits; nothing is counted in. */
function setOf(hits: Hit[], slots = 1): OpenSet {
  const patterns = Array.from({ length: slots }, (_, i) => ({
    name: `p${i}`,
    length: 3840,
    hits: i === 0 ? hits : [],
  }));
  const set = { ...newSet('Test', 120, [newTrack('T', 0, patterns)]), countIn: 0 as const };
  return { set, stage: { shown: 0, tracks: { 0: FIRST_STAGE } } };
}

/** The same, but that a bar is counted in. */
function countedIn(hits: Hit[]): OpenSet {
  const { set, stage } = setOf(hits);
  return { set: { ...set, countIn: 1 }, stage };
}

async function rig(open: OpenSet = setOf([])) {
  const store = createStore();
  store.dispatch(setLoaded(open));
  const host = new HostInNode();
  const instrument = new Instrument(store, host.make);
  await instrument.start();
  host.run(256);
  return { store, host, instrument };
}

/** What the document says of the hits of a slot, as `HostInNode.hitsIn` gives them. */
const documentHits = (store: ReturnType<typeof createStore>, track = 0, slot = 0) => {
  const pattern = patternAt(selectSet(store.getState()), { track, slot });
  return pattern ? soundingHits(pattern).map((h) => [h.id, h.tick, h.velocity, h.length]) : [];
};
const rounded = (rows: number[][]) =>
  rows.map((row) => row.map((x) => Math.round(x * 1e6) / 1e6)).sort((a, b) => a[0]! - b[0]!);

/** Plays and records from the top. */
function record({ host, instrument }: Awaited<ReturnType<typeof rig>>): void {
  instrument.toggleRecord();
  instrument.play();
  host.run(256);
}

test('Record and Play that are touched before there is an engine begin with the count-in; Record touched again is taken back', async () => {
  const store = createStore();
  store.dispatch(setLoaded(countedIn([])));
  const begun = async (...touches: ('record' | 'play')[]) => {
    const host = new HostInNode();
    const instrument = new Instrument(store, host.make);
    for (const touch of touches) {
      if (touch === 'play') instrument.play();
      else instrument.toggleRecord();
    }
    await instrument.start();
    host.run(256);
    return [instrument.performance.anchor.recording, host.of('play')[0]!.countInTicks];
  };
  expect(await begun('record', 'play')).toEqual([true, 3840]);
  expect(await begun('record', 'record', 'play')).toEqual([false, 0]);
});

test('Record and Play that are touched together begin with the count-in, though the engine has not yet told that it records', async () => {
  const { host, instrument } = await rig(countedIn([]));
  instrument.toggleRecord();
  instrument.play();
  host.run(256);
  expect([instrument.performance.anchor.recording, host.of('play')[0]!.countInTicks]).toEqual([true, 3840]);
  // Touched twice at once, Record is as it was.
  instrument.stop();
  instrument.toggleRecord();
  instrument.toggleRecord();
  host.run(256);
  expect(instrument.performance.anchor.recording).toBe(true);
  instrument.toggleRecord();
  instrument.play();
  host.run(256);
  expect([instrument.performance.anchor.recording, host.of('play')[1]!.countInTicks]).toEqual([false, 0]);
});

test('Record that is stopped before the engine has told that it records is off, and the next touch puts it on', async () => {
  const { host, instrument } = await rig();
  instrument.play();
  host.run(256);
  instrument.toggleRecord();
  instrument.stop();
  host.run(256);
  expect(instrument.performance.anchor.recording).toBe(false);
  instrument.toggleRecord();
  host.run(256);
  expect(instrument.performance.anchor.recording).toBe(true);
});

test('what is played while recording lies in the document and in the engine, and is not sent back', async () => {
  const all = await rig();
  const { store, host, instrument } = all;
  store.dispatch({ type: 'none' });
  record(all);
  host.run(4 * BEAT); // the count-in
  host.sent.length = 0;
  for (const pad of [0, 2, 0]) {
    instrument.padDown(pad, 0.8, host.engine.frame, 'touch');
    host.run(5000);
    instrument.padUp(pad, host.engine.frame, 'touch');
    host.run(7000);
  }
  expect(selectPattern(store.getState()).hits).toHaveLength(3);
  expect(selectPattern(store.getState()).hits.every((h) => h.length > 100 && h.take === 1)).toBe(true);
  expect(rounded(host.hitsIn(0, 0))).toEqual(rounded(documentHits(store)));
  expect(host.sent.flat().filter((i) => /pattern/.test(i.type))).toEqual([]);
  store.dispatch(undone());
  expect(host.of('patternEdit')[0]!.removed).toHaveLength(3);
  host.run(256);
  expect(host.hitsIn(0, 0)).toEqual([]);
});

test('one edit of a pattern of 5,000 hits posts less than 1 KB, and so does undoing it', async () => {
  const hits = Array.from({ length: 5000 }, (_, i) => ({ ...hit(2 * i + 1, (i * 3840) / 5000, i % 16), snap: null }));
  const { store, host } = await rig(setOf(hits));
  host.sent.length = 0;
  store.dispatch(edited({ place: { track: 0, slot: 0 }, edit: { kind: 'values', of: 'velocity', values: [[4001, 0.9]], over: 240 } })); // prettier-ignore
  store.dispatch(undone());
  expect(host.of('pattern')).toEqual([]);
  for (const instruction of host.of('patternEdit')) {
    expect(arraysOf(instruction).reduce((sum, array) => sum + array.byteLength, 0)).toBeLessThan(1024);
  }
  expect(host.of('patternEdit')).toHaveLength(2);
  host.run(256);
  expect(rounded(host.hitsIn(0, 0))).toEqual(rounded(documentHits(store)));
});

test('whatever is played, edited, treated and undone: the engine plays what the document says', async () => {
  const ids = fc.uniqueArray(fc.integer({ min: 1, max: 30 }), { maxLength: 5 });
  const edits: fc.Arbitrary<Edit> = fc.oneof(
    ids.map((some): Edit => ({ kind: 'erase', ids: some })),
    fc.tuple(ids, fc.integer({ min: -900, max: 900 })).map(([some, ticks]): Edit => ({ kind: 'move', ids: some, ticks, lanes: 1 })), // prettier-ignore
    fc.integer({ min: 1, max: 8 }).map((sixteenths): Edit => ({ kind: 'length', length: sixteenths * 480 })),
    ids.map((some): Edit => ({ kind: 'values', of: 'roll', values: some.map((id) => [id, 3]), over: 240 })),
  );
  const act = fc.oneof(
    edits.map((edit) => ({ do: 'edit' as const, edit })),
    fc.nat(15).map((pad) => ({ do: 'strike' as const, pad })),
    fc.constantFrom(120, 240, 480).map((grid) => ({ do: 'feel' as const, grid })),
    fc.constant({ do: 'undo' as const }),
    fc.constant({ do: 'redo' as const }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 1, maxLength: 14 }), fc.integer({ min: 500, max: 9000 }), async (acts, gap) => {
      const all = await rig(setOf([hit(1, 5), hit(3, 950, 2), hit(5, 1930, 4), hit(7, 3835, 2)]));
      const { store, host, instrument } = all;
      record(all);
      host.run(4 * BEAT);
      for (const what of acts) {
        const place = { track: 0, slot: 0 };
        if (what.do === 'edit') store.dispatch(edited({ place, edit: what.edit }));
        else if (what.do === 'feel') store.dispatch(treatmentSet({ place, scope: { kind: 'pattern' }, treatment: { feel: { grid: what.grid, strength: 1 } } }));
        else if (what.do === 'undo') store.dispatch(undone());
        else if (what.do === 'redo') store.dispatch(redone());
        else instrument.padDown(what.pad, 0.7, host.engine.frame, 'touch');
        host.run(gap);
        if (what.do === 'strike') instrument.padUp(what.pad, host.engine.frame, 'touch');
      }
      instrument.stop();
      host.run(1024);
      expect(rounded(host.hitsIn(0, 0))).toEqual(rounded(documentHits(store)));
    }),
    { numRuns: 60 },
  );
}); // prettier-ignore

test('a pattern message that crosses the release of a held pad does not take the hit its length', async () => {
  const all = await rig();
  const { store, host, instrument } = all;
  record(all);
  host.run(4 * BEAT);
  instrument.padDown(3, 0.7, host.engine.frame, 'touch');
  host.run(4096);
  // The pad comes up, and before the engine has told so the page sends the whole pattern, in which the hit has no length yet.
  instrument.padUp(3, host.engine.frame, 'touch');
  const feel = { grid: 480, strength: 1 };
  store.dispatch(treatmentSet({ place: { track: 0, slot: 0 }, scope: { kind: 'pattern' }, treatment: { feel } }));
  host.run(2048);
  expect(selectPattern(store.getState()).hits[0]!.length).toBeGreaterThan(100);
  expect(rounded(host.hitsIn(0, 0))).toEqual(rounded(documentHits(store)));
});

test('a large set goes over in portions, what plays first; a pattern that is launched is told before its turn', async () => {
  const open = setOf([hit(1, 0)]);
  const track = open.set.tracks[0]!;
  const full = Array.from({ length: 256 }, (_, slot) => ({ name: `p${slot}`, length: 3840, hits: [hit(1000 + 2 * slot, 0)] }));
  for (let id = 0; id < 16; id++) open.set.tracks[id] = { ...track, id, patterns: full.map((p, slot) => ({ ...p, hits: [hit(10000 * id + 2 * slot + 1, 0)] })) }; // prettier-ignore
  open.set.order = Array.from({ length: 16 }, (_, id) => id);
  open.stage = { shown: 0, tracks: Object.fromEntries(open.set.order.map((id) => [id, id === 3 ? { ...FIRST_STAGE, slot: 7 } : WAITING_STAGE])) }; // prettier-ignore
  const { host, instrument } = await rig(open);
  const first = host.sent[host.sent.findIndex((message) => message.some((i) => i.type === 'pattern'))]!;
  expect(first.filter((i) => i.type === 'pattern').map((i) => [i.track, i.slot])).toContainEqual([3, 7]);
  instrument.perform({ type: 'launch', track: 9, slot: 200, on: 0, inPlace: false });
  const launched = host.sent.findIndex((message) => message.some((i) => i.type === 'launch' && i.slot === 200));
  const told = host.sent.findIndex((message) => message.some((i) => i.type === 'pattern' && i.track === 9 && i.slot === 200));
  expect(told).toBeGreaterThanOrEqual(0);
  expect(told).toBeLessThan(launched);
  host.run(48000 * 4);
  expect(Math.max(...host.sent.map((message) => message.filter((i) => i.type === 'pattern').length))).toBeLessThanOrEqual(64);
  expect(new Set(host.of('pattern').map((i) => `${i.track} ${i.slot}`)).size).toBe(16 * 256);
}); // prettier-ignore

test('undo of a copied track, after another was launched, muted and turned to: they play on as they are', async () => {
  const { store, host, instrument } = await rig(demoSet());
  store.dispatch(trackDuplicated({ track: 1, as: 4, firstId: instrument.reserveIds(500) }));
  instrument.play();
  host.run(1024);
  instrument.perform({ type: 'launch', track: 3, slot: 1, on: 0, inPlace: false });
  instrument.perform({ type: 'muteSolo', track: 3, mute: 1, solo: -1, on: 0 });
  host.run(4096);
  const before = store.getState().stage.tracks[3];
  expect(before).toEqual({ slot: 1, stopped: false, mute: true, solo: false });
  host.sent.length = 0;
  store.dispatch(undone());
  host.run(4096);
  expect(store.getState().stage.tracks[3]).toEqual(before);
  const touched = host.sent
    .flat()
    .filter((i) => i.type === 'launch' || i.type === 'muteSolo' || i.type === 'removeTrack');
  expect(touched.map((i) => [i.type, 'track' in i && i.track])).toEqual([['removeTrack', 4], ['muteSolo', 4]]); // prettier-ignore
});

test('patterns that change places while one plays: it plays on from its new slot, and back from its old one', async () => {
  const { store, host, instrument } = await rig(setOf([hit(1, 0), hit(3, 960)], 3));
  instrument.play();
  host.run(1024);
  store.dispatch(slotsSwapped({ track: 0, slot: 0, to: 2 }));
  host.run(1024);
  expect([selectSlot(store.getState()), host.hitsIn(0, 2).length]).toEqual([2, 2]);
  store.dispatch(undone());
  host.run(1024);
  expect([selectSlot(store.getState()), host.hitsIn(0, 0).length]).toEqual([0, 2]);
});

test('an undone variation gives way to the pattern that it was made of: the music goes on; redone, it is there to be launched', async () => {
  const { store, host, instrument } = await rig(setOf([hit(1, 0), hit(3, 960)], 3));
  instrument.play();
  host.run(1024);
  store.dispatch(slotCopied({ place: { track: 0, slot: 0 }, to: 5, firstId: instrument.reserveIds(2), label: 'variation' })); // prettier-ignore
  store.dispatch(slotOpened({ track: 0, slot: 5 }));
  host.run(1024);
  expect([selectSlot(store.getState()), host.hitsIn(0, 5).length]).toEqual([5, 2]);
  store.dispatch(undone());
  host.run(1024);
  expect(selectSlot(store.getState())).toBe(0);
  expect(instrument.performance.launcher.live.slot[0]).toBe(0);
  store.dispatch(redone());
  host.run(1024);
  expect([selectSlot(store.getState()), host.hitsIn(0, 5).length]).toEqual([0, 2]);
});

test('an empty slot that a track is on can be recorded into: the pattern comes to be with its first hit', async () => {
  const all = await rig(setOf([hit(1, 0)]));
  const { store, host, instrument } = all;
  store.dispatch(slotOpened({ track: 0, slot: 4 }));
  record(all);
  host.run(4 * BEAT + 3000);
  instrument.padDown(2, 0.5, host.engine.frame, 'touch');
  host.run(2048);
  expect(selectSet(store.getState()).tracks[0]!.patterns[4]).toMatchObject({ name: 'Pattern 5', length: 3840 });
  expect(selectPattern(store.getState()).hits).toHaveLength(1);
  expect(rounded(host.hitsIn(0, 4))).toEqual(rounded(documentHits(store, 0, 4)));
});

test('a gesture that began on one pattern ends on it, whatever is launched meanwhile', async () => {
  const { store, instrument } = await rig(setOf([hit(1, 0)], 2));
  const draw = (id: number) => store.dispatch(edited({ place: instrument.placeOf('drag 1'), edit: { kind: 'paint', hits: [hit(id, 240)] }, gesture: 'drag 1' })); // prettier-ignore
  draw(101);
  store.dispatch(slotOpened({ track: 0, slot: 1 }));
  draw(103);
  const { patterns } = selectSet(store.getState()).tracks[0]!;
  expect(patterns.map((pattern) => pattern?.hits.length ?? 0).slice(0, 2)).toEqual([3, 0]);
  expect(instrument.placeOf()).toEqual({ track: 0, slot: 1 });
});

test('the page knows what goes on beneath a Lift, and its plan while it returns is what happens', async () => {
  const open = setOf([hit(1, 0)], 4);
  open.set.tracks[0]!.chain = { links: [{ slot: 0, times: 1 }, { slot: 1, times: 1 }], again: true }; // prettier-ignore
  const { host, instrument } = await rig(open);
  const { launcher } = instrument.performance;
  instrument.play();
  instrument.perform({ type: 'launch', track: 0, slot: CHAIN, on: 0, inPlace: false });
  host.run(BEAT);
  instrument.perform({ type: 'lift', held: true, on: 0 });
  instrument.perform({ type: 'launch', track: 0, slot: 3, on: 0, inPlace: false });
  host.run(4 * BEAT); // beneath, the chain has gone on to its second pattern
  expect([launcher.live.slot[0], launcher.beneath.slot[0], launcher.beneath.launchTick[0]]).toEqual([3, 1, 3840]);
  instrument.perform({ type: 'lift', held: false, on: 3840 });
  host.run(1024);
  const bar = (from: number, to: number, slot: number) => ({ from: from * 3840, to: to * 3840, slot });
  const plan = () => planAhead(launcher, 1.3 * 3840, 4 * 3840)[0]!;
  expect(plan()).toEqual([bar(1.3, 2, 3), bar(2, 3, 0), bar(3, 4, 1)]);
  expect(plan()).toEqual(plan()); // to look ahead changes nothing
  host.run(11 * BEAT);
  const played = host.events.filter((e) => e.kind === 'loop' && e.tick >= 2 * 3840).map((e) => e.kind === 'loop' && [e.tick, e.slot]); // prettier-ignore
  expect(played.slice(0, 2)).toEqual([[2 * 3840, 0], [3 * 3840, 1]]); // prettier-ignore
});

test('a pattern says that it is nearly full while there is still room, and when it is full; nothing is kept beyond', async () => {
  const { store, host, instrument } = await rig(setOf(Array.from({ length: MAX_HITS - 1001 }, (_, i) => hit(2 * i + 1, i % 3840, i % 16)))); // prettier-ignore
  const strike = () => {
    instrument.padDown(0, 0.5, host.engine.frame, 'touch');
    host.run(256);
  };
  const notice = () => store.getState().session.notice?.text ?? null;
  instrument.toggleRecord();
  instrument.play();
  host.run(256);
  strike();
  expect(notice()).toBeNull();
  strike();
  expect(notice()).toContain('room for 1000 more hits');
  const place = { track: 0, slot: 0 };
  const fill = Array.from({ length: 999 }, (_, i) => hit(1_000_001 + 2 * i, i));
  store.dispatch(hitsRecorded({ place, hits: fill, take: 'x' }));
  expect(selectPattern(store.getState()).hits).toHaveLength(MAX_HITS);
  strike();
  expect(notice()).toContain('is full');
  expect(selectPattern(store.getState()).hits).toHaveLength(MAX_HITS);
});

test('when the engine fails the song stands; another one gets the set and the place, and plays what the document holds', async () => {
  const { store, host, instrument } = await rig(setOf([hit(1, 0), hit(3, 960, 4)], 2));
  instrument.play();
  host.run(3 * BEAT);
  const at = instrument.performance.tickHeard(host.engine.frame);
  jest.spyOn(performance, 'now').mockReturnValue(host.engine.frame);
  host.fail();
  expect(store.getState().session).toMatchObject({ audio: 'failed', playing: false, audioProblem: 'The sound engine stopped.' }); // prettier-ignore
  const stood = instrument.performance.anchor.tick;
  expect(stood).toBeCloseTo(at, 0);
  store.dispatch(edited({ place: { track: 0, slot: 0 }, edit: { kind: 'erase', ids: [3] } })); // made while nothing sounds
  await instrument.restart();
  host.run(256);
  expect(rounded(host.hitsIn(0, 0))).toEqual(rounded(documentHits(store)));
  expect(instrument.performance.anchor.tick).toBeCloseTo(stood, 0);
  instrument.play();
  host.run(BEAT);
  expect(store.getState().session.playing).toBe(true);
  jest.restoreAllMocks();
});

test('what the transport is asked before there is an engine waits for it; strokes do not, they would be late', async () => {
  const store = createStore();
  store.dispatch(setLoaded(countedIn([hit(1, 0)])));
  const host = new HostInNode();
  const instrument = new Instrument(store, host.make);
  instrument.toggleRecord();
  instrument.play();
  instrument.padDown(0, 1, 0, 'touch');
  expect(host.sent).toEqual([]);
  await instrument.start();
  host.run(6 * BEAT); // the count-in, and two beats
  const { session } = store.getState();
  expect([session.playing, session.recording]).toEqual([true, true]);
  // The pattern was there when the song began, and nothing but it sounded.
  expect(host.events.flatMap((event) => (event.kind === 'sounded' ? [event.live] : []))).toEqual([false]);
  expect(host.of('padDown')).toEqual([]);
  // The same while another engine takes the place of one that failed.
  instrument.toggleRecord();
  host.run(256);
  host.fail();
  const another = instrument.restart();
  instrument.play();
  await another;
  host.run(BEAT);
  expect(store.getState().session.playing).toBe(true);
});
