import { ANY_PAD } from '../document/mix';
import type { Instruction } from '../protocol/commands';
import { BAR, BEAT, hits, padOf, pattern, PLAY, Rig, SR, STILL } from './rig.testing';

const KICK = padOf('kick');
const SNARE = padOf('snare');
const NOTES = Float64Array.from({ length: 16 }, (_, pad) => 60 + pad);
const DEPTH = 12;
const TIME = 300;

const channel = (control: 'duck' | 'duckTime', value: number): Instruction => ({ type: 'channel', channel: 1, control, value }); // prettier-ignore
/** A long note, and what has it duck on a track that is not heard: the note alone is measured. */
const beginning = (kicks: readonly [tick: number, pad: number, velocity: number][]): Instruction[] => [
  { type: 'kit', track: 0, kit: STILL },
  { type: 'trackLevel', track: 0, level: 0 },
  pattern({ hits: hits(...kicks.map(([tick, pad, velocity], i): [number, number, number, object] => [tick, pad, 2 + i, { velocity }])) }), // prettier-ignore
  { type: 'notes', track: 1, layout: { voice: 'organ', notes: NOTES, octave: 0, settings: { motion: 0, width: 0 } } },
  pattern({ track: 1, hits: hits([0, 0, 50, { length: BAR - 10 }]) }),
  { type: 'launch', track: 1, slot: 0, on: 0, inPlace: false },
];

function heard(told: readonly Instruction[]): Float32Array {
  const rig = new Rig().tell(...told, PLAY);
  const [left, right] = [new Float32Array(2 * SR), new Float32Array(2 * SR)];
  rig.engine.process(left, right);
  return left;
}

/** dB of a stretch of 10 ms from a frame on, against that of the same in another sound. */
function dbAt(sound: Float32Array, plain: Float32Array, frame: number): number {
  const energy = (of: Float32Array) => of.subarray(frame, frame + 480).reduce((sum, x) => sum + x * x, 0);
  return 10 * Math.log10(energy(sound) / energy(plain));
}

const KICKS = [[960, KICK, 1], [2400, KICK, 0.5], [3360, SNARE, 1]] as const; // prettier-ignore
const kicks = KICKS.map(([tick, pad, velocity]): [number, number, number] => [tick, pad, velocity]);
const plain = heard(beginning(kicks));
/** What is told leaves the limiter so many frames later. */
const LATE = 96;

test('a channel goes down under a stroke of its pad, as far as that is hard, and is back in its time, evenly in dB', () => {
  const ducked = heard([...beginning(kicks), channel('duck', DEPTH), channel('duckTime', TIME), { type: 'duckedBy', channel: 1, track: 0, pad: KICK }]); // prettier-ignore
  const at = (beat: number, ms: number) => dbAt(ducked, plain, Math.round(beat * BEAT + (ms * SR) / 1000) + LATE);
  expect(at(0.9, 0)).toBeCloseTo(0, 1);
  // 10 ms around the middle of each: so many dB less to go with each ms, from 4 ms after the stroke on.
  for (const ms of [15, 50, 100, 200, 280]) expect(at(1, ms - 5)).toBeCloseTo(-DEPTH * (1 - (ms - 4) / TIME), 0);
  expect(at(1, 320)).toBeCloseTo(0, 1);
  expect(at(2.5, 15)).toBeCloseTo(-0.5 * DEPTH * (1 - 16 / TIME), 0);
  // Another pad does not matter to it.
  expect(at(3.5, 20)).toBeCloseTo(0, 1);
});

test('any pad of a track has it duck, if it is set so; without a key, or without depth, nothing does', () => {
  const key = (track: number): Instruction => ({ type: 'duckedBy', channel: 1, track, pad: ANY_PAD });
  const any = heard([...beginning(kicks), channel('duck', DEPTH), key(0)]);
  expect(dbAt(any, plain, 3.5 * BEAT + LATE + 960)).toBeLessThan(-8);
  for (const told of [[channel('duck', DEPTH)], [key(0)], [channel('duck', DEPTH), key(0), key(-1)]]) {
    expect(dbAt(heard([...beginning(kicks), ...told]), plain, BEAT + LATE + 960)).toBeCloseTo(0, 2);
  }
});

test('it does not click: no difference from sample to sample 6 dB above the note’s own', () => {
  const steepest = (sound: Float32Array) => {
    let most = 0;
    for (let i = 0.2 * SR; i < 1.8 * SR; i++) most = Math.max(most, Math.abs(sound[i]! - sound[i - 1]!));
    return most;
  };
  const rolling = Array.from({ length: 30 }, (_, i): [number, number, number] => [240 + i * 110, KICK, (i % 4) / 3]);
  const told = [...beginning(rolling), channel('duck', 36), channel('duckTime', 40), { type: 'duckedBy', channel: 1, track: 0, pad: KICK } as const]; // prettier-ignore
  expect(steepest(heard(told))).toBeLessThan(2 * steepest(heard(beginning(rolling))));
});
