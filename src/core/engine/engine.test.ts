import { CEILING, LIMITER_LATENCY } from '../sound/limiter';
import { AS_IT_IS } from '../launch/launchState';
import { gridTicks, INPUT_GRIDS } from '../quantize/grid';
import { renderCommands, renderLoop } from './offline';
import { Engine } from './engine';
import { hits, Rig } from './rig.testing';
import { at, type Command, type Instruction } from '../protocol/commands';
import { decodeEvents } from '../protocol/events';
import { slotInstructions, trackInstructions } from '../protocol/fromDocument';
import { CONTROLS, moveIndex, type Control } from '../document/moves';
import { demoSet } from '../document/demo';

const SR = 48000;
const BAR = 3840;

const loop = (length = BAR, data = hits()): Instruction => ({
  type: 'pattern',
  track: 0,
  slot: 0,
  revision: 0,
  length,
  seen: 0,
  hits: data,
  feels: null,
});
/** Frames of a quarter at 120 BPM, at which most tests run. */
const BEAT = 24000;

describe('playing a pattern', () => {
  test('every hit is on its frame, pass after pass', () => {
    const rig = new Rig()
      .tell({ type: 'tempo', bpm: 112 }, loop(BAR, hits([0, 0, 1], [961, 2, 2], [3839, 4, 3])), {
        type: 'play',
        startTick: 0,
        countInTicks: 0,
      })
      .runTo(SR * 30);
    const perTick = (SR * 60) / (112 * 960);
    const expected = Array.from({ length: 20 }, (_, pass) => pass).flatMap((pass) =>
      [0, 961, 3839].map((tick) => Math.round((pass * BAR + tick) * perTick)),
    );
    const frames = rig.of('sounded').map((e) => e.frame);
    expect(frames).toEqual(expected.slice(0, frames.length));
    expect(frames.length).toBeGreaterThan(38);
  });

  test('a tempo change neither stops nor shifts the music', () => {
    const rig = new Rig().tell(
      { type: 'tempo', bpm: 120 },
      loop(BAR, hits([0, 0, 1], [960, 0, 2], [1920, 0, 3], [2880, 0, 4])),
      { type: 'play', startTick: 0, countInTicks: 0 },
    );
    rig
      .runTo(BEAT * 2.5)
      .tell({ type: 'tempo', bpm: 60 })
      .runTo(BEAT * 8);
    // Half a beat is left of beat 3 when the tempo halves: it takes as long as a whole one took.
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([0, BEAT, 2 * BEAT, 3.5 * BEAT, 5.5 * BEAT, 7.5 * BEAT]);
  });

  test('after two hours every onset is still within a sample', () => {
    // A low rate, so that two hours take seconds; the arithmetic is the same.
    const rate = 1000;
    const rig = new Rig(4096, rate).tell({ type: 'tempo', bpm: 174 }, loop(BAR, hits([0, 1, 1], [240, 1, 2])), {
      type: 'play',
      startTick: 0,
      countInTicks: 0,
    });
    rig.runTo(rate * 7200);
    const perTick = (rate * 60) / (174 * 960);
    const sounded = rig.of('sounded');
    expect(sounded).toHaveLength(2 * Math.ceil(7200 / ((240 / 174) as number)));
    const worst = Math.max(
      ...sounded.map((e, i) => Math.abs(e.frame - (Math.floor(i / 2) * BAR + (i % 2) * 240) * perTick)),
    );
    expect(worst).toBeLessThanOrEqual(0.5);
  });

  test('a longer or shorter loop takes over at once, where the song is', () => {
    const two = hits([0, 0, 1], [BAR, 2, 2]);
    const rig = new Rig()
      .tell({ type: 'tempo', bpm: 120 }, loop(2 * BAR, two), { type: 'play', startTick: 0, countInTicks: 0 })
      .runTo(BEAT * 2);
    rig
      .tell(loop(BAR, hits([0, 0, 1])))
      .runTo(BEAT * 9)
      .tell(loop(2 * BAR, two))
      .runTo(BEAT * 17);
    expect(rig.of('sounded').map((e) => [e.frame / BEAT, e.id])).toEqual([
      [0, 1],
      [4, 1],
      [8, 1],
      [12, 2],
      [16, 1],
    ]);
  });

  test('the count-in clicks, the pattern waits for its end', () => {
    const rig = new Rig()
      .tell({ type: 'tempo', bpm: 120 }, loop(BAR, hits([0, 0, 1])), { type: 'play', startTick: 0, countInTicks: BAR })
      .runTo(BEAT * 4 + 100);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT * 4]);
    expect(rig.of('anchor').at(-1)).toMatchObject({ tick: -BAR, playing: true, fromTick: 0 });
  });

  test('stopping keeps the place, also that from which a count-in was to begin', () => {
    const rig = new Rig()
      .tell({ type: 'tempo', bpm: 120 }, loop(), { type: 'play', startTick: 0, countInTicks: 0 })
      .runTo(BEAT * 3)
      .tell({ type: 'stop' })
      .runTo(BEAT * 4);
    expect(rig.of('anchor').at(-1)).toMatchObject({ tick: 2880, playing: false, recording: false });
    rig
      .tell({ type: 'play', startTick: 0, countInTicks: BAR })
      .runTo(BEAT * 5)
      .tell({ type: 'stop' })
      .runTo(BEAT * 6);
    expect(rig.of('anchor').at(-1)).toMatchObject({ tick: 0, playing: false });
  });
});

