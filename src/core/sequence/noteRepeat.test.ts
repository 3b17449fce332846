import { CONTROLS, moveIndex } from '../document/moves';
import { LIMITER_LATENCY } from '../sound/limiter';
import { Engine } from '../engine/engine';
import { framesPerTick } from '../time/ticks';
import { gridTicks, type GridName, REPEAT_RATES } from '../quantize/grid';
import { repeatTicks } from './repeatRates';
import { at, NOW, type Instruction } from '../protocol/commands';
import { decodeEvents, type EngineEvent } from '../protocol/events';

const SR = 48000;
const BAR = 3840;
const HAT = 4;
const KICK = 0;

class Rig {
  readonly engine = new Engine(SR);
  readonly events: EngineEvent[] = [];
  private readonly out = new Float32Array(128);

  constructor(tempo: number, ...more: Instruction[]) {
    this.tell(
      { type: 'tempo', bpm: tempo },
      { type: 'pattern', track: 0, slot: 0, revision: 0, length: BAR, seen: 0, hits: new Float64Array(0), feels: null },
      { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
      { type: 'noteRepeat', on: true, latch: false },
      ...more,
    );
  }

  tell(...instructions: Instruction[]): this {
    for (const instruction of instructions) this.engine.post(at(NOW, instruction));
    return this;
  }

  runTo(frame: number): this {
    while (this.engine.frame < frame) {
      this.engine.process(this.out, this.out, Math.min(128, frame - this.engine.frame));
      this.events.push(...decodeEvents(this.engine.events.drain()));
    }
    return this;
  }

  press(frame: number, pad = HAT, id = 1, late = 0): this {
    return this.runTo(frame).tell({
      type: 'padDown',
      track: 0,
      pad,
      velocity: 0.8,
      heard: frame - late + LIMITER_LATENCY,
      id,
    });
  }

  of<K extends EngineEvent['kind']>(kind: K): Extract<EngineEvent, { kind: K }>[] {
    return this.events.filter((e): e is Extract<EngineEvent, { kind: K }> => e.kind === kind);
  }

  get frames(): number[] {
    return this.of('sounded').map((e) => e.frame);
  }
}

const rate = (name: GridName, pad = HAT): Instruction => ({
  type: 'repeatRate',
  track: 0,
  pad,
  ticks: gridTicks(name),
});

test.each<[GridName, number]>([
  ['1/32', 96],
  ['1/32', 174],
  ['1/16T', 96],
  ['1/16T', 174],
])('%s at %d BPM: every stroke is on its frame of the song, none missed, none doubled', (name, tempo) => {
  const rig = new Rig(tempo, rate(name), { type: 'play', startTick: 0, countInTicks: 0 }).press(5100).runTo(SR * 20);
  const step = gridTicks(name) * framesPerTick(tempo, SR);
  const first = Math.ceil(5100 / step);
  const isLate = 5100 / step - Math.floor(5100 / step) <= 0.25;
  const expected = Array.from({ length: Math.floor((SR * 20 - 1) / step) - first + 1 }, (_, i) => Math.round((first + i) * step)); // prettier-ignore
  expect(isLate ? rig.frames.slice(1) : rig.frames).toEqual(expected);
});

describe('where it begins', () => {
  // At 120 BPM a sixteenth lasts 6000 frames.
  const rig = () => new Rig(120, rate('1/16'), { type: 'play', startTick: 0, countInTicks: 0 });

  test('up to a quarter of the rate late it sounds at once, and the next stroke is on the grid', () => {
    expect(
      rig()
        .press(6000 + 1500)
        .runTo(20000).frames,
    ).toEqual([7500, 12000, 18000]);
  });

  test('later it waits for the next line', () => {
    expect(
      rig()
        .press(6000 + 1501)
        .runTo(20000).frames,
    ).toEqual([12000, 18000]);
  });

  test('let go before its line, a press still gets its one stroke there', () => {
    const tapped = rig()
      .press(6000 + 2000)
      .runTo(8500)
      .tell({ type: 'padUp', track: 0, pad: HAT, heard: 8500 })
      .runTo(30000);
    expect(tapped.frames).toEqual([12000]);
    expect(tapped.press(30000 + 2000, HAT, 3).runTo(50000).frames).toEqual([12000, 36000, 42000, 48000]);
  });

  test('what counts is when it was heard: a press on the beat that comes late is on the beat', () => {
    const late = rig()
      .press(6000 + 3000, HAT, 1, 3000)
      .runTo(20000);
    expect(late.frames).toEqual([9000, 12000, 18000]);
  });

  test('stopped, the first press is the first stroke, and other pads keep to it', () => {
    const stopped = new Rig(120, rate('1/16'), rate('1/8', KICK)).press(1000).press(8000, KICK, 3).runTo(26000);
    expect(stopped.of('sounded').map((e) => [e.frame, e.pad])).toEqual([
      [1000, HAT], [7000, HAT], [13000, KICK], [13000, HAT], [19000, HAT], [25000, KICK], [25000, HAT],
    ]); // prettier-ignore
  });

  test('a tempo change while it goes on changes the pace and skips nothing', () => {
    const turned = new Rig(120, rate('1/16')).press(0).runTo(12001).tell({ type: 'tempo', bpm: 240 }).runTo(21500);
    expect(turned.frames.slice(0, 3)).toEqual([0, 6000, 12000]);
    expect(turned.frames.slice(3).map((f) => Math.round(f / 100))).toEqual([150, 180, 210]);
  });
});

describe('while it is held', () => {
  test('several pads at once, each at its own rate, until each is let go', () => {
    const rig = new Rig(120, rate('1/8'), rate('1/4', KICK), { type: 'play', startTick: 0, countInTicks: 0 })
      .press(0)
      .press(0, KICK, 3)
      .runTo(30000);
    rig.tell({ type: 'padUp', track: 0, pad: HAT, heard: 30000 }).runTo(80000);
    expect(rig.of('sounded').filter((e) => e.pad === HAT).map((e) => e.frame)).toEqual([0, 12000, 24000]); // prettier-ignore
    expect(rig.of('sounded').filter((e) => e.pad === KICK).map((e) => e.frame)).toEqual([0, 24000, 48000, 72000]); // prettier-ignore
  });

  test('a harder press swells, a slide changes the rate from the next line on', () => {
    const rig = new Rig(120, rate('1/16'), { type: 'play', startTick: 0, countInTicks: 0 }).press(0).runTo(6500);
    rig.tell({ type: 'padPress', track: 0, pad: HAT, velocity: 0.2 }).runTo(12500).tell(rate('1/32')).runTo(19000);
    expect(rig.of('sounded').map((e) => [e.frame, e.velocity])).toEqual([
      [0, 0.8], [6000, 0.8], [12000, 0.2], [15000, 0.2], [18000, 0.2],
    ]); // prettier-ignore
  });

  test('latched it goes on without a finger, until it is struck again, or the latch or the song ends', () => {
    const latched = () => new Rig(120, rate('1/16'), { type: 'noteRepeat', on: true, latch: true }, { type: 'play', startTick: 0, countInTicks: 0 }).press(0).runTo(7000).tell({ type: 'padUp', track: 0, pad: HAT, heard: 7000 }).runTo(13000); // prettier-ignore
    expect(latched().runTo(19000).frames).toEqual([0, 6000, 12000, 18000]);
    expect(latched().press(13000, HAT, 3).runTo(30000).frames).toEqual([0, 6000, 12000]);
    expect(latched().tell({ type: 'noteRepeat', on: true, latch: false }).runTo(30000).frames).toEqual([
      0, 6000, 12000,
    ]);
    expect(latched().tell({ type: 'stop' }).runTo(30000).frames).toEqual([0, 6000, 12000]);
  });

  test('it swings with the Feel of its pad', () => {
    const feels = new Float64Array(16 * 5).fill(-1);
    feels.set([240, 1, 240, 0.625, 0], HAT * 5);
    const rig = new Rig(
      125,
      rate('1/16'),
      { type: 'pattern', track: 0, slot: 0, revision: 0, length: BAR, seen: 0, hits: new Float64Array(0), feels },
      { type: 'play', startTick: 0, countInTicks: 0 },
    );
    // At 125 BPM a quarter is 23040 frames; the pair of sixteenths 11520, of which 62.5 % are 7200.
    expect(rig.press(0).runTo(24000).frames).toEqual([0, 7200, 11520, 18720, 23040]);
  });
});

describe('recorded', () => {
  const record = (...more: Instruction[]) =>
    new Rig(
      120,
      rate('1/32'),
      { type: 'inputQuantize', grid: 240, on: true },
      { type: 'record', on: true, session: 1 },
      ...more,
      { type: 'play', startTick: 0, countInTicks: 0 },
    );

  test('its strokes are ordinary hits with even numbers, and a coarse input grid does not pile them up', () => {
    const rig = record().press(0).runTo(9500).tell({ type: 'padUp', track: 0, pad: HAT, heard: 9500 }).runTo(10000);
    expect(rig.of('recorded').map((e) => [e.id, e.struck, e.snapGrid, e.length])).toEqual([
      [1, 0, 120, 60], [2, 120, 0, 60], [4, 240, 0, 60], [6, 360, 0, 60],
    ]); // prettier-ignore
    rig.runTo(96000 + 9500);
    const again = rig.of('sounded').filter((e) => !e.live);
    expect(again.map((e) => e.frame - 96000)).toEqual([0, 3000, 6000, 9000]);
  });

  test('held round the loop, a stroke and the hit that it recorded there sound once', () => {
    const rig = record()
      .press(0)
      .runTo(96000 * 2);
    expect(new Set(rig.frames).size).toBe(rig.frames.length);
    expect(rig.frames).toHaveLength(64);
  });

  test('under a Feel with a coarser grid its strokes stand on their own', () => {
    const feels = new Float64Array(16 * 5).fill(-1);
    feels.set([240, 1, 0, 0, 0], HAT * 5);
    const rig = record({
      type: 'pattern',
      track: 0,
      slot: 0,
      revision: 0,
      length: BAR,
      seen: 0,
      hits: new Float64Array(0),
      feels,
    })
      .press(0)
      .runTo(9500);
    expect(rig.of('recorded').map((e) => e.asPlayed)).toEqual([false, true, false, true]);
  });
});

test('each sound keeps to its own range of rates, unless the player chose beyond it', () => {
  expect(REPEAT_RATES[0]).toBe('1/4');
  expect(REPEAT_RATES.at(-1)).toBe('1/64T');
  expect(repeatTicks({ kind: 'kick' }, '1/16', 10)).toBe(gridTicks('1/16T'));
  expect(repeatTicks({ kind: 'closedHat' }, '1/16', -10)).toBe(gridTicks('1/8D'));
  expect(repeatTicks({ kind: 'kick' }, '1/64', 3)).toBe(gridTicks('1/64'));
  expect(repeatTicks({ kind: 'snare' }, '1/16', 1)).toBe(gridTicks('1/32D'));
  const own = { kind: 'kick', repeat: { slowest: '1/8', fastest: '1/32' } } as const;
  expect([repeatTicks(own, '1/16', 10), repeatTicks(own, '1/16', -10)]).toEqual([gridTicks('1/32'), gridTicks('1/8')]);
});

test('a Move of the repeat rate changes it from stroke to stroke; gone, the chosen rate is back', () => {
  const [eighth, sixteenth] = [REPEAT_RATES.indexOf('1/8'), REPEAT_RATES.indexOf('1/16')];
  const moves = new Float64Array([moveIndex(HAT, CONTROLS.indexOf('rate')), 2, 0, eighth, 1920, sixteenth]);
  const rig = new Rig(
    120,
    rate('1/4'),
    { type: 'moves', track: 0, slot: 0, revision: 0, points: moves },
    { type: 'play', startTick: 0, countInTicks: 0 },
  )
    .press(0)
    .runTo(SR * 2 - 100);
  const ticks = () => rig.of('sounded').map((e) => Math.round(e.frame / 25));
  expect(ticks()).toEqual([0, 480, 960, 1440, 1920, 2160, 2400, 2640, 2880, 3120, 3360, 3600]);
  rig.tell({ type: 'moves', track: 0, slot: 0, revision: 0, points: new Float64Array(0) }).runTo(SR * 3.9);
  // The stroke that was due at the old rate still comes.
  expect(ticks().slice(12)).toEqual([3840, 4800, 5760, 6720]);
});
