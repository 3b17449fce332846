import fc from 'fast-check';
import { ANY_PAD, FIRST_GROUP_CHANNEL, WHOLE_CHANNEL } from '../document/mix';
import { at } from '../protocol/commands';
import { MixBus } from '../sound/mix/mixBus';
import { Engine } from './engine';
import { randomMixedPerformance } from './performances.testing';
import { TrackTape } from './trackTape';

const SR = 48000;

interface Sound {
  left: Float32Array;
  right: Float32Array;
}

/** Plays a mixed performance, asked for so many frames at a time. `before` is told of the engine before each of these. */
function play(seed: number, blocks: readonly number[], before: (engine: Engine, block: number) => void): Sound {
  const { commands } = randomMixedPerformance(seed, frames(blocks), 60);
  const engine = new Engine(SR);
  for (const command of commands) engine.post(command);
  // What chance seldom does: strokes of a track that have channels duck, of tracks, a group and the whole mix.
  for (const channel of [0, 1, FIRST_GROUP_CHANNEL, WHOLE_CHANNEL]) {
    engine.post(at(0, { type: 'duckedBy', channel, track: 0, pad: ANY_PAD }));
    engine.post(at(0, { type: 'channel', channel, control: 'duck', value: 24 }));
  }
  const [left, right] = [new Float32Array(frames(blocks)), new Float32Array(frames(blocks))];
  let done = 0;
  blocks.forEach((block, i) => {
    before(engine, i);
    engine.process(left, right, block, done);
    engine.events.clear();
    done += block;
  });
  return { left, right };
}

const frames = (blocks: readonly number[]) => blocks.reduce((sum, block) => sum + block, 0);

test('two engines, of which one renders the tracks and the other mixes them, sound as one to the bit, whatever is played and however it is cut', () => {
  let sounding = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1e6 }),
      fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 5, maxLength: 12 }),
      (seed, blocks) => {
        const whole = play(seed, blocks, () => undefined);
        const tapes = blocks.map(() => new TrackTape());
        const unmixed = play(seed, blocks, (engine, block) => engine.writeTracks(tapes[block]!));
        const mixed = play(seed, blocks, (engine, block) => engine.readTracks(new TrackTape(tapes[block]!.whole)));
        if (whole.left.some((x) => x !== 0)) sounding++;
        const isSame = whole.left.every((x, i) => x === mixed.left[i] && whole.right[i] === mixed.right[i]);
        return isSame && unmixed.left.every((x) => x === 0);
      },
    ),
    { numRuns: 40 },
  );
  expect(sounding).toBeGreaterThan(30);
});

test('a tape grows with what is written, and gives it back in its order: numbers, buses with and without echo, and empty ones', () => {
  const bus = (at: number, hasEcho: boolean) => {
    const filled = new MixBus();
    [filled.left, filled.right, filled.send, filled.echo].forEach((channel, c) =>
      channel.forEach((_, i) => (channel[i] = at + c / 4 + i)),
    );
    filled.hasEcho = hasEcho;
    return filled;
  };
  const tape = new TrackTape(new Float64Array(2));
  for (let i = 0; i < 20; i++) {
    tape.write(i);
    tape.writeBus(bus(1000 * i, i % 2 === 0), 100);
    tape.writeBus(null, 100);
  }
  const back = new TrackTape(tape.whole);
  const into = bus(-1, true);
  for (let i = 0; i < 20; i++) {
    expect(back.read()).toBe(i);
    expect(back.readBus(into, 100)).toBe(true);
    expect([into.left[99], into.right[0], into.send[50]]).toEqual([1000 * i + 99, 1000 * i + 0.25, 1000 * i + 50.5]);
    // What has no echo leaves none of the last one behind.
    expect([into.hasEcho, into.echo[99]]).toEqual(i % 2 === 0 ? [true, 1000 * i + 99.75] : [false, 0]);
    expect(back.readBus(into, 100)).toBe(false);
    expect(into.left[99]).toBe(1000 * i + 99);
  }
});
