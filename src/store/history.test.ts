import type { Tones } from '@/core/document/tones';
import fc from 'fast-check';
import { demoSet } from '@/core/document/demo';
import { MAX_HITS, MAX_NAME } from '@/core/document/limits';
import { MOVED_CHANNELS } from '@/core/document/moves';
import { readSet, writeSet } from '@/core/document/readSet';
import { MIX_CONTROLS } from '@/core/document/mix';
import { METERS } from '@/core/document/set';
import { SCALES } from '@/core/document/tones';
import { TONE_VOICES } from '@/core/document/toneVoices';
import type { Edit } from '@/core/edit/edit';
import { VALUE_KINDS, VALUE_RANGES } from '@/core/edit/values';
import { channelSent, channelTurned, echoSet, groupAdded, groupRemoved, roomSet } from './mixSlice';
import { setLoaded } from './openSlice';
import { edited, hitsRecorded, loopBarsSet, patternCleared, takeRemoved, treatmentSet } from './patternsSlice';
import { chainSet, sectionMoved, sectionRemoved, sectionStored } from './sectionsSlice';
import { patternKept, slotCleared, slotColoured, slotCopied, slotRenamed, slotsSwapped } from './slotsSlice';
import { selectPattern, selectSet } from './selectors';
import { slotOpened, stageReported, trackShown } from './stageSlice';
import { createStore, type Store } from './store';
import { meterSet, tempoSet } from './timeSlice';
import { keyMoved, tonesSet, trackAdded, trackDuplicated, trackMoved, trackNamed, trackRemoved } from './tracksSlice';
import { redone, undone } from './undoable';

type Act = (store: Store) => unknown;

const track = fc.integer({ min: 0, max: 5 });
const slot = fc.integer({ min: 0, max: 5 });
const place = fc.record({ track, slot });
const ids = fc.uniqueArray(fc.integer({ min: 1, max: 200 }), { maxLength: 8 });
const ticks = fc.integer({ min: -8000, max: 16000 });
/** Above those of the demo. */
let lastId = 100001;
const newIds = (count: number) => {
  const first = lastId;
  lastId += 2 * (count + 1);
  return first;
};

const edits: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({ kind: fc.constant('length' as const), length: fc.integer({ min: 1, max: 40000 }) }),
  fc.record({ kind: fc.constant('window' as const), window: fc.record({ start: fc.nat(9000), length: fc.integer({ min: 1, max: 9000 }) }) }),
  fc.record({ kind: fc.constant('crop' as const), start: fc.nat(6000), length: fc.integer({ min: 1, max: 8000 }) }),
  fc.constant<Edit>({ kind: 'doubleEmpty' }),
  fc.constant<Edit>({ kind: 'double', firstId: -1 }),
  fc.record({ kind: fc.constant('erase' as const), ids }),
  fc.record({ kind: fc.constant('rotate' as const), ids, ticks }),
  fc.record({ kind: fc.constant('move' as const), ids, ticks, lanes: fc.integer({ min: -20, max: 20 }) }),
  fc.record({ kind: fc.constant('transpose' as const), ids, semitones: fc.integer({ min: -30, max: 30 }) }),
  fc.record({ kind: fc.constant('notes' as const), ids, tones: fc.constant<Tones>({ voice: 'keys', root: 9, scale: 'minor', chromatic: false, octave: 0 }), by: fc.constantFrom('step' as const, 'semitone' as const), steps: fc.integer({ min: -30, max: 30 }) }),
  fc.record({ kind: fc.constant('reverse' as const), ids, step: fc.constantFrom(60, 240, 960) }),
  fc.record({ kind: fc.constant('stretch' as const), ids, factor: fc.constantFrom(0.5, 2), step: fc.constantFrom(60, 240) }),
  fc.record({ kind: fc.constant('dot' as const), ids }),
  fc.record({ kind: fc.constant('legato' as const), ids }),
  fc.tuple(fc.constantFrom(...VALUE_KINDS), ids, fc.double({ min: -1, max: 2, noNaN: true }), fc.constantFrom(60, 240)).map(([of, some, share, over]): Edit => {
    const { min, max } = VALUE_RANGES[of];
    return { kind: 'values', of, values: some.map((id) => [id, min + share * (max - min)]), over };
  }),
  fc.record({ kind: fc.constant('moves' as const), moved: fc.oneof(fc.record({ pad: fc.nat(15), control: fc.constant('level' as const) }), fc.record({ on: fc.constantFrom(...MOVED_CHANNELS), control: fc.constantFrom('level' as const, 'echo' as const) })), points: fc.array(fc.nat(3839), { maxLength: 40 }).map((at) => at.sort((a, b) => a - b).map((tick) => ({ tick, value: 0.5 }))) }),
); // prettier-ignore

