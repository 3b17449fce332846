import { newSet } from '@/core/document/create';
import { PADS } from '@/core/document/limits';
import { FIRST_STAGE } from '@/core/document/stage';
import { CHORD_KINDS, padNote, SCALES, type Tones } from '@/core/document/tones';
import { newTrack } from '@/core/document/track';
import { setLoaded } from '@/store/openSlice';
import { selectPattern } from '@/store/selectors';
import { stepInputToggled } from '@/store/sessionSlice';
import { createStore } from '@/store/store';
import { ChordHands } from './chordHands';
import { HostInNode } from './engineHost.testing';
import { Instrument } from './instrument';

/** An empty pattern of keys in C major, on which one pad plays a triad. */
async function rig(more: Partial<Tones> = {}) {
  const tones: Tones = { voice: 'keys', root: 0, scale: 'major', chromatic: false, octave: 0, chord: 'triad', ...more };
  const track = { ...newTrack('Lamps', 0, [{ name: 'p', length: 3840, hits: [] }]), tones };
  const store = createStore();
  store.dispatch(setLoaded({ set: newSet('Test', 120, [track]), stage: { shown: 0, tracks: { 0: FIRST_STAGE } } }));
  const host = new HostInNode();
  const instrument = new Instrument(store, host.make);
  await instrument.start();
  host.run(256);
  const lowest = padNote(tones, 0);
  return {
    store,
    host,
    instrument,
    down: (pad: number) => instrument.padDown(pad, 0.8, host.engine.frame, 'touch'),
    up: (pad: number) => instrument.padUp(pad, host.engine.frame, 'touch'),
    /** Frames and semitones above the lowest pad of what has sounded so far. */
    sounded: () =>
      host.events.flatMap((event) =>
        event.kind === 'sounded' ? [[event.frame, padNote(tones, event.pad) + event.pitch - lowest] as const] : [],
      ),
  };
}

const C_MAJOR = [0, 4, 7];
const F_MAJOR_NEAR = [0, 5, 9];

test('one pad strikes a triad of its scale together, and the next one lies close to it', async () => {
  const { host, down, up, sounded } = await rig();
  down(0);
  host.run(4800);
  up(0);
  down(3);
  host.run(4800);
  const notes = sounded();
  expect(notes.map(([, semitones]) => semitones)).toEqual([...C_MAJOR, ...F_MAJOR_NEAR]);
  for (const chord of [notes.slice(0, 3), notes.slice(3)]) expect(new Set(chord.map(([frame]) => frame)).size).toBe(1);
});

test('strummed by 20 ms its notes sound 960 frames apart at 48 kHz, and end so far apart', async () => {
  const { host, down, up, sounded } = await rig({ strum: 20 });
  down(0);
  host.run(9600);
  const [first] = sounded()[0]!;
  expect(sounded().map(([frame, semitones]) => [frame - first, semitones])).toEqual([[0, 0], [960, 4], [1920, 7]]); // prettier-ignore
  up(0);
  host.run(4800);
  const ends = host.events.flatMap((event) => (event.kind === 'released' ? [event.frame] : []));
  expect(ends.map((frame) => frame - ends[0]!)).toEqual([0, 960, 1920]);
});

test('recorded, each note is a hit of its own, as long as it was held; a strum is recorded as it was played', async () => {
  const { host, store, instrument, down, up } = await rig({ strum: 50 });
  instrument.toggleRecord();
  instrument.play();
  // Past the count-in, if there is one.
  host.run(2 * 96000 + 24000);
  down(0);
  host.run(12000);
  up(0);
  host.run(12000);
  const hits = [...selectPattern(store.getState()).hits].sort((a, b) => a.pad - b.pad);
  expect(hits.map(({ pad, pitch }) => [pad, pitch ?? 0])).toEqual([[0, 0], [2, 0], [4, 0]]); // prettier-ignore
  // 50 ms are 96 ticks at 120 BPM, a quarter of a second 480.
  expect(hits.map(({ tick }) => Math.round(tick - hits[0]!.tick))).toEqual([0, 96, 192]);
  for (const { length } of hits) expect(Math.abs(length! - 480)).toBeLessThan(4);
});

