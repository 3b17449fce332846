import { newSet } from '@/core/document/create';
import { FIRST_STAGE } from '@/core/document/stage';
import type { Tones } from '@/core/document/tones';
import { newTrack } from '@/core/document/track';
import { movePoints } from '@/core/edit/editMoves';
import { setLoaded } from '@/store/openSlice';
import { selectPattern } from '@/store/selectors';
import { createStore } from '@/store/store';
import { undone } from '@/store/undoable';
import { HostInNode } from './engineHost.testing';
import { Instrument } from './instrument';

const BEAT = 24000; // frames of a quarter at 120 BPM
const TONES: Tones = { voice: 'pad', root: 9, scale: 'minor', chromatic: false, octave: 0 };

async function recording(tones?: Tones) {
  const store = createStore();
  const track = { ...newTrack('Glow', 0, [{ name: 'One', length: 7680, hits: [] }]), ...(tones && { tones }) };
  store.dispatch(setLoaded({ set: newSet('Test', 120, [track]), stage: { shown: 0, tracks: { 0: FIRST_STAGE } } }));
  const host = new HostInNode();
  const instrument = new Instrument(store, host.make);
  await instrument.start();
  instrument.toggleRecord();
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

test('a drum has no key that could be pressed', async () => {
  const { host, instrument, at, press, points } = await recording();
  instrument.padDown(3, 0.7, at(), 'touch');
  press(1);
  host.run(BEAT);
  expect(points()).toEqual([]);
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