describe('a loop window', () => {
  const beats = hits([0, 0, 1], [960, 0, 2], [1920, 0, 3], [2880, 0, 4]);
  const playing = () =>
    new Rig().tell({ type: 'tempo', bpm: 120 }, loop(BAR, beats), { type: 'play', startTick: 0, countInTicks: 0 });
  const sounded = (rig: Rig) => rig.of('sounded').map((e) => [e.frame / BEAT, e.id]);

  test('takes over on the spot, and the whole pattern comes back where it would have been', () => {
    const rig = playing().runTo(BEAT * 2.5);
    rig.tell({ type: 'loopWindow', track: 0, slot: 0, start: 960, length: 960, on: 0 }).runTo(BEAT * 5.5);
    rig.tell({ type: 'loopWindow', track: 0, slot: 0, start: 0, length: 0, on: 0 }).runTo(BEAT * 7.5);
    expect(sounded(rig)).toEqual([[0, 1], [1, 2], [2, 3], [3, 2], [4, 2], [5, 2], [6, 3], [7, 4]]); // prettier-ignore
  });

  test('takes over on the next beat or bar, before what is played there, and says so ahead', () => {
    const rig = playing().runTo(BEAT * 1.5);
    rig.tell({ type: 'loopWindow', track: 0, slot: 0, start: 0, length: 480, on: BAR }).runTo(BEAT * 5.9);
    rig.tell({ type: 'loopWindow', track: 0, slot: 0, start: 2880, length: 960, on: 960 }).runTo(BEAT * 7.5);
    // The half beat has one hit, every half beat from the bar line on.
    expect(sounded(rig)).toEqual([[0, 1], [1, 2], [2, 3], [3, 4], [4, 1], [4.5, 1], [5, 1], [5.5, 1], [6, 4], [7, 4]]); // prettier-ignore
    const told = rig.events
      .flatMap((e) => {
        if (e.kind === 'loop') return [[e.frame / BEAT, e.start, e.span, e.tick / 960, false]];
        return e.kind === 'window' && e.tick < Infinity
          ? [[e.frame / BEAT, e.start, e.length, e.tick / 960, true]]
          : [];
      })
      .filter(([frame]) => Number(frame) > 0);
    expect(told).toEqual([
      [1.5, 0, 480, 4, true],
      [4, 0, 480, 4, false],
      [5.9, 2880, 960, 6, true],
      [6, 2880, 960, 6, false],
    ]);
  });

  test('is taken back before its time by asking for the one that goes round', () => {
    const rig = playing().runTo(BEAT * 1.5);
    rig.tell({ type: 'loopWindow', track: 0, slot: 0, start: 960, length: 960, on: BAR }).runTo(BEAT * 2.5);
    rig.tell({ type: 'loopWindow', track: 0, slot: 0, start: 0, length: 0, on: BAR }).runTo(BEAT * 5.5);
    expect(sounded(rig)).toEqual([[0, 1], [1, 2], [2, 3], [3, 4], [4, 1], [5, 2]]); // prettier-ignore
  });

  test('waits through a tempo change for the same bar line', () => {
    const rig = playing()
      .tell({ type: 'loopWindow', track: 0, slot: 0, start: 960, length: 960, on: BAR })
      .runTo(BEAT * 2);
    rig.tell({ type: 'tempo', bpm: 60 }).runTo(BEAT * 6.5);
    expect(sounded(rig).at(-1)).toEqual([6, 2]);
  });

  test('what is recorded in it lies in the pattern where it was heard', () => {
    const rig = new Rig().tell({ type: 'tempo', bpm: 120 }, { type: 'inputQuantize', grid: 240, on: true }, loop(), {
      type: 'loopWindow',
      track: 0,
      slot: 0,
      start: 960,
      length: 960,
      on: 0,
    });
    rig.tell({ type: 'record', on: true, session: 1 }, { type: 'play', startTick: 0, countInTicks: 0 });
    // On the and of a beat; and just before the window comes round: to its first step.
    rig
      .strike(BEAT * 2.5 + 100, 0, 1)
      .strike(BEAT * 4 - 500, 2, 2)
      .runTo(BEAT * 5.2);
    expect(rig.of('recorded').map((e) => [e.id, e.struck])).toEqual([
      [1, 960 + 480 + 4],
      [2, 960 - 20],
    ]);
    expect(rig.of('sounded').filter((e) => !e.live).map((e) => [e.frame / BEAT, e.id])).toEqual([[3.5, 1], [4.5, 1], [5, 2]]); // prettier-ignore
  });

  test('loops of 3, 4, 5 and 7 steps keep to their places for twenty minutes, each within a sample', () => {
    const rate = 4000; // a low rate, so that it takes seconds; the arithmetic is the same
    const rig = new Rig(4096, rate).tell({ type: 'tempo', bpm: 113.7 });
    const steps = [3, 4, 5, 7];
    steps.forEach((count, t) => {
      rig.tell(
        {
          type: 'pattern',
          track: t,
          slot: 0,
          revision: 0,
          length: BAR,
          seen: 0,
          hits: hits([0, 0, t + 1], [240 * (count - 1), 0, t + 11]),
          feels: null,
        },
        { type: 'loopWindow', track: t, slot: 0, start: 0, length: count * 240, on: 0 },
        { type: 'launch', track: t, slot: 0, on: 0, inPlace: false },
      );
    });
    rig.tell({ type: 'play', startTick: 0, countInTicks: 0 }).runTo(rate * 1200);
    const perTick = (rate * 60) / (113.7 * 960);
    const lengthInTicks = (1200 * 113.7 * 960) / 60;
    let met = 0;
    steps.forEach((count, t) => {
      const own = rig.of('sounded').filter((e) => e.track === t);
      const worst = own.reduce((most, e, i) => {
        const ideal = (Math.floor(i / 2) * count + (i % 2) * (count - 1)) * 240 * perTick;
        return Math.max(most, Math.abs(e.frame - ideal));
      }, 0);
      expect(worst).toBeLessThanOrEqual(0.5 + 1e-6);
      expect(Math.abs(own.length - 2 * (lengthInTicks / (count * 240)))).toBeLessThanOrEqual(2);
      met += own.length;
    });
    expect(met).toBeGreaterThan(15000);
  });
});