/** What hands can do to the document. */
const deeds: fc.Arbitrary<Act> = fc.oneof(
  { weight: 8, arbitrary: fc.tuple(place, edits).map(([at, edit]): Act => (store) => {
    const pattern = selectSet(store.getState()).tracks[at.track]?.patterns[at.slot];
    const made = edit.kind === 'double' ? { ...edit, firstId: newIds(pattern?.hits.length ?? 0) } : edit;
    if ((edit.kind === 'double' || edit.kind === 'doubleEmpty') && (pattern?.length ?? 0) > 300000) return;
    store.dispatch(edited({ place: at, edit: made }));
  }) },
  fc.tuple(place, fc.nat(15), ticks).map(([at, pad, tick]): Act => (store) => store.dispatch(hitsRecorded({ place: at, hits: [{ id: newIds(1), pad, tick, length: 1, velocity: 1, snap: null, take: 1 }], take: `take ${tick % 3}` }))),
  fc.tuple(place, fc.constantFrom(1, 2, 4, 8)).map(([at, bars]): Act => (store) => store.dispatch(loopBarsSet({ place: at, bars }))),
  place.map((at): Act => (store) => store.dispatch(patternCleared({ place: at }))),
  place.map((at): Act => (store) => store.dispatch(takeRemoved({ place: at, take: 1 }))),
  place.map((at): Act => (store) => store.dispatch(treatmentSet({ place: at, scope: { kind: 'pattern' }, treatment: { feel: { grid: 360, strength: 1 } } }))),
  place.map((at): Act => (store) => store.dispatch(slotCleared(at))),
  fc.tuple(track, slot, slot).map(([id, a, to]): Act => (store) => store.dispatch(slotsSwapped({ track: id, slot: a, to }))),
  fc.tuple(place, slot).map(([at, to]): Act => (store) => store.dispatch(slotCopied({ place: at, to, firstId: newIds(MAX_HITS), label: 'copy' }))),
  fc.tuple(place, slot, track).map(([at, to, onto]): Act => (store) => store.dispatch(slotCopied({ place: at, to, onto, firstId: newIds(MAX_HITS), label: 'copy' }))),
  fc.tuple(place, fc.string({ maxLength: 200 })).map(([at, name]): Act => (store) => store.dispatch(slotRenamed({ ...at, name }))),
  fc.tuple(place, fc.nat(7)).map(([at, colour]): Act => (store) => store.dispatch(slotColoured({ ...at, colour }))),
  place.map((at): Act => (store) => store.dispatch(patternKept({ place: at, pattern: { name: 'Kept', length: 3840, hits: [] } }))),
  fc.integer({ min: -1, max: 1 }).map((semitones): Act => (store) => store.dispatch(keyMoved({ semitones }))),
  fc.tuple(track, track).map(([id, as]): Act => (store) => store.dispatch(trackDuplicated({ track: id, as, firstId: newIds(16 * MAX_HITS) }))),
  fc.tuple(track, fc.constantFrom(-1, 1)).map(([id, by]): Act => (store) => store.dispatch(trackMoved({ track: id, by }))),
  track.map((id): Act => (store) => store.dispatch(trackRemoved({ track: id }))),
  track.map((id): Act => (store) => store.dispatch(trackAdded({ ...demoSet().set.tracks[0]!, id, patterns: new Array(16).fill(null) }))),
  track.map((id): Act => (store) => store.dispatch(trackNamed({ track: id, name: 'x'.repeat(MAX_NAME) }))),
  fc.tuple(track, fc.constantFrom(...TONE_VOICES), fc.constantFrom(...SCALES), fc.boolean(), fc.nat(11)).map(([id, voice, scale, chromatic, root]): Act => (store) => store.dispatch(tonesSet({ track: id, tones: { voice, scale, chromatic, root, octave: 0 } }))),
  fc.constantFrom(...METERS).map((meter): Act => (store) => store.dispatch(meterSet(meter))),
  track.map((id): Act => (store) => store.dispatch(chainSet({ track: id, chain: { links: [{ slot: 1, times: 2 }], again: true } }))),
  fc.integer({ min: 1, max: 8 }).map((id): Act => (store) => store.dispatch(sectionStored({ id, name: 'S', colour: 1, parts: [{ track: 0, plays: 1 }], rounds: 2, then: 1 + (id % 3) }))),
  fc.integer({ min: 1, max: 8 }).map((id): Act => (store) => store.dispatch(sectionRemoved(id))),
  fc.tuple(fc.integer({ min: 0, max: 20 }), fc.constantFrom(...MIX_CONTROLS), fc.double({ min: -30, max: 2e4, noNaN: true }), fc.boolean()).map(([channel, control, value, isBack]): Act => (store) =>
    control !== 'level' && store.dispatch(channelTurned({ channel, control, value: isBack ? null : value, gesture: 'g' }))),
  fc.tuple(fc.integer({ min: 0, max: 19 }), fc.option(fc.nat(3))).map(([channel, to]): Act => (store) => store.dispatch(channelSent({ channel, to }))),
  fc.nat(4).map((id): Act => (store) => store.dispatch(groupAdded({ id: id % 4, name: 'Group', colour: id, level: 1 }))),
  fc.nat(3).map((id): Act => (store) => store.dispatch(groupRemoved(id))),
  fc.constantFrom('1/8' as const, 250).map((time): Act => (store) => store.dispatch(echoSet({ change: { time }, gesture: 'e' }))),
  fc.constantFrom({ size: 4 }, { preDelay: 150, width: 0 }).map((change): Act => (store) => store.dispatch(roomSet({ change, gesture: 'r' }))),
  fc.tuple(fc.integer({ min: 1, max: 8 }), fc.constantFrom(-1, 1)).map(([id, by]): Act => (store) => store.dispatch(sectionMoved({ id, by }))),
); // prettier-ignore

