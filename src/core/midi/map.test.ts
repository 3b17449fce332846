import fc from 'fast-check';
import { alsoWorks, bindingKey, newBinding, placeOf, readBinding, withBinding, type Binding } from './binding';
import { bent, curvedVelocity, learntCurve, STRAIGHT } from './curve';
import { newDevice, readDevice, readDeviceFile, writeDevice } from './device';
import { encoderSteps, FinePair, finePartner, guessedEncoding } from './encodings';
import { EIGHT_BY_EIGHT, FOUR_BY_FOUR, learntLayout, noteAt, placeOfNote } from './gridLayout';
import { builtIn, launchTarget } from './layouts';
import { BENCH_SCHEME, lightBytes, readScheme, readTemplate, templateText, TONE_COUNT } from './lights';
import { KnobTakeover } from './takeover';
import { FUNCTION_NAMES, FUNCTIONS, readTarget, targetKey, targetOfKey, targetWords, type Target } from './target';

const knob = (changed: Partial<Binding> = {}): Binding => ({
  ...newBinding({ kind: 'control', channel: 1, number: 20 }, { do: 'level', row: 0 }),
  ...changed,
});

/** A target of any function, with every part it may have. */
const target: fc.Arbitrary<Target> = fc
  .record({
    do: fc.constantFrom(...FUNCTION_NAMES),
    row: fc.nat({ max: 15 }),
    pad: fc.nat({ max: 15 }),
    slot: fc.nat({ max: 255 }),
    section: fc.nat({ max: 63 }),
    control: fc.constantFrom('pitch' as const, 'pan' as const),
    drop: fc.constantFrom('bar', 'now'),
    bars: fc.constantFrom(1, 2, 4, 8),
    place: fc.constantFrom('pads', 'launch'),
    layer: fc.integer({ min: 1, max: 3 }),
  })
  .map((all) => readTarget(all)!);

describe('how controls count', () => {
  // Common practice: two's complement 1 = +1, 127 = -1; offset binary 65 = +1, 63 = -1; sign and magnitude 1 = +1, 65 = -1.
  test('the three ways of encoders', () => {
    expect([1, 127, 64].map((value) => encoderSteps(value, 'twosComplement'))).toEqual([1, -1, -64]);
    expect([65, 63, 64].map((value) => encoderSteps(value, 'offsetBinary'))).toEqual([1, -1, 0]);
    expect([1, 65, 3, 67].map((value) => encoderSteps(value, 'signMagnitude'))).toEqual([1, -1, 3, -3]);
  });

  test('which of them it is, is learnt from what repeats; a knob that stands at places is none', () => {
    expect(guessedEncoding([64, 65, 66, 67])).toBeNull();
    expect(guessedEncoding([1, 1, 127, 127])).toBe('twosComplement');
    expect(guessedEncoding([65, 65, 63])).toBe('offsetBinary');
    expect(guessedEncoding([1, 1, 65])).toBe('signMagnitude');
    expect(guessedEncoding([0, 0])).toBeNull();
    expect(guessedEncoding([30, 30])).toBeNull();
  });

  test('a pair counts in 14 bits (MIDI 1.0: n and n + 32 for n under 32), and never jumps between its halves', () => {
    expect([7, 31, 32].map(finePartner)).toEqual([39, 63, null]);
    const pair = new FinePair();
    let last = 0;
    for (let value = 0; value < 16384; value += 37) {
      pair.takeCoarse(value >> 7);
      const place = pair.takeFine(value & 127);
      expect(place).toBeCloseTo(value / 16383, 9);
      // A step of 37 in 16384; 60 dB below the whole is one in a thousand for each single step.
      expect(place - last).toBeLessThan(38 / 16383);
      last = place;
    }
    expect(1 / 16383).toBeLessThan(0.001);
  });
});