describe('what a hit can have', () => {
  const play = (...rows: Parameters<typeof hits>) => new Rig().tell({ type: 'tempo', bpm: 120 }, loop(BAR, hits(...rows)), { type: 'play', startTick: 0, countInTicks: 0 }); // prettier-ignore
  const heard = (rig: Rig) => rig.of('sounded').map((e) => [e.frame / BEAT, Math.round(e.velocity * 100) / 100]);

  test('a roll shares its time evenly and swells or falls away, over the loop end too', () => {
    const roll = { strokes: 4, over: 480, swell: 0.75, glide: 0 };
    expect(heard(play([3600, 4, 1, { roll }]).runTo(BEAT * 4.6))).toEqual([
      [3.75, 0.25],
      [3.875, 0.5],
      [4, 0.75],
      [4.125, 1],
    ]);
    const falling = { strokes: 3, over: 960, swell: -1, glide: -12 };
    expect(heard(play([0, 4, 1, { roll: falling }]).runTo(BEAT * 1.5)).map(([at]) => at)).toEqual([0, 8000 / BEAT, 16000 / BEAT]); // prettier-ignore
  });

  test('a roll goes on though the tempo changes, and ends with the song', () => {
    const roll = { strokes: 8, over: 960, swell: 0, glide: 0 };
    const rig = play([0, 4, 1, { roll }]).runTo(BEAT / 2 - 10);
    rig.tell({ type: 'tempo', bpm: 60 }).runTo(BEAT);
    rig.tell({ type: 'stop' }).runTo(BEAT * 3);
    // The fourth eighth of a beat was all but over when the tempo halved: what is left of it takes twice as long.
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([0, 3000, 6000, 9000, 12010, 18010]);
  });

  test('odds: as often as they say, not every time, and the same again in a replay', () => {
    const run = () =>
      play([0, 4, 1, { odds: 0.3 }], [960, 4, 2, { odds: 0.3 }], [1920, 4, 3], [2880, 4, 4, { odds: 0 }]);
    const passes = 1000;
    const rate = BEAT * 4;
    const rig = new Rig(4096, 2000).tell({ type: 'tempo', bpm: 120 }, loop(BAR, hits([0, 4, 1, { odds: 0.3 }], [2880, 4, 4, { odds: 0 }])), { type: 'play', startTick: 0, countInTicks: 0 }); // prettier-ignore
    rig.runTo(passes * 4 * 1000);
    const count = rig.of('sounded').length;
    // Four standard deviations of a binomial with 1000 trials at 0.3: 58.
    expect(Math.abs(count - 300)).toBeLessThan(58);
    const [one, again] = [run().runTo(rate * 10), run().runTo(rate * 10)];
    expect(one.of('sounded')).toEqual(again.of('sounded'));
    expect(one.of('sounded').filter((e) => e.id === 3)).toHaveLength(10);
    expect(one.of('sounded').some((e) => e.id === 4)).toBe(false);
  });

  test('a muted pad is silent in the pattern and answers the hand', () => {
    const rig = play([0, 4, 1], [960, 0, 2]).tell({ type: 'heardPads', track: 0, pads: 0xffff & ~(1 << 4) });
    rig.strike(BEAT * 2, 4, 9).runTo(BEAT * 4.5);
    expect(rig.of('sounded').map((e) => e.id)).toEqual([1, 2, 9].slice(1));
  });

  test('Moves and hands shape the stroke: what is lower, darker, shorter or aside sounds so', () => {
    const level = (data: Float32Array) => Math.sqrt(data.reduce((sum, x) => sum + x * x, 0) / data.length);
    const render = (...more: Instruction[]) =>
      renderCommands([at(0, { type: 'tempo', bpm: 120 }), at(0, loop(BAR, hits([0, 10, 1]))), at(0, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }), ...more.map((i) => at(0, i)), at(0, { type: 'play', startTick: 0, countInTicks: 0 })], SR, SR); // prettier-ignore
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

  test('an octave up is twice the pitch of a tuned drum, and a cymbal keeps being one', () => {
    const render = (pad: number, pitch: number) =>
      renderCommands([at(0, { type: 'tempo', bpm: 60 }), at(0, loop(BAR, hits([0, pad, 1, { pitch }]))), at(0, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }), at(0, { type: 'play', startTick: 0, countInTicks: 0 })], SR, SR).left; // prettier-ignore
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
});

describe('recording', () => {
  const recording = (...more: Instruction[]) =>
    new Rig().tell(
      { type: 'tempo', bpm: 120 },
      { type: 'inputQuantize', grid: 240, on: true },
      loop(),
      ...more,
      { type: 'record', on: true, session: 7 },
      { type: 'play', startTick: 0, countInTicks: 0 },
    );

  test('a stroke sounds at once and is on the grid from the next pass', () => {
    const rig = recording()
      .strike(BEAT + 700, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('sounded').map((e) => [e.frame, e.live])).toEqual([
      [BEAT + 700, true],
      [BEAT * 5, false],
    ]);
    expect(rig.of('recorded')).toMatchObject([{ struck: 960 + 28, session: 7, pass: 0, serial: 1, snapGrid: 240 }]);
  });

  test('struck early and placed later in the same pass, it does not sound twice', () => {
    const rig = recording()
      .strike(BEAT - 700, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT - 700, BEAT * 5]);
    expect(rig.of('sounded')[0]).toMatchObject({ placed: 960, struck: 960 - 28 });
  });

  test('struck just before the loop ends, it belongs to the first step of the next pass and does not sound twice', () => {
    const rig = recording()
      .strike(BEAT * 4 - 700, 0, 1)
      .runTo(BEAT * 9);
    expect(rig.of('recorded')).toMatchObject([{ struck: -28, pass: BAR }]);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT * 4 - 700, BEAT * 8]);
  });

  test('struck in the last half grid of the count-in, it belongs to bar 1 beat 1; earlier it is practice', () => {
    const rig = new Rig().tell(
      { type: 'tempo', bpm: 120 },
      { type: 'inputQuantize', grid: 240, on: true },
      loop(),
      { type: 'record', on: true, session: 1 },
      { type: 'play', startTick: 0, countInTicks: BAR },
    );
    rig
      .strike(BEAT * 4 - 4000, 2, 1)
      .strike(BEAT * 4 - 1000, 0, 2)
      .runTo(BEAT * 9);
    expect(rig.of('recorded').map((e) => [e.id, e.struck])).toEqual([[2, -40]]);
    expect(rig.of('sounded').map((e) => [e.frame, e.pad])).toEqual([
      [BEAT * 4 - 4000, 2],
      [BEAT * 4 - 1000, 0],
      [BEAT * 8, 0],
    ]);
  });

  test('played again from the top, what was struck early sounds on its step', () => {
    const rig = recording()
      .strike(BEAT * 4 - 700, 0, 1)
      .runTo(BEAT * 5)
      .tell({ type: 'stop' }, { type: 'locate', tick: 0 }, { type: 'play', startTick: 0, countInTicks: 0 });
    rig.runTo(BEAT * 5 + BEAT * 4.5);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT * 4 - 700, BEAT * 5, BEAT * 9]);
  });

  test('the stroke counts when it was heard, not when the message came', () => {
    const rig = recording().strike(BEAT + 5000, 0, 1, 5000);
    rig.runTo(BEAT * 2);
    expect(rig.of('recorded')[0]!.struck).toBeCloseTo(960, 9);
  });

  test('a stroke heard before a tempo change is mapped with the tempo it was heard at', () => {
    const rig = recording()
      .runTo(BEAT + 1000)
      .tell({ type: 'tempo', bpm: 240 })
      .strike(BEAT + 3000, 0, 1, 3000)
      .runTo(BEAT * 2);
    expect(rig.of('recorded')[0]!.struck).toBeCloseTo(960, 9);
  });

  test('a stroke heard before the stop is still recorded, one after it is not', () => {
    const rig = recording()
      .runTo(BEAT)
      .tell({ type: 'stop' })
      .strike(BEAT + 2000, 0, 1, 4000)
      .strike(BEAT + 9000, 2, 2)
      .runTo(BEAT * 2);
    expect(rig.of('recorded').map((e) => e.id)).toEqual([1]);
  });

  test('unquantized, the placed tick is the struck one', () => {
    const rig = recording({ type: 'inputQuantize', grid: 240, on: false })
      .strike(BEAT + 700, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT + 700, BEAT * 5 + 700]);
    expect(rig.of('recorded')[0]!.snapGrid).toBe(0);
  });

  test('with the tempo changed 112 -> 140 -> 87 while recording, every placed tick is exactly on the grid', () => {
    for (const grid of INPUT_GRIDS.map(gridTicks)) {
      const rig = new Rig().tell(
        { type: 'tempo', bpm: 112 },
        { type: 'inputQuantize', grid, on: true },
        loop(),
        { type: 'record', on: true, session: 1 },
        { type: 'play', startTick: 0, countInTicks: 0 },
      );
      const tempos = [112, 140, 87];
      for (let i = 1; i <= 90; i++) {
        if (i % 30 === 0) rig.tell({ type: 'tempo', bpm: tempos[i / 30]! ?? 87 });
        rig.strike(i * 7919, i % 16, i);
      }
      rig.runTo(SR * 16);
      const recorded = rig.of('recorded');
      const live = rig.of('sounded').filter((e) => e.live);
      expect(recorded).toHaveLength(90);
      expect(live.every((e) => e.placed % grid === 0 && Math.abs(e.placed - e.struck) <= grid / 2)).toBe(true);
    }
  });

  test('a pattern message that crossed a stroke does not lose it', () => {
    const rig = recording()
      .strike(BEAT, 0, 1)
      .runTo(BEAT + 100);
    // The page sends an edit made before it heard of the stroke (seen = 0), then one made after (seen = 1).
    rig
      .tell({
        type: 'pattern',
        track: 0,
        slot: 0,
        revision: 0,
        length: BAR,
        seen: 0,
        hits: hits([1920, 2, 50]),
        feels: null,
      })
      .runTo(BEAT * 5 + 100);
    expect(rig.of('sounded').map((e) => e.id)).toEqual([1, 50, 1]);
    rig
      .tell({
        type: 'pattern',
        track: 0,
        slot: 0,
        revision: 0,
        length: BAR,
        seen: 1,
        hits: hits([1920, 2, 50]),
        feels: null,
      })
      .runTo(BEAT * 9 + 100);
    expect(rig.of('sounded').map((e) => e.id)).toEqual([1, 50, 1, 50]);
  });

  test('not armed, nothing is recorded', () => {
    const rig = new Rig()
      .tell({ type: 'tempo', bpm: 120 }, loop(), { type: 'play', startTick: 0, countInTicks: 0 })
      .strike(BEAT, 0, 1)
      .runTo(BEAT * 6);
    expect(rig.of('recorded')).toEqual([]);
    expect(rig.of('sounded')).toMatchObject([{ live: true, placed: NaN }]);
  });
});

