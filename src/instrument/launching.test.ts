import { SILENT, THEN_STOP } from '@/core/launch/launchState';
import type { Instrument } from './instrument';
import { pressLaunchPad, stopAll, storeSection, touchCard, touchMuteSolo, touchSection } from './launches';
import { Performance } from './performance';
import { selectSet, selectTracks } from '@/store/selectors';
import { overrideSet } from '@/store/sessionSlice';
import { launchingSet } from '@/store/sectionsSlice';
import { slotsSwapped } from '@/store/slotsSlice';
import { stageReported } from '@/store/stageSlice';
import { trackMoved, trackRemoved } from '@/store/tracksSlice';
import { createStore } from '@/store/store';
import { undone } from '@/store/undoable';
import type { Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import { LOOP_END } from '@/core/launch/launchRules';

const BAR = 3840;

/** The demo, an engine that is only told, and what the engine would tell back. */
function stage() {
  const store = createStore();
  const told: Instruction[] = [];
  /** What was told at one frame each. */
  const messages: Instruction[][] = [];
  const performance = new Performance(
    () => 0,
    () => selectSet(store.getState()),
  );
  const instrument = {
    performance,
    perform: (...all: Instruction[]) => {
      told.push(...all);
      messages.push(all);
    },
  } as unknown as Instrument;
  const loop = (track: number, slot: number): EngineEvent => ({ kind: 'loop', frame: 0, track, slot, launchTick: 0, start: 0, span: BAR, tick: 0 }); // prettier-ignore
  const waiting = (track: number, next: number, nextTick: number): EngineEvent => ({ kind: 'waiting', frame: 0, track, beneath: false, slot: SILENT, launchTick: 0, next, nextInPlace: 0, nextTick, link: -1, linkTick: Infinity, muted: 0, soloed: 0, nextMute: -1, nextSolo: -1, muteSoloTick: Infinity }); // prettier-ignore
  performance.takeAll([loop(0, 0)]);
  return { store, told, messages, instrument, performance, loop, waiting };
}

test('a card asks for its pattern on Drop on; what waits is taken back; what plays is asked to stop', () => {
  const { store, told, instrument, performance, waiting } = stage();
  touchCard(store, instrument, 0, 1);
  performance.takeAll([waiting(0, 1, BAR)]);
  touchCard(store, instrument, 0, 1);
  performance.takeAll([waiting(0, 1, Infinity)]);
  touchCard(store, instrument, 0, 0);
  performance.takeAll([waiting(0, SILENT, BAR)]);
  touchCard(store, instrument, 0, 0);
  expect(told).toEqual([{ type: 'launch', track: 0, slot: 1, on: BAR, inPlace: false }, { type: 'cancelLaunch', track: 0 }, { type: 'launch', track: 0, slot: SILENT, on: BAR, inPlace: false }, { type: 'cancelLaunch', track: 0 }]); // prettier-ignore
});

test('the override and In place hold for what is launched meanwhile', () => {
  const { store, told, instrument } = stage();
  store.dispatch(launchingSet({ dropOn: 'loop', inPlace: true }));
  touchCard(store, instrument, 1, 0);
  store.dispatch(overrideSet(true));
  touchSection(store, instrument, 2);
  touchMuteSolo(store, instrument, [1], 'solo');
  expect(told).toEqual([{ type: 'launch', track: 1, slot: 0, on: LOOP_END, inPlace: true }, { type: 'launchSection', section: 2, on: 0, inPlace: true }, { type: 'muteSolo', track: 1, mute: -1, solo: 1, on: 0 }]); // prettier-ignore
});

test('of a group all tracks are muted at one frame, were it only some that are not; all or those that wait are taken back', () => {
  const { store, told, messages, instrument, performance, waiting } = stage();
  const gate = (track: number, muted: number, nextMute: number) => performance.takeAll([{ ...waiting(track, SILENT, Infinity), muted, nextMute, muteSoloTick: nextMute < 0 ? Infinity : BAR } as EngineEvent]); // prettier-ignore
  const touch = () => {
    told.length = messages.length = 0;
    touchMuteSolo(store, instrument, [0, 1], 'mute');
    expect(messages).toHaveLength(1);
    return told.map((command) => (command.type === 'muteSolo' ? [command.track, command.mute, command.solo] : [command.type, 'track' in command && command.track])); // prettier-ignore
  };
  gate(0, 1, -1);
  expect(touch()).toEqual([[0, 1, -1], [1, 1, -1]]); // prettier-ignore
  gate(1, 0, 1);
  expect(touch()).toEqual([['cancelMuteSolo', 1]]);
  gate(1, 1, -1);
  expect(touch()).toEqual([[0, 0, -1], [1, 0, -1]]); // prettier-ignore
});

test('an empty slot gets a pattern, which is launched; an empty pad does nothing', () => {
  const { store, told, instrument } = stage();
  touchCard(store, instrument, 0, 9);
  expect(selectSet(store.getState()).tracks[0]!.patterns[9]?.hits).toEqual([]);
  expect(told).toEqual([{ type: 'launch', track: 0, slot: 9, on: BAR, inPlace: false }]);
  pressLaunchPad(store, instrument, 'patterns', 12);
  pressLaunchPad(store, instrument, 'sections', 4);
  expect(told.slice(1)).toEqual([{ type: 'launchSection', section: 5, on: BAR, inPlace: false }]);
  store.dispatch(undone());
  expect(selectSet(store.getState()).tracks[0]!.patterns[9]).toBeNull();
});

test('Stop all is at once when it waits already, but not when a section would only go on to it', () => {
  const { store, told, instrument, performance } = stage();
  const launcher = (nextSection: number, follows: boolean): EngineEvent => ({ kind: 'launcher', frame: 0, beneath: false, section: 1, nextSection, sectionTick: BAR, sectionFollows: follows, sectionInPlace: false, lift: 0, liftTick: Infinity, fadeFrom: Infinity, fadeTo: Infinity }); // prettier-ignore
  stopAll(store, instrument);
  performance.takeAll([launcher(THEN_STOP, false)]);
  stopAll(store, instrument);
  performance.takeAll([launcher(THEN_STOP, true)]);
  stopAll(store, instrument);
  expect(told).toEqual([{ type: 'stopAll', on: BAR }, { type: 'stopAll', on: 0 }, { type: 'stopAll', on: BAR }]); // prettier-ignore
});

test('a section is what plays; it follows patterns that change places, and lets go of tracks that go', () => {
  const { store, instrument, performance, loop } = stage();
  performance.takeAll([loop(0, 2), loop(1, SILENT), loop(2, 1)]);
  expect(storeSection(store, instrument)).toBe('Section 6');
  const stored = () => selectSet(store.getState()).sections[5]!.parts;
  expect(stored()).toEqual([{ track: 0, plays: 2 }, { track: 1, plays: null }, { track: 2, plays: 1 }, { track: 3, plays: null }]); // prettier-ignore
  store.dispatch(slotsSwapped({ track: 0, slot: 2, to: 8 }));
  expect(stored()[0]).toEqual({ track: 0, plays: 8 });
  store.dispatch(trackMoved({ track: 2, by: -2 }));
  store.dispatch(trackRemoved({ track: 1 }));
  expect(stored().map((part) => part.track)).toEqual([0, 2, 3]);
  expect(selectTracks(store.getState()).map((track) => track.name)).toEqual(['Kerb', 'Wheels', 'Lamps']);
  for (let i = 0; i < 4; i++) store.dispatch(undone());
  expect(selectTracks(store.getState()).map((track) => track.id)).toEqual([0, 1, 2, 3]);
  expect(selectSet(store.getState()).sections).toHaveLength(5);
});

test('what the engine tells changes the stage, and is no step of undo', () => {
  const { store } = stage();
  store.dispatch(stageReported([{ track: 0, slot: 3, stopped: false }, { track: 1, slot: 1, stopped: false }, { track: 2, stopped: true }])); // prettier-ignore
  const { tracks } = store.getState().stage;
  expect([0, 1, 2, 3].map((id) => [tracks[id]!.slot, tracks[id]!.stopped])).toEqual([[3, false], [1, false], [0, true], [0, true]]); // prettier-ignore
  expect(store.getState().set).toMatchObject({ past: [], open: null });
});