describe('a knob takes over', () => {
  test('picked up, it does nothing until it passes by where the function stands', () => {
    const takeover = new KnobTakeover();
    const moves = [0, 0.2, 0.4, 0.6, 0.7].map((x) => takeover.move(knob(), x, 0.5));
    expect(moves).toEqual([null, null, null, 0.6, null]); // at 0.7 the function still stands at 0.5: nobody has put it
    const held = new KnobTakeover();
    let now = 0.5;
    for (const x of [0.1, 0.45, 0.55, 0.3, 0.9]) now = held.move(knob(), x, now) ?? now;
    expect(now).toBe(0.9);
    // Moved by another hand, it must be picked up again.
    expect(held.move(knob(), 0.95, 0.2)).toBeNull();
  });

  test('jumping, it is where it stands at once; relative, it moves the function by as much as it is moved', () => {
    expect(new KnobTakeover().move(knob({ takeover: 'jump' }), 0.1, 0.9)).toBe(0.1);
    const takeover = new KnobTakeover();
    const relative = knob({ takeover: 'relative' });
    expect(takeover.move(relative, 0.5, 0.2)).toBeNull();
    expect(takeover.move(relative, 0.6, 0.2)).toBeCloseTo(0.3);
    expect(takeover.move(relative, 1, 0.3)).toBe(1);
  });

  test('whatever it does, the function stays in the stretch that it was given; picked up, it never jumps', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        share,
        share,
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.array(share),
        share,
        (from, to, bend, xs, start) => {
          // prettier-ignore
          const [low, high] = [Math.min(from, to), Math.max(from, to)];
          for (const takeover of ['pickUp', 'jump', 'relative'] as const) {
            const binding = knob({ from, to, bend, takeover });
            const one = new KnobTakeover();
            let now = low + start * (high - low);
            let before = NaN;
            for (const x of xs) {
              const put = one.move(binding, x, now);
              if (put !== null) {
                expect(put).toBeGreaterThanOrEqual(low - 1e-9);
                expect(put).toBeLessThanOrEqual(high + 1e-9);
                // From where the function stood, as far as the knob was moved at the most.
                if (takeover === 'pickUp' && !Number.isNaN(before)) {
                  const moved = Math.abs(placeOf(binding, x) - placeOf(binding, before));
                  expect(Math.abs(put - now)).toBeLessThanOrEqual(moved + 1 / 127);
                }
                now = put;
              }
              before = x;
            }
          }
        },
      ),
    );
  });

  test('an encoder goes through the range in 128 steps, and stops at its ends', () => {
    const takeover = new KnobTakeover();
    let now = 0.5;
    for (let i = 0; i < 64; i++) now = takeover.turn(knob(), 1, now);
    expect(now).toBeCloseTo(1);
    expect(takeover.turn(knob(), 9, now)).toBe(1);
    expect(takeover.turn(knob({ from: 1, to: 0 }), 9, 1)).toBeLessThan(1); // turned round
  });
});

describe('velocity', () => {
  test('straight, it is as it was sent; bent, soft strokes are softer', () => {
    for (const velocity of [1, 64, 127]) expect(curvedVelocity(STRAIGHT, velocity)).toBeCloseTo(velocity / 127, 2);
    expect(bent(0.5, -1)).toBeCloseTo(0.125);
    expect(curvedVelocity({ ...STRAIGHT, bend: -1 }, 64)).toBeLessThan(0.2);
    expect(curvedVelocity({ least: 40, most: 100, bend: 0 }, 20)).toBeGreaterThan(0); // every stroke is heard
  });

  test('ten strokes of a hand make its softest soft, its hardest hard and its middle the middle', () => {
    const strokes = [40, 45, 52, 60, 64, 70, 72, 80, 95, 100];
    const curve = learntCurve(strokes)!;
    const heard = (velocity: number) => curvedVelocity(curve, velocity);
    expect(heard(40)).toBeLessThan(0.35);
    expect(heard(100)).toBeGreaterThan(0.9);
    expect(heard(67)).toBeCloseTo(0.6, 1);
    expect(learntCurve(strokes.slice(1))).toBeNull();
    expect(learntCurve(Array.from({ length: 10 }, () => 90))).toBeNull();
  });

  test('harder is never softer, whatever the curve', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 120 }), fc.double({ min: -1, max: 1, noNaN: true }), (least, bend) => {
        let before = 0;
        for (let velocity = 1; velocity < 128; velocity++) {
          const heard = curvedVelocity({ least, most: 127, bend }, velocity);
          expect(heard).toBeGreaterThanOrEqual(before);
          expect(heard).toBeLessThanOrEqual(1);
          before = heard;
        }
      }),
    );
  });
});

describe('pads of devices', () => {
  test('sixteen from General MIDI’s bass drum upwards, the first at the bottom left', () => {
    // 36 Bass Drum 1, 42 Closed Hi-Hat (General MIDI Level 1 percussion map).
    expect(placeOfNote(FOUR_BY_FOUR, 36)).toEqual({ column: 0, row: 0 });
    expect(placeOfNote(FOUR_BY_FOUR, 42)).toEqual({ column: 2, row: 1 });
    expect(placeOfNote(FOUR_BY_FOUR, 52)).toBeNull();
  });

  test('any grid is learnt from three of its pads, and one that cannot be is said to be none', () => {
    const rowsOfSixteen = learntLayout([0, 1, 16], 8, 8);
    expect(noteAt(rowsOfSixteen, { column: 7, row: 7 })).toBe(119);
    const fromTheTop = learntLayout([112, 113, 96], 8, 8);
    expect(placeOfNote(fromTheTop, 0)).toEqual({ column: 0, row: 7 });
    expect(() => learntLayout([36, 37, 38], 4, 4)).toThrow(/do not lie on 4 by 4/);
    expect(() => learntLayout([100, 101, 108], 8, 8)).toThrow(/do not lie/);
  });

  test('eight by eight launches above and plays below: every pad does something of its own', () => {
    const targets = new Set<string>();
    for (let row = 0; row < 8; row++) {
      for (let column = 0; column < 8; column++) targets.add(targetKey(launchTarget({ grid: EIGHT_BY_EIGHT }, { column, row }))); // prettier-ignore
    }
    expect(targets.size).toBe(64);
    expect(launchTarget({ grid: EIGHT_BY_EIGHT }, { column: 0, row: 7 })).toEqual({ do: 'card', row: 0, slot: 0 });
    expect(launchTarget({ grid: EIGHT_BY_EIGHT }, { column: 0, row: 0 })).toEqual({ do: 'pad', pad: 0 });
  });

  test('controls that are a standard’s do what the standard says; others that nobody mapped do nothing', () => {
    const of = (number: number) => builtIn({ kind: 'control', channel: 1, number })?.target;
    // MIDI 1.0: 7 channel volume, 10 pan; General MIDI 2: 74 brightness. From memory.
    expect([of(7), of(10), of(74)]).toEqual([{ do: 'level' }, { do: 'turn', control: 'pan' }, { do: 'turn', control: 'filter' }]); // prettier-ignore
    expect([of(64), of(90)]).toEqual([undefined, undefined]);
    expect(of(24)).toEqual({ do: 'level', row: 0 });
  });
});

