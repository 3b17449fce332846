import { nextHitId } from '@/core/document/set';
import { emptyPattern } from '@/core/document/pattern';
import { newTrack } from '@/core/document/track';
import { FIRST_LFO } from '@/core/document/lfo';
import { POLISHED_FLOOR } from '@/core/document/kits';
import { SHIPPED_KITS } from '@/core/shelf/shippedKits';
import { selectHeardSet, selectSet, selectUndo } from './selectors';
import { tried } from './sessionSlice';
import { likedToggled, MOST_SHELVED, readShelf, shelved, unshelved, used } from './shelfSlice';
import { alsoPlaysSet, cutsSet, kitTaken, piecesLaid, sampleCut, sampleTempoSet, soundChanged, soundKindSet, soundNamed, soundNumberSet, soundReset, soundTaken } from './soundsSlice'; // prettier-ignore
import { createStore } from './store';
import { undone } from './undoable';

const place = { track: 0, pad: 6 };
const kitOf = (store: ReturnType<typeof createStore>, track = 0) => selectSet(store.getState()).tracks[track]!.kit;
const soundOf = (store: ReturnType<typeof createStore>, pad = 6) => kitOf(store).pads[pad]!.sound;

test('a number is set, its drag is one step of undo, and null gives it back to the sound', () => {
  const store = createStore();
  const before = selectSet(store.getState());
  for (const value of [1, 2, 3]) store.dispatch(soundNumberSet({ ...place, setting: 'pitch', value, gesture: 'a' }));
  store.dispatch(soundNumberSet({ ...place, setting: 'pitch', value: 7, gesture: 'b' }));
  expect([soundOf(store).settings.pitch, selectUndo(store.getState())]).toEqual([7, 'pitch']);
  store.dispatch(undone());
  expect(soundOf(store).settings.pitch).toBe(3);
  store.dispatch(soundNumberSet({ ...place, setting: 'pitch', value: null, gesture: 'c' }));
  expect('pitch' in soundOf(store).settings).toBe(false);
  store.dispatch(undone());
  store.dispatch(undone());
  expect(selectSet(store.getState())).toEqual(before);
  expect(before.tracks[2]!.kit).toBe(POLISHED_FLOOR);
});

test('a track of notes has one sound for all its pads', () => {
  const store = createStore();
  const own = selectSet(store.getState()).tracks[2]!.tones!.settings;
  store.dispatch(soundNumberSet({ track: 2, pad: 3, setting: 'cutoff', value: 800, gesture: 'a' }));
  expect(selectSet(store.getState()).tracks[2]!.tones!.settings).toEqual({ ...own, cutoff: 800 });
  expect(kitOf(store, 2)).toEqual(POLISHED_FLOOR);
});

test('waves, ways of playing, name and kind; undefined gives back, reset gives all back', () => {
  const store = createStore();
  store.dispatch(soundChanged({ ...place, change: { lfos: [FIRST_LFO], plays: 'held' }, label: 'LFO' }));
  expect(selectUndo(store.getState())).toBe('LFO');
  store.dispatch(soundChanged({ ...place, change: { plays: undefined }, label: 'how it plays' }));
  const own = soundOf(createStore()).settings;
  expect(soundOf(store).settings).toEqual({ ...own, lfos: [FIRST_LFO] });
  store.dispatch(soundNamed({ ...place, name: '  Squeak ' }));
  store.dispatch(soundKindSet({ ...place, kind: 'shaker' }));
  expect([soundOf(store).name, soundOf(store).kind, kitOf(store).pads[6]!.note]).toEqual(['Squeak', 'shaker', 46]);
  store.dispatch(soundReset(place));
  expect(soundOf(store).settings).toEqual(own);
});

test('a number given back is what the sound was taken with', () => {
  const store = createStore();
  const brick = SHIPPED_KITS.find(({ id }) => id === 'canal-brick')!.kit!;
  store.dispatch(kitTaken({ track: 0, kit: brick }));
  const kick = { track: 0, pad: 0 };
  store.dispatch(soundNumberSet({ ...kick, setting: 'pitch', value: 7, gesture: 'a' }));
  store.dispatch(soundNumberSet({ ...kick, setting: 'pitch', value: null, gesture: 'b' }));
  expect(kitOf(store).pads[0]!.sound.settings).toEqual(brick.pads[0]!.sound.settings);
  // What lies on the shelf has what it was shelved with, whatever it was taken with before.
  const { sound } = kitOf(store).pads[0]!;
  store.dispatch(shelved({ id: 'mine', name: 'Mine', tags: [], sound: { ...sound, settings: { pitch: 2 } } }));
  expect(store.getState().shelf.own[0]!.sound!.own).toEqual({ pitch: 2 });
});

