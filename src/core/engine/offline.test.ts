import { newTrack } from '../document/track';
import { slotInstructions, trackInstructions } from '../protocol/fromDocument';
import { demoSet } from '../document/demo';
import { at, type Command } from '../protocol/commands';
import { LIMITER_LATENCY } from '../sound/limiter';
import { renderCommands, renderLoop } from './offline';
import { BAR, SR, PLAY, STILL } from './rig.testing';

const DEMO = demoSet().set.tracks[0]!;
const performance: Command[] = [
  ...[...trackInstructions(0, DEMO), ...slotInstructions({ track: 0, slot: 0 }, DEMO.patterns[0]!)].map((i) =>
    at(0, i),
  ),
  at(0, { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }),
  at(0, { type: 'tempo', bpm: 112 }),
  at(0, { type: 'metronome', on: true, level: 1, sound: 'wood', when: 'always', between: 0 }),
  at(500, PLAY),
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

test('what rings over the end of an exported loop goes on at its start, sample by sample', () => {
  // A bass drum a tenth of a second before the end.
  const before = 0.1;
  const hit = { id: 1, pad: 0, tick: BAR - 192, length: 60, velocity: 0.8, snap: null };
  const track = { ...newTrack('T', 0, [{ name: 'P', length: BAR, hits: [hit] }]), id: 0, level: 1, kit: STILL };
  const { left } = renderLoop({ track, pattern: track.patterns[0]!, tempo: 120, sampleRate: SR });
  const alone = renderCommands([at(0, { type: 'kit', track: 0, kit: STILL }), at(0, { type: 'padDown', track: 0, pad: 0, velocity: 0.8, heard: 0, id: 1 })], SR, SR); // prettier-ignore
  const ringing = alone.left.subarray(LIMITER_LATENCY + before * SR);
  expect(Math.max(...ringing.subarray(0, 2000).map(Math.abs))).toBeGreaterThan(0.1);
  const apart = Array.from({ length: 20000 }, (_, i) => Math.abs(left[i]! - ringing[i]!));
  expect(Math.max(...apart)).toBeLessThan(0.002); // the room still answers the noise
});

test('an exported loop is exactly as long as the loop', () => {
  const track = demoSet().set.tracks[0]!;
  const { left } = renderLoop({ track, pattern: track.patterns[0]!, tempo: 112, sampleRate: SR });
  expect(left).toHaveLength(Math.round((8 * 60 * SR) / 112));
  // The first kick begins with the file, not late by the limiter's look-ahead.
  expect(Math.max(...left.subarray(0, 60).map(Math.abs))).toBeGreaterThan(0.02);
});