describe('maps', () => {
  test('every function is named, found again by its key, and has words', () => {
    fc.assert(
      fc.property(target, (one) => {
        expect(targetOfKey(targetKey(one))).toEqual(one);
        expect(readTarget(JSON.parse(JSON.stringify(one)))).toEqual(one);
        expect(targetWords(one)).not.toMatch(/undefined|NaN/);
      }),
    );
    expect(readTarget({ do: 'quit' })).toBeNull();
    expect(readTarget({ do: 'card', row: 0 })).toBeNull(); // which pattern?
    expect(readTarget({ do: 'pad', pad: 16 })).toBeNull();
    for (const name of FUNCTION_NAMES) expect(FUNCTIONS[name].words).not.toBe('');
  });

  test('a control keeps what it works besides, and that is told', () => {
    const level = knob();
    const tempo = knob({ target: { do: 'tempo' } });
    const upper = knob({ layer: 1, target: { do: 'grid' } });
    const all = [level, tempo, upper].reduce<Binding[]>(withBinding, []);
    expect(all).toHaveLength(3);
    expect(alsoWorks(all, tempo)).toEqual([level]);
    expect(alsoWorks(all, upper)).toEqual([]);
    // The same control and function again: it is changed.
    expect(withBinding(all, { ...tempo, from: 0.5 })).toHaveLength(3);
    expect(new Set(all.map(bindingKey)).size).toBe(3);
  });

  test('a device is read again as it was written, by people as by the app', () => {
    const device = { ...newDevice('Pads of the rink'), latencyMs: 4.5, bindings: [knob({ bend: -0.5, to: 0.25 })] };
    const text = writeDevice(device);
    expect(readDeviceFile(text)).toEqual({ device, problems: [] });
    expect(text).toContain('"do": "level"');
    expect(() => readDeviceFile('{')).toThrow(/no controller map/);
    expect(() => readDeviceFile('{"what":"a cake"}')).toThrow(/does not begin with/);
    expect(() => readDeviceFile(text.replace('"version": 1', '"version": 2'))).toThrow(/newer/);
    const bad = readDeviceFile(text.replace('"bend": -0.5', '"bend": -5'));
    expect(bad.device.bindings).toEqual([]);
    expect(bad.problems).toEqual(['Line 1 of the map, bend: must be -1 to 1']);
  });

  test('whatever lies in a record, reading it throws nothing and gives a device that can be written', () => {
    fc.assert(
      fc.property(fc.object({ maxDepth: 4 }), target, (junk, to) => {
        const plain = { ...newDevice('x'), ...junk, bindings: [junk, { ...knob(), target: to, ...junk }] };
        const read = readDevice(JSON.parse(JSON.stringify(plain)));
        if (read)
          expect(readDevice(JSON.parse(JSON.stringify(read.device)))).toEqual({ device: read.device, problems: [] });
        readBinding(junk);
      }),
    );
  });

  test('lights are sent as their scheme has it', () => {
    expect(lightBytes({ kind: 'level', dim: 16, bright: 127 }, 1, 36, { tone: 3, level: 1 })).toEqual([0x90, 36, 16]);
    expect(lightBytes(BENCH_SCHEME, 2, 40, { tone: 1, level: 2 })).toEqual([0x91, 40, 4]);
    expect(lightBytes(BENCH_SCHEME, 1, 40, { tone: 1, level: 0 })).toEqual([0x90, 40, 0]);
    const template = readTemplate('F0 00 20 6b note red green blue F7');
    expect(templateText(template)).toBe('00 20 6b note red green blue');
    // Russet, #DE7B4F, in seven bits.
    expect(lightBytes({ kind: 'sysex', template }, 1, 36, { tone: 1, level: 2 })).toEqual([0xf0, 0, 32, 107, 36, 111, 61, 39, 0xf7]); // prettier-ignore
    expect(() => readTemplate('80')).toThrow(/“80” is no byte/);
    for (const scheme of [BENCH_SCHEME, { kind: 'sysex', template } as const]) {
      expect(readScheme(JSON.parse(JSON.stringify(scheme)))).toEqual(scheme);
    }
    expect(readScheme({ kind: 'table', dim: [1], bright: [2] })).toBeNull();
    expect(TONE_COUNT).toBe(10);
  });
});
