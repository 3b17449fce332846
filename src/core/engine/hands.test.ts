import { type Instruction } from '../protocol/commands';
import { LIMITER_LATENCY } from '../sound/limiter';
import { BAR, BEAT, PLAY, pattern, Rig } from './rig.testing';

const held = () =>
  new Rig()
    .tell({ type: 'tempo', bpm: 120 }, pattern(), { type: 'record', on: true, session: 1 }, PLAY)
    .strike(BEAT, 5, 1)
    .runTo(BEAT + 100);
const lengths = (rig: Rig) => rig.of('released').map((e) => [e.id, e.length]);

test('the length is from the stroke to the release', () => {
  const rig = held()
    .runTo(BEAT * 2)
    .tell({ type: 'padUp', track: 0, pad: 5, heard: BEAT * 2 + LIMITER_LATENCY })
    .runTo(BEAT * 3);
  expect(lengths(rig)).toEqual([[1, 960]]);
});

test('across the loop end it goes on, at most once round', () => {
  const rig = held()
    .runTo(BEAT * 4.5)
    .tell({ type: 'padUp', track: 0, pad: 5, heard: BEAT * 4.5 + LIMITER_LATENCY })
    .runTo(BEAT * 5);
  expect(lengths(rig)).toEqual([[1, 3360]]);
  const long = held()
    .runTo(BEAT * 9)
    .tell({ type: 'padUp', track: 0, pad: 5, heard: BEAT * 9 + LIMITER_LATENCY })
    .runTo(BEAT * 10);
  expect(lengths(long)).toEqual([[1, BAR]]);
});

test.each<[string, Instruction]>([
  ['a stop', { type: 'stop' }],
  ['notes in the place of the kit', { type: 'notes', track: 0, layout: { voice: 'bass', notes: new Float64Array(16).fill(40), octave: 0 } }], // prettier-ignore
  ['a controller that goes away', { type: 'releaseAll' }],
  [
    'the same pad struck again',
    { type: 'padDown', track: 0, pad: 5, velocity: 1, heard: BEAT * 3 + LIMITER_LATENCY, id: 2 },
  ],
])('is released by %s', (_, instruction) => {
  const rig = held()
    .runTo(BEAT * 3)
    .tell(instruction)
    .runTo(BEAT * 4);
  expect(lengths(rig)).toEqual([[1, 1920]]);
  // The finger that comes up later finds nothing held.
  rig.tell({ type: 'padUp', track: 0, pad: 5, heard: BEAT * 4 + LIMITER_LATENCY }).runTo(BEAT * 5);
  expect(rig.of('released').filter((e) => e.id === 1)).toHaveLength(1);
});

test('a stroke whose time cannot be told, or lies ahead, counts as struck now: it is never lost', () => {
  for (const heard of [NaN, Infinity, 1e12]) {
    const rig = new Rig()
      .tell(
        { type: 'tempo', bpm: 120 },
        { type: 'inputQuantize', grid: 240, on: false },
        pattern(),
        { type: 'record', on: true, session: 1 },
        PLAY,
      )
      .runTo(BEAT);
    rig.tell({ type: 'padDown', track: 0, pad: 3, velocity: 1, heard, id: 1 }).runTo(BEAT * 2);
    expect(rig.of('recorded').map((e) => e.struck)).toEqual([960]);
  }
});

test('who says to have heard what sounded an age ago holds nothing up', () => {
  const ages = [-1e308, -1e15, -1e9];
  const rig = new Rig().tell(pattern(), { type: 'record', on: true, session: 1 }, { type: 'noteRepeat', on: true, latch: false }, PLAY); // prettier-ignore
  ages.forEach((heard, i) => {
    rig.tell({ type: 'padDown', track: 0, pad: i, velocity: 1, heard, id: 2 * i + 1 }).runTo(BEAT * (i + 2));
    rig.tell({ type: 'padUp', track: 0, pad: i, heard });
  });
  rig.runTo(BEAT * 8);
  expect(new Set(rig.of('sounded').map((e) => e.pad))).toEqual(new Set([0, 1, 2]));
});