/** What is performed meanwhile. */
const performing: fc.Arbitrary<Act> = fc.oneof(
  fc.tuple(track, slot, fc.boolean(), fc.boolean(), fc.boolean()).map(([id, at, stopped, mute, solo]): Act => (store) => store.dispatch(stageReported([{ track: id, slot: at, stopped, mute, solo }]))),
  fc.tuple(track, slot).map(([id, at]): Act => (store) => store.dispatch(slotOpened({ track: id, slot: at }))),
  track.map((id): Act => (store) => void (selectSet(store.getState()).tracks[id] && store.dispatch(trackShown(id)))),
  fc.integer({ min: 60, max: 180 }).map((bpm): Act => (store) => store.dispatch(tempoSet(bpm))),
); // prettier-ignore

const open = (): Store => {
  const store = createStore();
  store.dispatch(setLoaded(demoSet()));
  return store;
};
/** What plays: which pattern, by what it is, and whether it is heard. */
const played = (store: Store) => {
  const { stage } = store.getState();
  return Object.entries(stage.tracks).map(([id, { slot: at, stopped, mute, solo }]) => ({
    id,
    at,
    stopped,
    mute,
    solo,
  }));
};

test('undo and redo of any steps, mixed with launches and mutes: the document is exact, and what plays is left alone', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof({ weight: 3, arbitrary: deeds }, performing), { minLength: 1, maxLength: 25 }),
      performing,
      (acts, later) => {
        const store = open();
        const before = selectSet(store.getState());
        for (const act of acts) act(store);
        const after = selectSet(store.getState());
        const { past, open: last } = store.getState().set;
        const count = past.length + (last ? 1 : 0);
        for (let i = 0; i < count; i++) {
          later(store);
          const was = played(store);
          store.dispatch(undone());
          const now = played(store);
          // A pattern that went back to another slot is followed there; nothing else of what plays has changed.
          expect(now.map(({ at: _, ...rest }) => rest)).toEqual(was.map(({ at: _, ...rest }) => rest));
        }
        const undone_ = selectSet(store.getState());
        expect({ ...undone_, tempo: 0 }).toEqual({ ...before, tempo: 0 });
        for (let i = 0; i < count; i++) store.dispatch(redone());
        expect({ ...selectSet(store.getState()), tempo: 0 }).toEqual({ ...after, tempo: 0 });
        expect(selectPattern(store.getState())).toBeDefined();
      },
    ),
    { numRuns: Number(process.env.HISTORIES ?? 100) },
  );
});

test('every document that can be made can be opened again', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof({ weight: 4, arbitrary: deeds }, performing), { minLength: 1, maxLength: 40 }),
      (acts) => {
        const store = open();
        for (const act of acts) act(store);
        const { set, stage } = store.getState();
        const read = readSet(writeSet({ set: set.present, stage }));
        if ('error' in read) throw new Error(read.error);
        expect(read.set).toEqual(JSON.parse(JSON.stringify(set.present)));
      },
    ),
    { numRuns: Number(process.env.HISTORIES ?? 100) },
  );
});

