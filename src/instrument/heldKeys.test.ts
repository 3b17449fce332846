import { newSet } from '@/core/document/create';
import { FIRST_STAGE } from '@/core/document/stage';
import type { Tones } from '@/core/document/tones';
import { newTrack } from '@/core/document/track';
import { movePoints } from '@/core/edit/editMoves';
import { setLoaded } from '@/store/openSlice';
import { selectPattern } from '@/store/selectors';
import { slotRenamed } from '@/store/slotsSlice';
import { countInSet } from '@/store/timeSlice';
import { createStore } from '@/store/store';
import { undone } from '@/store/undoable';
import { HostInNode } from './engineHost.testing';
import { Instrument } from './instrument';

const BEAT = 24000; // frames of a quarter at 120 BPM
const TONES: Tones = { voice: 'pad', root: 9, scale: 'minor', chromatic: false, octave: 0 };

async function recording(tones?: Tones, countIn: 0 | 1 = 0) {
  const store = createStore();
  const track = { ...newTrack('Glow', 0, [{ name: 'One', length: 7680, hits: [] }]), ...(tones && { tones }) };
  store.dispatch(setLoaded({ set: newSet('Test', 120, [track]), stage: { shown: 0, tracks: { 0: FIRST_STAGE } } }));
  const host = new HostInNode();
  const instrument = new Instrument(store, host.make);
  await instrument.start();
  store.dispatch(countInSet(countIn));
  instrument.toggleRecord();
  host.run(256);
  instrument.play();
  host.run(BEAT);
  const at = () => host.engine.frame;
  const press = (pressure: number) => instrument.padPress(3, { velocity: 0.5, pressure }, at(), 'touch');
  const points = () => movePoints(selectPattern(store.getState()), { pad: 3, control: 'pressure' });
  return { store, host, instrument, at, press, points };
}

test('how a key is pressed is recorded with its stroke, from nothing to nothing, and undone with it', async () => {
  const { store, host, instrument, at, press, points } = await recording(TONES);
  instrument.padDown(3, 0.7, at(), 'touch');
  host.run(BEAT / 2);
  press(0); // A finger that only trembles.
  expect(points()).toEqual([]);
  press(0.4);
  host.run(BEAT / 2);
  press(0.8);
  host.run(BEAT);
  instrument.padUp(3, at(), 'touch');
  host.run(BEAT);
  expect(selectPattern(store.getState()).hits).toHaveLength(1);
  // The host runs in whole quanta: a few ticks more than asked.
  const first = points()[0]!.tick;
  const written = points().map(({ tick, value }) => [Math.round((tick - first) / 60) * 60, value]);
  expect(written).toEqual([[0, 0], [0, 0.4], [480, 0.8], [1440, 0.8], [1440, 0]]); // prettier-ignore
  store.dispatch(undone());
  expect(selectPattern(store.getState()).hits).toEqual([]);
  expect(points()).toEqual([]);
});

test('a finger that slides sideways has the note brighter or duller, which is recorded beside how it is pressed', async () => {
  const { store, host, instrument, at } = await recording(TONES);
  const bright = () => movePoints(selectPattern(store.getState()), { pad: 3, control: 'bright' });
  const slide = (aside: number, pressure = 0) => instrument.padPress(3, { velocity: 0.5, pressure, aside }, at(), 'touch'); // prettier-ignore
  instrument.padDown(3, 0.7, at(), 'touch');
  host.run(BEAT / 2);
  slide(0);
  expect(bright()).toEqual([]);
  slide(-0.5);
  host.run(BEAT / 2);
  slide(0.75, 0.3);
  host.run(BEAT / 2);
  instrument.padUp(3, at(), 'touch');
  host.run(BEAT);
  expect(bright().map(({ value }) => value)).toEqual([0, -0.5, 0.75, 0.75, 0]);
  expect(movePoints(selectPattern(store.getState()), { pad: 3, control: 'pressure' }).length).toBeGreaterThan(2);
  const turns = host.sent.flat().flatMap((one) => (one.type === 'turn' && one.control === 'bright' ? [one.value] : [])); // prettier-ignore
  expect(turns).toEqual([-0.5, 0.75, NaN]);
  store.dispatch(undone());
  expect(bright()).toEqual([]);
});

test('a drum has no key that could be pressed', async () => {
  const { host, instrument, at, press, points } = await recording();
  instrument.padDown(3, 0.7, at(), 'touch');
  press(1);
  instrument.padPress(3, { velocity: 0.5, pressure: 1, aside: 1 }, at(), 'touch');
  host.run(BEAT);
  expect(points()).toEqual([]);
  expect(host.sent.flat().filter(({ type }) => type === 'turn')).toEqual([]);
});

test('panic lets go of what is pressed', async () => {
  const { host, instrument, at, press } = await recording(TONES);
  instrument.padDown(3, 0.7, at(), 'touch');
  press(1);
  instrument.panic();
  host.run(256);
  const turns = host.sent.flat().flatMap((one) => (one.type === 'turn' ? [one.value] : []));
  expect(turns.at(-1)).toBeNaN();
});

test('pressure that is ridden by a strip is a step of undo of its own: the edit before it stays', async () => {
  const { store, host, instrument, at, points } = await recording(TONES);
  store.dispatch(slotRenamed({ track: 0, slot: 0, name: 'Two' }));
  for (const value of [0.2, 0.6]) {
    instrument.rides.ride(0, { pad: 3, control: 'pressure' }, value, at());
    host.run(BEAT / 2);
  }
  instrument.rides.release(0, { pad: 3, control: 'pressure' });
  expect(points()).toHaveLength(2);
  store.dispatch(undone());
  expect([points(), selectPattern(store.getState()).name]).toEqual([[], 'Two']);
});

test('what is pressed while the song is counted in is written nowhere, and from its first tick on when it is held', async () => {
  const { host, instrument, at, press, points } = await recording(TONES, 1);
  const bar = 4 * BEAT;
  instrument.padDown(3, 0.7, at(), 'touch');
  press(0.5); // A beat after the count-in began.
  host.run(bar - BEAT);
  expect(points()).toEqual([]);
  host.run(BEAT);
  press(0.9);
  instrument.padUp(3, at(), 'touch');
  expect(points().map(({ value }) => value)).toEqual([0, 0.9, 0]);
  expect(points()[0]!.tick).toBeGreaterThan(900);
});

test('when recording ends while a key is pressed, its pressure ends there', async () => {
  const { host, instrument, at, press, points } = await recording(TONES);
  instrument.padDown(3, 0.7, at(), 'touch');
  press(0.6);
  host.run(BEAT);
  instrument.toggleRecord();
  host.run(BEAT);
  expect(points().at(-1)!.value).toBe(0);
});
