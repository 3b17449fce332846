import { newSet } from '@/core/document/create';
import { FIRST_STAGE } from '@/core/document/stage';
import type { Tones } from '@/core/document/tones';
import { newTrack } from '@/core/document/track';
import { setLoaded } from '@/store/openSlice';
import { selectPattern } from '@/store/selectors';
import { countInSet, inputQuantizeToggled } from '@/store/timeSlice';
import { createStore } from '@/store/store';
import { HostInNode } from './engineHost.testing';
import { Instrument } from './instrument';
import { playedScales } from './playedScales';

const BEAT = 24000; // frames of a quarter at 120 BPM
const ORGAN: Tones = { voice: 'organ', root: 9, scale: 'minor', chromatic: false, octave: 0 };

async function recording(tones?: Tones) {
  const store = createStore();
  const track = { ...newTrack('Glow', 0, [{ name: 'One', length: 15360, hits: [] }]), ...(tones && { tones }) };
  store.dispatch(setLoaded({ set: newSet('Test', 120, [track]), stage: { shown: 0, tracks: { 0: FIRST_STAGE } } }));
  const host = new HostInNode();
  const instrument = new Instrument(store, host.make);
  await instrument.start();
  store.dispatch(countInSet(0));
  store.dispatch(inputQuantizeToggled());
  instrument.toggleRecord();
  host.run(256);
  instrument.play();
  host.run(BEAT);
  const at = () => host.engine.frame;
  return {
    host,
    down: (pad: number) => instrument.padDown(pad, 0.7, at(), 'touch'),
    up: (pad: number) => instrument.padUp(pad, at(), 'touch'),
    sustain: (on: boolean) => instrument.hands.sustain(on, at()),
    releaseAll: () => instrument.hands.releaseAll(),
    found: () => playedScales(instrument, store.getState()),
    stopRecording: () => instrument.toggleRecord(),
    /** Of each hit, in beats. */
    lengths: () => {
      host.run(512);
      return selectPattern(store.getState()).hits.map(({ pad, length }) => [pad, Math.round(length / 96) / 10]);
    },
  };
}

test('sustained notes last until it ends, those that are still held until they are let go (MIDI 1.0, damper pedal)', async () => {
  const { host, down, up, sustain, lengths } = await recording(ORGAN);
  sustain(true);
  down(0);
  down(2);
  host.run(BEAT);
  up(0);
  host.run(BEAT);
  sustain(false);
  host.run(BEAT);
  up(2);
  expect(lengths()).toEqual([[0, 2], [2, 3]]); // prettier-ignore
});

test('struck again while it is sustained, a note begins anew and is sustained once more', async () => {
  const { host, down, up, sustain, lengths } = await recording(ORGAN);
  sustain(true);
  for (let i = 0; i < 2; i++) {
    down(4);
    host.run(BEAT / 2);
    up(4);
    host.run(BEAT / 2);
  }
  host.run(BEAT);
  sustain(false);
  expect(lengths()).toEqual([[4, 1], [4, 2]]); // prettier-ignore
});

test('chords are sustained whole, and all notes off ends them', async () => {
  const { host, down, up, sustain, releaseAll, lengths } = await recording({ ...ORGAN, chord: 'triad' });
  sustain(true);
  down(0);
  host.run(BEAT / 2);
  up(0);
  host.run(BEAT);
  releaseAll();
  host.run(BEAT);
  sustain(false);
  expect(lengths()).toEqual([[0, 1.5], [2, 1.5], [4, 1.5]]); // prettier-ignore
});

test('drums are not sustained', async () => {
  const { host, down, up, sustain, lengths } = await recording();
  sustain(true);
  down(0);
  host.run(BEAT);
  up(0);
  host.run(BEAT);
  expect(lengths()).toEqual([[0, 1]]);
});

test('the scale of what hands have played is found, though nothing of it was recorded', async () => {
  const { host, down, up, found, stopRecording } = await recording({ ...ORGAN, chromatic: true });
  stopRecording();
  host.run(512);
  expect(found()).toEqual([]);
  // From A on the first pad: D E F♯ A B and back, the five notes of D major pentatonic (textbook).
  for (const pad of [5, 7, 9, 12, 14, 12, 9, 7, 5]) {
    down(pad);
    host.run(BEAT / 2);
    up(pad);
    host.run(512);
  }
  expect(found()[0]).toEqual({ root: 2, scale: 'major pentatonic', share: 1 });
});
