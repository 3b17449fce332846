import fc from 'fast-check';
import type { Kit } from '../document/kit';
import { FIRST_LFO, type Lfo } from '../document/lfo';
import { renderCommands } from '../engine/offline';
import { at, type Command } from '../protocol/commands';
import { random } from '../random';
import { SHIPPED_KITS } from '../shelf/shippedKits';
import { leftSound, rightSound } from './sampleReader';
import { MAX_STRETCH } from './stretch';
import { VoiceBus } from './voiceBus';
import { addBus, addBusSlowly, gains, isSideBySide, mix, mixSides, mixSidesSlowly, mixSlowly, saturate, saturateSlowly } from './voiceLoops'; // prettier-ignore

const RATE = 48000;

test('this Node renders voices side by side', () => expect(isSideBySide).toBe(true));

describe('two samples at once are to the bit what they are one by one', () => {
  const [bus, other] = [new VoiceBus(), new VoiceBus()];
  const sounds = [leftSound, rightSound, ...[bus, other].flatMap(({ left, right, send }) => [left, right, send])];
  const noise = random(11);
  const run = fc.record({
    at: fc.nat(60),
    to: fc.nat(60),
    frames: fc.integer({ min: 1, max: MAX_STRETCH - 60 }),
    left: fc.double({ min: 0, max: 5, noNaN: true }),
    right: fc.double({ min: 0, max: 2, noNaN: true }),
    send: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  type Run = typeof run extends fc.Arbitrary<infer T> ? T : never;

  /** The same sounds through both: all that there is must be the same, what lies beside the frames included. */
  const alike = (quick: (run: Run) => void, slow: (run: Run) => void) =>
    fc.assert(
      fc.property(run, (of) => {
        const fresh = sounds.map((sound) => sound.map(() => 4 * noise() - 2));
        const heard = [quick, slow].map((loop) => {
          sounds.forEach((sound, i) => sound.set(fresh[i]!));
          gains.set([of.left, of.right, of.send]);
          loop(of);
          return sounds.map((sound) => [...sound]);
        });
        expect(heard[0]).toEqual(heard[1]);
      }),
    );
  const even = (frames: number) => 2 * Math.ceil(frames / 2);

  test('added to a bus', () =>
    alike((of) => mix(of.at, bus, of.to, of.frames), (of) => mixSlowly(of.at, bus, of.to, of.frames))); // prettier-ignore

  test('a middle and its sides', () =>
    alike((of) => mixSides(of.at, bus, of.to, of.frames), (of) => mixSidesSlowly(of.at, bus, of.to, of.frames))); // prettier-ignore

  test('a bus added to another one', () =>
    alike((of) => addBus(other, bus, even(of.frames)), (of) => addBusSlowly(other, bus, even(of.frames)))); // prettier-ignore

  test('saturated', () =>
    alike((of) => saturate(even(of.frames)), (of) => saturateSlowly(even(of.frames)))); // prettier-ignore
});

/** The kits as they are, and one of them with sounds that are held, that go up and down, and that are struck at other pitches. */
function playedKits(): Kit[] {
  const kits = SHIPPED_KITS.map(({ kit }) => kit!);
  const lfos: Lfo[] = [{ ...FIRST_LFO, moves: 'pitch' }];
  const shaped = [{ hold: 0.03 }, { lfos }, { pitch: 7, hold: 0.004 }, { lfos, hold: 0.01, pitch: -5 }];
  const pads = kits[0]!.pads.map((pad, i) => ({ ...pad, sound: { ...pad.sound, settings: { ...pad.sound.settings, ...shaped[i % shaped.length] } } })); // prettier-ignore
  return [...kits, { ...kits[0]!, pads }];
}

test('a browser that forbids WebAssembly makes the same sounds, to the bit: every pad of every kit, however often it is struck', () => {
  const next = random(5);
  const commands = playedKits().map((kit) => {
    const strokes = Array.from({ length: 40 }, (_, i): Command => {
      const pad = Math.floor(16 * next());
      return at(Math.floor(RATE * next()), { type: 'padDown', track: 0, pad, velocity: next(), heard: 0, id: 1 + i });
    });
    strokes.sort((a, b) => a.frame - b.frame);
    return [at(0, { type: 'kit', track: 0, kit }), ...strokes];
  });
  const bytes = (render: typeof renderCommands) =>
    commands.map((played) => {
      const { left, right } = render(played, RATE, RATE);
      return [left, right].map((side) => Buffer.from(side.buffer).toString('base64'));
    });
  const quick = bytes(renderCommands);
  const without = jest.replaceProperty(globalThis, 'WebAssembly', undefined as never);
  jest.isolateModules(() => {
    const slow = jest.requireActual<typeof import('../engine/offline')>('../engine/offline');
    expect(jest.requireActual<typeof import('./voiceLoops')>('./voiceLoops').isSideBySide).toBe(false);
    bytes(slow.renderCommands).forEach((sides, kit) => expect([kit, sides[0] === quick[kit]![0], sides[1] === quick[kit]![1]]).toEqual([kit, true, true])); // prettier-ignore
  });
  without.restore();
});