test('the oldest steps make room beyond 64 MB, and the history says its size', () => {
  const store = open();
  const at = { track: 0, slot: 0 };
  const hits = (from: number) =>
    Array.from({ length: 20000 }, (_, i) => ({ id: from + i, pad: 0, tick: i, length: 1, velocity: 1, snap: null }));
  for (let i = 0; i < 22; i++) {
    store.dispatch(edited({ place: at, edit: { kind: 'replace', ids: i === 0 ? [] : Array.from({ length: 20000 }, (_, k) => 1000 + 20000 * (i - 1) + k), hits: hits(1000 + 20000 * i) } })); // prettier-ignore
  }
  const { bytes, past } = store.getState().set;
  expect(past.length).toBeLessThan(21);
  expect(bytes).toBeGreaterThan(30e6);
  expect(bytes).toBeLessThan(70e6);
});

describe('what was made in the app and could not be opened again', () => {
  const at = { track: 0, slot: 0 };
  const reopened = (store: Store) =>
    readSet(writeSet({ set: selectSet(store.getState()), stage: store.getState().stage }));
  const all = (store: Store) => selectPattern(store.getState()).hits.map((hit) => hit.id);
  const times = (count: number, edit: (store: Store) => Edit) => {
    const store = open();
    for (let i = 0; i < count; i++) store.dispatch(edited({ place: at, edit: edit(store) }));
    return store;
  };
  const withRolls = (store: Store) => {
    const values = all(store).map((id): [number, number] => [id, 4]);
    store.dispatch(edited({ place: at, edit: { kind: 'values', of: 'roll', values, over: 240 } }));
  };

  test('double time eight times, half time fourteen times, with rolls and snaps', () => {
    for (const [factor, count] of [[0.5, 12], [2, 20]] as const) {
      const store = open();
      withRolls(store);
      for (let i = 0; i < count; i++) {
        store.dispatch(edited({ place: at, edit: { kind: 'stretch', ids: all(store), factor, step: 240 } }));
      }
      expect(reopened(store)).not.toHaveProperty('error');
    }
  }); // prettier-ignore

  test('Moves that are doubled beyond what they can hold', () => {
    const points = Array.from({ length: 4000 }, (_, tick) => ({ tick, value: tick / 4000 }));
    const store = times(1, () => ({ kind: 'moves', moved: { pad: 0, control: 'level' }, points }));
    for (let i = 0; i < 3; i++) {
      store.dispatch(edited({ place: at, edit: { kind: 'double', firstId: newIds(3000) } }));
      expect(reopened(store)).not.toHaveProperty('error');
    }
    expect(selectPattern(store.getState()).moves![0]!.points).toHaveLength(4096);
  });

  test('a name as long as can be, copied; a sixteenth and a shorter bar; a move under a dotted Feel', () => {
    const store = open();
    store.dispatch(slotRenamed({ ...at, name: 'x'.repeat(MAX_NAME) }));
    store.dispatch(slotCopied({ place: at, to: 5, firstId: newIds(MAX_HITS), label: 'copy' }));
    store.dispatch(trackNamed({ track: 0, name: 'y'.repeat(MAX_NAME) }));
    store.dispatch(trackDuplicated({ track: 0, as: 9, firstId: newIds(16 * MAX_HITS) }));
    store.dispatch(edited({ place: { track: 0, slot: 1 }, edit: { kind: 'length', length: 240 } }));
    store.dispatch(meterSet({ beats: 2, unit: 4 }));
    store.dispatch(
      treatmentSet({ place: at, scope: { kind: 'pattern' }, treatment: { feel: { grid: 1440, strength: 1 } } }),
    );
    store.dispatch(edited({ place: at, edit: { kind: 'move', ids: all(store), ticks: 1300, lanes: 0 } }));
    expect(reopened(store)).not.toHaveProperty('error');
  });

  test('recorded at an octave shift, then all twelve notes and another root', () => {
    const store = open();
    const kerb = { track: 2, slot: 0 };
    const hits = [0, 15].flatMap((pad) => [-24, 24].map((pitch) => ({ id: newIds(1), pad, tick: 0, length: 1, velocity: 1, snap: null, pitch })));
    store.dispatch(hitsRecorded({ place: kerb, hits, take: 'a' }));
    for (const chromatic of [true, false, true]) {
      store.dispatch(tonesSet({ track: 2, tones: { voice: 'bass', root: chromatic ? 0 : 11, scale: 'blues', chromatic, octave: 0 } }));
      expect(reopened(store)).not.toHaveProperty('error');
    }
  }); // prettier-ignore
});
