import {
  channelOfTable,
  CONTROL_RANGES,
  CONTROLS,
  controlOfTable,
  isMixTable,
  MOVE_TABLES,
  MOVED_CHANNELS,
  moveIndex,
  moveTable,
  PAD_TABLES,
  SHAPING_CONTROLS,
  type Control,
} from '../document/moves';
import { MIX_CONTROLS } from '../document/mix';
import { at, type Instruction } from '../protocol/commands';
import { makePlain, PLAIN, type Shape } from '../sound/shape';
import { renderCommands } from './offline';
import { hits, kitWith, padOf, pattern, PLAY, SR } from './rig.testing';

test('Moves and hands shape the stroke: what is lower, darker, shorter or aside sounds so', () => {
  const level = (data: Float32Array) => Math.sqrt(data.reduce((sum, x) => sum + x * x, 0) / data.length);
  const render = (...more: Instruction[]) =>
    renderCommands([at(0, { type: 'tempo', bpm: 120 }), at(0, pattern({ hits: hits([0, 10, 1]) })), at(0, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }), ...more.map((i) => at(0, i)), at(0, PLAY)], SR, SR); // prettier-ignore
  const plain = render();
  const move = (control: Control, ...points: number[]): Instruction => ({ type: 'moves', track: 0, slot: 0, revision: 0, points: new Float64Array([moveIndex(10, CONTROLS.indexOf(control)), points.length / 2, ...points]) }); // prettier-ignore
  expect(level(render(move('level', 0, 0.5)).left) / level(plain.left)).toBeCloseTo(0.5, 1);
  expect(level(render(move('pan', 0, 1)).left)).toBeLessThan(level(plain.left) / 3);
  const tail = (s: { left: Float32Array }) => level(s.left.slice(SR / 4));
  expect(tail(render(move('decay', 0, -3)))).toBeLessThan(tail(plain) / 20);
  // A hand on the control takes the place of the Move, and lets go again.
  const held = render(move('level', 0, 0.5), { type: 'turn', track: 0, pad: 10, control: 'level', value: 1 });
  expect(held.left).toEqual(plain.left);
  expect(
    render(
      move('level', 0, 0.5),
      { type: 'turn', track: 0, pad: 10, control: 'level', value: 1 },
      { type: 'turn', track: 0, pad: 10, control: 'level', value: NaN },
    ).left,
  ).not.toEqual(plain.left);
});

test('a stroke that nothing moves is as plain as one whose controls are all where they do nothing', () => {
  for (const control of SHAPING_CONTROLS)
    expect([control, PLAIN[control]]).toEqual([control, CONTROL_RANGES[control].neutral]);
  const shape = { ...PLAIN };
  for (const name of Object.keys(PLAIN) as (keyof Shape)[]) shape[name] = 0.37;
  makePlain(shape);
  expect(shape).toEqual(PLAIN);
});

test('an octave up is twice the pitch of a tuned drum, and a cymbal keeps being one', () => {
  const render = (pad: number, pitch: number) =>
    renderCommands([at(0, { type: 'tempo', bpm: 60 }), at(0, pattern({ hits: hits([0, pad, 1, { pitch }]) })), at(0, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }), at(0, PLAY)], SR, SR).left; // prettier-ignore
  const crossings = (data: Float32Array) => {
    let count = 0;
    for (let i = SR / 8 + 1; i < SR / 2; i++) if (data[i - 1]! < 0 && data[i]! >= 0) count++;
    return count;
  };
  const tom = 8; // mid tom
  expect(crossings(render(tom, 12)) / crossings(render(tom, 0))).toBeCloseTo(2, 1);
  const [hat, lower] = [render(6, 0), render(6, -7)];
  expect(crossings(lower)).toBeLessThan(crossings(hat) * 0.85);
  expect(lower.some((x) => Math.abs(x) > 0.02)).toBe(true);
});

test('drive, room and resonance are ridden, too: added to what the sound has of its own', () => {
  const kit = kitWith('lowTom', { drive: 0, room: 0, level: -12, filter: 'low', cutoff: 300, resonance: 1 });
  const pad = padOf('lowTom');
  const ride = (control: Control, value: number): Instruction => ({ type: 'turn', track: 0, pad, control, value });
  const render = (...more: Instruction[]) =>
    renderCommands([at(0, { type: 'kit', track: 0, kit }), ...more.map((i) => at(0, i)), at(0, { type: 'padDown', track: 0, pad, velocity: 1, heard: 0, id: 1 })], SR, 2 * SR).left; // prettier-ignore
  const energy = (x: Float32Array) => x.reduce((sum, v) => sum + v * v, 0);
  const plain = render();
  // The room answers when the drum itself is over; so far there is none.
  const late = (x: Float32Array) => energy(x.subarray(SR * 1.3));
  expect(late(render(ride('room', 0.8)))).toBeGreaterThan(100 * late(plain));
  // Twice and more in: its peaks are pressed, so that it is nearer to its peak on the whole.
  const crest = (x: Float32Array) => x.reduce((most, v) => Math.max(most, Math.abs(v)), 0) / Math.sqrt(energy(x.subarray(0, 9600)) / 9600); // prettier-ignore
  expect(crest(render(ride('drive', 18)))).toBeLessThan(crest(plain) * 0.95);
  expect(energy(render(ride('resonance', 3)))).not.toBeCloseTo(energy(plain), 3);
  // Back at nothing added, it is as it was.
  expect(render(ride('drive', 0), ride('room', 0), ride('resonance', 0))).toEqual(plain);
});

test('the places of the first six controls are those of logs that were stored before there were more', () => {
  for (let pad = 0; pad < 16; pad++) {
    (['pitch', 'filter', 'decay', 'level', 'pan', 'rate'] as const).forEach((control, i) => {
      expect(moveIndex(pad, CONTROLS.indexOf(control))).toBe(pad * 6 + i);
    });
  }
  const all = CONTROLS.flatMap((_, control) => Array.from({ length: 16 }, (__, pad) => moveIndex(pad, control)));
  expect(all.sort((a, b) => a - b)).toEqual(Array.from({ length: PAD_TABLES }, (_, i) => i));
  const ofMix = MOVED_CHANNELS.flatMap((on) => MIX_CONTROLS.map((control) => moveTable({ on, control })));
  expect([...new Set(ofMix)]).toHaveLength(3 * MIX_CONTROLS.length);
  expect([Math.min(...ofMix), Math.max(...ofMix)]).toEqual([512, MOVE_TABLES - 1]);
  for (const table of ofMix) {
    const moved = { on: MOVED_CHANNELS[channelOfTable(table)]!, control: MIX_CONTROLS[controlOfTable(table)]! };
    expect([isMixTable(table), moveTable(moved)]).toEqual([true, table]);
  }
});