test('what a pad also plays is never a circle, and cuts are groups', () => {
  const store = createStore();
  store.dispatch(alsoPlaysSet({ track: 0, pad: 2, also: [{ pad: 3, share: 0.8 }] }));
  store.dispatch(alsoPlaysSet({ track: 0, pad: 3, also: [{ pad: 2, share: 0.8 }] }));
  expect(kitOf(store).pads[3]!.alsoPlays).toBeUndefined();
  expect(kitOf(store).pads[2]!.alsoPlays).toEqual([{ pad: 3, share: 0.8 }]);
  store.dispatch(cutsSet({ track: 0, pad: 10, others: [11, 6] }));
  expect(kitOf(store).cutGroups).toEqual([[4, 5], [6, 10, 11]]); // prettier-ignore
});

test('what is tried is heard and not in the document; taken, it is in it; left, it is as before', () => {
  const store = createStore();
  const [, booth] = SHIPPED_KITS;
  const heard = () => selectHeardSet(store.getState()).tracks[0]!.kit;
  const own = kitOf(store);
  store.dispatch(tried({ track: 0, id: booth!.id, name: booth!.name, kit: booth!.kit! }));
  expect([heard(), kitOf(store)]).toEqual([booth!.kit, own]);
  store.dispatch(tried(null));
  expect(heard()).toBe(own);
  const sound = booth!.kit!.pads[2]!.sound;
  store.dispatch(tried({ track: 0, pad: 0, id: 'x', name: 'Snare', sound }));
  expect([heard().pads[0]!.sound, heard().pads[1]]).toEqual([sound, own.pads[1]]);
  store.dispatch(soundTaken({ track: 0, pad: 0, sound }));
  expect([store.getState().session.tried, kitOf(store).pads[0]!.sound]).toEqual([null, sound]);
  store.dispatch(kitTaken({ track: 0, kit: booth!.kit! }));
  store.dispatch(undone());
  store.dispatch(undone());
  expect(kitOf(store)).toEqual(own);
  expect(nextHitId(selectSet(store.getState()))).toBeGreaterThan(1);
});

test('the shelf keeps own kits, what is liked and what was taken; what is stored comes back, what is broken stays away', () => {
  const store = createStore();
  const mine = { id: 'mine', name: 'Mine', tags: ['dry'], kit: POLISHED_FLOOR };
  store.dispatch(shelved(mine));
  store.dispatch(likedToggled('mine'));
  for (const id of ['a', 'mine', 'a']) store.dispatch(used(id));
  const { shelf } = store.getState();
  expect([shelf.own, shelf.liked, shelf.recent]).toEqual([[mine], ['mine'], ['a', 'mine']]);
  expect(readShelf(JSON.stringify(shelf))).toEqual(shelf);
  expect(readShelf(JSON.stringify({ own: [mine, { id: 1 }, 'x'], liked: [3, 'y'] })).own).toEqual([mine]);
  for (const text of [null, '', '{', '[]', '7']) expect(readShelf(text)).toEqual({ own: [], liked: [], recent: [] });
  store.dispatch(unshelved('mine'));
  expect(store.getState().shelf).toEqual({ own: [], liked: [], recent: ['a'] });
  for (let i = 0; i < MOST_SHELVED + 3; i++) store.dispatch(shelved({ ...mine, id: `k${i}` }));
  expect(store.getState().shelf.own).toHaveLength(MOST_SHELVED);
});

test('cuts and the tempo of a recording are steps of undo; what the engine makes has none', () => {
  const store = createStore();
  store.dispatch(sampleCut({ ...place, cuts: [100] }));
  store.dispatch(sampleTempoSet({ ...place, tempo: 90 }));
  expect(soundOf(store)).toEqual(soundOf(createStore()));
  const loop = { ...soundOf(store), source: { sample: 'a'.repeat(32), frames: 48000 } };
  store.dispatch(soundTaken({ ...place, sound: loop }));
  for (const cuts of [[100], [200], [300, 900]]) store.dispatch(sampleCut({ ...place, cuts, gesture: 'drag' }));
  store.dispatch(sampleTempoSet({ ...place, tempo: 1000 }));
  expect([soundOf(store).cuts, soundOf(store).tempo, selectUndo(store.getState())]).toEqual([[300, 900], 300, 'tempo of a recording']); // prettier-ignore
  store.dispatch(undone());
  store.dispatch(undone());
  expect(soundOf(store)).toEqual(loop);
});

test('pieces on pads are one step: a kit, its pattern and new tracks, the first of which is shown', () => {
  const store = createStore();
  const before = selectSet(store.getState());
  const [track, added] = [before.tracks[0]!, { ...newTrack('Loop', 0, []), id: 9 }];
  const pattern = emptyPattern('Pieces', before.meter);
  const kit = { ...track.kit, name: 'Pieces' };
  store.dispatch(piecesLaid({ here: { track: 0, kit, slot: 7, pattern }, added: [added, { ...added, id: 10 }] }));
  const after = selectSet(store.getState());
  expect([after.tracks[0]!.kit.name, after.tracks[0]!.patterns[7]!.name, after.order.slice(-2), store.getState().stage.shown]).toEqual(['Pieces', 'Pieces', [9, 10], 9]); // prettier-ignore
  store.dispatch(undone());
  expect(selectSet(store.getState())).toEqual(before);
});
