import fc from 'fast-check';
import { PADS } from '../document/limits';
import { at, type Command } from '../protocol/commands';
import { Engine } from './engine';
import { randomMixedPerformance } from './performances.testing';
import { VoiceEnds } from './voiceEnds';

const SR = 48000;
const FRAMES = 0.6 * SR;
const TRACKS = 4;

/** All pads of all tracks repeat, for a part of the time: so many strokes that voices are stolen, by which others have not ended yet. */
const crowd: Command[] = [
  at(SR / 10, { type: 'noteRepeat', on: true, latch: true }),
  ...Array.from({ length: TRACKS * PADS }, (_, i) => {
    const struck = { track: Math.floor(i / PADS), pad: i % PADS };
    return [
      at(SR / 10, { type: 'repeatRate', ...struck, ticks: 60 + 20 * (i % 7) }),
      at(SR / 10, { type: 'padDown', ...struck, velocity: 0.6, heard: NaN, id: 2_000_001 + 2 * i }),
    ];
  }).flat(),
  at(SR / 2, { type: 'noteRepeat', on: false, latch: false }),
];

/** Plays a mixed performance of which one track is heard, asked for so many frames at a time. */
function play(seed: number, track: number, block: number, before: (engine: Engine) => void): Float32Array[] {
  const engine = new Engine(SR);
  for (const command of [...randomMixedPerformance(seed, FRAMES, 60).commands, ...crowd]) engine.post(command);
  engine.hear({ track, limited: false });
  before(engine);
  const sides = [new Float32Array(FRAMES), new Float32Array(FRAMES)] as const;
  for (let done = 0; done < FRAMES; done += block) {
    engine.process(...sides, Math.min(block, FRAMES - done), done);
    engine.events.clear();
  }
  return [...sides];
}

test('a track alone sounds the same to the bit where the voices of the others are not rendered, whatever is played and however it is cut', () => {
  let sounding = 0;
  const block = fc.integer({ min: 50, max: 3000 });
  const track = fc.nat(TRACKS - 1);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), track, track, block, block, (seed, first, heard, block, other) => {
      const ends = new VoiceEnds();
      play(seed, first, block, (engine) => engine.learnEnds(ends));
      const whole = play(seed, heard, block, () => undefined);
      const spared = play(seed, heard, other, (engine) => engine.followEnds(ends));
      if (whole[0]!.some((x) => x !== 0)) sounding++;
      return whole.every((side, c) => side.every((x, i) => x === spared[c]![i]));
    }),
    { numRuns: 16 },
  );
  expect(sounding).toBeGreaterThan(9);
});

test('what has ended is told once, by the first frame that is asked for from then on, and again after a rewind', () => {
  const ends = new VoiceEnds();
  ends.note(128, 5);
  ends.note(128, 6);
  ends.note(300, 5);
  const upTo = (frame: number) => {
    const places: number[] = [];
    for (let place = ends.next(frame); place !== null; place = ends.next(frame)) places.push(place);
    return places;
  };
  for (let round = 0; round < 2; round++) {
    expect([upTo(127), upTo(200), upTo(299), upTo(1000), upTo(1000)]).toEqual([[], [5, 6], [], [5], []]);
    ends.rewind();
  }
});
