import { POLISHED_FLOOR } from '../document/kits';
import type { NoteLayout } from '../protocol/commands';
import { at } from '../protocol/commands';
import { renderCommands } from './offline';
import { BEAT, hits, pattern, PLAY, Rig, SR } from './rig.testing';

const KEYS: NoteLayout = { voice: 'keys', notes: Float64Array.from({ length: 16 }, (_, pad) => 57 + pad), octave: 0 };

test('pads that play notes sound an octave apart twelve pads apart, and are drums again without a layout', () => {
  const strike = (pad: number, ...before: Parameters<typeof at>[1][]) =>
    renderCommands([...before.map((i) => at(0, i)), at(0, { type: 'padDown', track: 0, pad, velocity: 0.8, heard: 0, id: 1 })], SR, SR / 2).left; // prettier-ignore
  const crossings = (x: Float32Array) => x.filter((y, i) => i > SR / 10 && x[i - 1]! < 0 && y >= 0).length;
  const notes = { type: 'notes', track: 0, layout: KEYS } as const;
  // A at 220 Hz and at 440 Hz: zero crossings upwards from 0.1 to 0.5 s, the struck metal of the keys being over by then.
  expect(Math.abs(crossings(strike(0, notes)) - 0.4 * 220)).toBeLessThan(3);
  expect(Math.abs(crossings(strike(12, notes)) - 0.4 * 440)).toBeLessThan(3);
  expect(strike(0, notes, { type: 'notes', track: 0, layout: null })).toEqual(strike(0));
});

test('other sounds let go of the old ones; the same notes an octave higher do not', () => {
  const rig = new Rig().tell({ type: 'tempo', bpm: 120 }, { type: 'notes', track: 0, layout: KEYS }, pattern({ hits: hits([0, 0, 1, { length: 3840 }]) }), PLAY); // prettier-ignore
  rig.runTo(BEAT);
  rig.tell({ type: 'notes', track: 0, layout: { ...KEYS, octave: 1 } }).runTo(BEAT * 1.5);
  expect(rig.engine.ringing).toBe(1);
  rig.tell({ type: 'notes', track: 0, layout: null }).runTo(BEAT * 2);
  expect(rig.engine.ringing).toBe(0);
});

test('a kit chosen while notes are played waits for its turn, and a note goes on', () => {
  const rig = new Rig()
    .tell({ type: 'notes', track: 0, layout: KEYS })
    .strike(100, 3, 1)
    .runTo(BEAT / 2);
  rig.tell({ type: 'kit', track: 0, kit: POLISHED_FLOOR }).runTo(BEAT);
  expect(rig.engine.ringing).toBe(1);
});