describe('held pads', () => {
  const held = () =>
    new Rig()
      .tell(
        { type: 'tempo', bpm: 120 },
        loop(),
        { type: 'record', on: true, session: 1 },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
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
    ['a change of kit', { type: 'kit', track: 0, kit: 'polished-floor' }],
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
});

describe('the sound', () => {
  const DEMO = demoSet().set.tracks[0]!;
  const performance: Command[] = [
    ...[...trackInstructions(0, DEMO), ...slotInstructions({ track: 0, slot: 0 }, DEMO.patterns[0]!)].map((i) =>
      at(0, i),
    ),
    at(0, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }),
    at(0, { type: 'tempo', bpm: 112 }),
    at(0, { type: 'metronome', on: true, level: 1, sound: 'wood', when: 'always', between: 0 }),
    at(500, { type: 'play', startTick: 0, countInTicks: 0 }),
    at(50001, { type: 'record', on: true, session: 1 }),
    at(60007, { type: 'padDown', track: 0, pad: 10, velocity: 1, heard: 60000, id: 900 }),
    at(70003, { type: 'tempo', bpm: 163.7 }),
    at(90000, { type: 'trackLevel', track: 0, level: 0.3 }),
    at(120001, { type: 'padDown', track: 0, pad: 6, velocity: 0.4, heard: 119000, id: 901 }),
    at(120301, { type: 'padDown', track: 0, pad: 4, velocity: 0.9, heard: 119900, id: 902 }),
    at(150000, { type: 'stop' }),
  ];

  test('is the same at any block size', () => {
    const frames = SR * 6;
    const reference = renderCommands(performance, SR, frames, 128);
    for (const block of [1, 997, 4096]) {
      const other = renderCommands(performance, SR, frames, block);
      expect(Buffer.compare(Buffer.from(other.left.buffer), Buffer.from(reference.left.buffer))).toBe(0);
      expect(Buffer.compare(Buffer.from(other.right.buffer), Buffer.from(reference.right.buffer))).toBe(0);
    }
  });

  test('never exceeds the ceiling of -1 dBFS, and is limited only when it must be', () => {
    const all: Command[] = Array.from({ length: 16 }, (_, pad) =>
      at(1000, { type: 'padDown', track: 0, pad, velocity: 1, heard: 0, id: pad + 1 }),
    );
    const again: Command[] = Array.from({ length: 16 }, (_, pad) =>
      at(1500, { type: 'padDown', track: 0, pad, velocity: 1, heard: 0, id: pad + 20 }),
    );
    const { left, right } = renderCommands([...all, ...again], SR, SR);
    const loudest = Math.max(...left.map(Math.abs), ...right.map(Math.abs));
    expect(loudest).toBeLessThanOrEqual(CEILING * (1 + 1e-6));
    expect(loudest).toBeGreaterThan(CEILING * 0.9);
    expect(CEILING).toBeCloseTo(10 ** (-1 / 20), 9);
  });

  test('comes to true silence', () => {
    const { left } = renderCommands(
      [at(0, { type: 'padDown', track: 0, pad: 10, velocity: 1, heard: 0, id: 1 })],
      SR,
      SR * 9,
    );
    expect(left.subarray(SR * 8).every((x) => x === 0)).toBe(true);
  });

  test('a muted track is silent, and comes back', () => {
    const mute = (frame: number, on: boolean) =>
      at(frame, { type: 'muteSolo', track: 0, mute: on ? 1 : 0, solo: AS_IT_IS, on: 0 });
    const strike = (frame: number, id: number) =>
      at(frame, { type: 'padDown', track: 0, pad: 0, velocity: 1, heard: 0, id });
    const { left } = renderCommands([mute(0, true), strike(5000, 1), mute(40000, false), strike(50000, 2)], SR, 60000);
    expect(Math.max(...left.subarray(5000, 40000).map(Math.abs))).toBe(0);
    expect(Math.max(...left.subarray(50000, 60000).map(Math.abs))).toBeGreaterThan(0.2);
  });

  test('an exported loop is exactly as long as the loop, and goes round without a seam', () => {
    const track = demoSet().set.tracks[0]!;
    const { left } = renderLoop(track, track.patterns[0]!, 112, SR);
    expect(left).toHaveLength(Math.round((8 * 60 * SR) / 112));
    // The same stretch one pass later in a longer render is what would follow the file's end.
    const step = (i: number) => Math.abs(left[(i + 1) % left.length]! - left[i]!);
    const usual = Math.max(...Array.from({ length: 2000 }, (_, i) => step(left.length - 3000 + i)));
    expect(step(left.length - 1)).toBeLessThanOrEqual(Math.max(usual, 0.02));
    // The first kick begins with the file, not late by the limiter's look-ahead.
    expect(Math.max(...left.subarray(0, 60).map(Math.abs))).toBeGreaterThan(0.02);
  });
});

test('a queue that nobody reads loses its oldest events and counts them', () => {
  const { events } = new Engine(SR);
  for (let i = 0; i < 3000; i++) events.add('checked', i).click = i;
  expect(events.lost).toBe(3000 - 2048);
  expect(decodeEvents(events.drain())[0]!.frame).toBe(3000 - 2048);
});

test('a stroke whose time cannot be told, or lies ahead, counts as struck now: it is never lost', () => {
  for (const heard of [NaN, Infinity, 1e12]) {
    const rig = new Rig()
      .tell(
        { type: 'tempo', bpm: 120 },
        { type: 'inputQuantize', grid: 240, on: false },
        loop(),
        { type: 'record', on: true, session: 1 },
        { type: 'play', startTick: 0, countInTicks: 0 },
      )
      .runTo(BEAT);
    rig.tell({ type: 'padDown', track: 0, pad: 3, velocity: 1, heard, id: 1 }).runTo(BEAT * 2);
    expect(rig.of('recorded').map((e) => e.struck)).toEqual([960]);
  }
});