test('what two chords have in common goes on when the first is let go, and ends with the second', async () => {
  const { host, down, up } = await rig();
  const released = () => host.events.filter(({ kind }) => kind === 'released').length;
  down(0);
  host.run(2400);
  down(3);
  host.run(2400);
  // The common note was struck again.
  expect(released()).toBe(1);
  up(0);
  host.run(2400);
  expect(released()).toBe(3);
  up(3);
  host.run(2400);
  expect(released()).toBe(6);
});

test('a pad that is struck again before it was let go leaves nothing of its first chord behind', async () => {
  const { host, down, up, sounded } = await rig();
  const strike = (pad: number) => {
    down(pad);
    host.run(1280);
  };
  strike(0);
  up(0);
  // D minor close to C major, and then close to C major an octave above: another inversion.
  for (const pad of [1, 7, 1]) strike(pad);
  const notes = sounded().map(([, semitones]) => semitones);
  expect(notes.slice(9, 12)).not.toEqual(notes.slice(3, 6));
  up(1);
  up(7);
  host.run(1280);
  expect(host.events.filter(({ kind }) => kind === 'released')).toHaveLength(notes.length);
});

test('a common note that the first of two chords has yet to strum is not left held when both are let go before it', async () => {
  const { host, down, up, sounded } = await rig({ strum: 60 });
  const after = (ms: number, act: () => void) => {
    host.run(Math.ceil((48 * ms) / 128) * 128);
    act();
  };
  // The fifth of C major, 120 ms after its root, comes 60 ms after the lowest note of G major.
  down(0);
  after(8, () => down(4));
  after(8, () => up(0));
  after(8, () => up(4));
  host.run(48000);
  expect(host.events.filter(({ kind }) => kind === 'released')).toHaveLength(sounded().length);
});

test('nothing stays held when everything is let go in the middle of a strum', async () => {
  const { host, instrument, down, sounded } = await rig({ strum: 60 });
  down(0);
  host.run(1280);
  instrument.releaseAll();
  host.run(9600);
  const released = host.events.filter(({ kind }) => kind === 'released').length;
  expect(released).toBe(sounded().length);
  host.run(10 * 48000);
  expect(host.engine.ringing).toBe(0);
});

test('every chord on every pad of every scale: each of its notes has a pad of its own', () => {
  for (const scale of SCALES)
    for (const chromatic of [false, true])
      for (const chord of CHORD_KINDS) {
        const hands = new ChordHands();
        for (let pad = 0; pad < PADS; pad++) {
          const notes = hands.down(0, pad, 0, { voice: 'keys', root: 5, scale, chromatic, octave: 0, chord });
          expect(new Set(notes.map((note) => note.pad)).size).toBe(notes.length);
          expect(notes.length).toBeGreaterThanOrEqual(3);
          expect(notes.every(({ pitch }) => pitch === 0)).toBe(true);
        }
      }
});

test('above the highest pad its notes come an octave lower: each has a pad of its own', async () => {
  const { host, down, sounded } = await rig({ chord: 'seventh' });
  down(15);
  host.run(1280);
  const notes = sounded().map(([, semitones]) => semitones);
  expect(notes.map((note) => note % 12).sort((a, b) => a - b)).toEqual([0, 2, 5, 9]);
  expect(Math.max(...notes)).toBeLessThanOrEqual(26);
});

test('entered step by step, a chord is one step', async () => {
  const { host, store, down, up } = await rig();
  store.dispatch(stepInputToggled());
  down(0);
  host.run(1280);
  up(0);
  down(4);
  host.run(1280);
  up(4);
  const ticks = selectPattern(store.getState()).hits.map(({ tick }) => tick);
  expect(new Set(ticks).size).toBe(2);
  expect(ticks).toHaveLength(6);
});
