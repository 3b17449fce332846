import fc from 'fast-check';
import { parseMidi, writeMidi } from 'midi-file';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { newSet } from '../document/create';
import { lanesOf } from '../document/lanes';
import type { Hit } from '../document/hit';
import { flatPoints, type Move, type MovePoint } from '../document/moves';
import type { Pattern } from '../document/pattern';
import type { Tones } from '../document/tones';
import { newTrack } from '../document/track';
import { moveValue } from '../sequence/moveValue';
import { pressMoves, pressureCourse, pressureSteps } from './keyPressure';
import { writePatternMidi } from './midiFile';
import { firstChoices, setOfSong } from './midiSet';
import { readMidi, type MidiSong } from './readMidi';

const TONES: Tones = { voice: 'pad', root: 0, scale: 'major', chromatic: false, octave: 0 };
const PAD = 2;
const NOTE = lanesOf({ ...newTrack('Lamps', 0, []), tones: TONES })[PAD]!.note;
const hit = (tick: number, length: number, id: number, pad = PAD): Hit => ({ id, pad, tick, length, velocity: 0.8, snap: null }); // prettier-ignore
const pressed = (points: MovePoint[], ...hits: Hit[]): Pattern => {
  const moves: Move[] = [{ pad: PAD, control: 'pressure', points }];
  return { name: 'Glow', length: 3840, hits, moves };
};
function midi(pattern: Pattern, tones: Tones | null = TONES): Uint8Array<ArrayBuffer> {
  const track = { ...newTrack('Lamps', 0, [pattern]), ...(tones && { tones }) };
  return writePatternMidi(newSet('Rink Night', 112, [track]), track, pattern);
}

/** Key pressure as Debian's python3-mido reads it: tick, key, pressure. */
function mido(bytes: Uint8Array): number[][] {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'chaffinch-')), 'file.mid');
  writeFileSync(file, bytes);
  const script = `
import mido, json, sys
out = []
for t in mido.MidiFile(sys.argv[1]).tracks:
    now = 0
    for e in t:
        now += e.time
        if e.type == 'polytouch': out.append([now, e.note, e.value])
print(json.dumps(out))`;
  const { stdout, stderr } = spawnSync('/usr/bin/python3', ['-c', script, file], { encoding: 'utf8' });
  expect(stderr).toBe('');
  return JSON.parse(stdout) as number[][];
}

const read = (bytes: Uint8Array) => readMidi(bytes) as MidiSong;
const brought = (song: MidiSong) => setOfSong(song, { ...firstChoices(song), bars: null }, 'Back').set.tracks[0]!;

test('python3-mido reads the pressure of a note while it sounds, in the steps that MIDI has, and none of what lies between', () => {
  const points = [{ tick: 0, value: 0 }, { tick: 960, value: 0 }, { tick: 1920, value: 1 }, { tick: 3800, value: 1 }]; // prettier-ignore
  const touches = mido(midi(pressed(points, hit(480, 1200, 1), hit(2880, 400, 3))));
  expect(touches.every(([, key]) => key === NOTE)).toBe(true);
  const first = touches.filter(([tick]) => tick! < 1680);
  // It rises while it is held, by one step after the other, up to where it is let go: 720 of 960 ticks after it began.
  expect(first.length).toBeGreaterThan(60);
  for (const [tick, , value] of first) expect(Math.abs(value! - (127 * (tick! - 960)) / 960)).toBeLessThanOrEqual(1.5);
  expect(first.at(-1)![2]! / 127).toBeCloseTo(0.75, 1);
  // The next one begins as it is pressed then, and so it stays.
  expect(touches.slice(first.length)).toEqual([[2880, NOTE, 127]]);
});

test('a pattern that is written and read again is pressed as before, wherever a note sounds', () => {
  const value = fc.integer({ min: 0, max: 127 }).map((step) => step / 127);
  const course = fc.array(fc.record({ tick: fc.integer({ min: 0, max: 3839 }), value }), { minLength: 1, maxLength: 12 })
    .map((points) => points.sort((a, b) => a.tick - b.tick)); // prettier-ignore
  const notes = fc.uniqueArray(fc.integer({ min: 0, max: 7 }), { minLength: 1, maxLength: 5 });
  fc.assert(
    fc.property(course, notes, (points, at) => {
      const hits = at.sort((a, b) => a - b).map((eighth, i) => hit(eighth * 480, 300, 2 * i + 1));
      // In another layout it may lie on another pad.
      const again = brought(read(midi(pressed(points, ...hits)))).patterns[0]!.moves?.[0]?.points ?? [];
      for (const { tick } of hits) {
        for (let now = tick + 20; now < tick + 280; now += 20) {
          const was = moveValue(flatPoints(points), now);
          // Where it jumps, a line between two steps may be beside it: by as much as lies between those of a hand.
          if ([-20, 20].some((by) => Math.abs(moveValue(flatPoints(points), now + by) - was) > 0.1)) continue;
          expect(Math.abs((again.length > 0 ? moveValue(flatPoints(again), now) : 0) - was)).toBeLessThan(0.1);
        }
      }
    }),
    // A jump soon after a step to which a line leads, or after a note begins.
    {
      examples: [
        [
          [
            { tick: 0, value: 0 },
            { tick: 2961, value: 62 / 127 },
            { tick: 2963, value: 6 / 127 },
          ],
          [6],
        ],
        [
          [
            { tick: 34, value: 41 / 127 },
            { tick: 43, value: 119 / 127 },
          ],
          [0],
        ],
      ],
    },
  );
});

test('pressure on a whole channel presses all of its notes; what is said of a drum is left out, and said', () => {
  const events = (channel: number) => [
    { deltaTime: 0, type: 'noteOn', channel, noteNumber: 60, velocity: 90 },
    { deltaTime: 0, type: 'noteOn', channel, noteNumber: 64, velocity: 90 },
    { deltaTime: 240, type: 'channelAftertouch', channel, amount: 127 },
    { deltaTime: 240, type: 'noteOff', channel, noteNumber: 60, velocity: 0 },
    { deltaTime: 0, type: 'noteOff', channel, noteNumber: 64, velocity: 0 },
    { deltaTime: 0, type: 'endOfTrack', meta: true },
  ];
  const file = (channel: number) =>
    Uint8Array.from(writeMidi({ header: { format: 1, numTracks: 1, ticksPerBeat: 960 }, tracks: [events(channel)] } as Parameters<typeof writeMidi>[0])); // prettier-ignore
  const keys = read(file(0));
  expect(keys.leftOut).toEqual([]);
  const [pattern] = brought(keys).patterns;
  const moves = pattern!.moves!.map((move) => ('pad' in move ? [move.pad, move.control, moveValue(flatPoints(move.points), 100), moveValue(flatPoints(move.points), 300)] : [])); // prettier-ignore
  expect(moves).toEqual(pattern!.hits.map(({ pad }) => [pad, 'pressure', 0, 1]).sort((a, b) => Number(a[0]) - Number(b[0]))); // prettier-ignore
  const drums = read(file(9));
  const { set, leftOut } = setOfSong(drums, firstChoices(drums), 'Drums');
  expect(set.tracks[0]!.patterns[0]!.moves).toBeUndefined();
  expect(leftOut).toEqual(['“Drums”: 1 pressure movement: drums know none.']);
});

test('drums are written without pressure, whatever their Moves hold; a key that is never pressed has none', () => {
  const points = [{ tick: 0, value: 1 }];
  const types = (bytes: Uint8Array) => parseMidi(bytes).tracks.flat().map(({ type }) => type); // prettier-ignore
  expect(types(midi(pressed(points, hit(0, 400, 1)), null))).not.toContain('noteAftertouch');
  expect(types(midi(pressed(points, hit(0, 400, 1, PAD + 1))))).not.toContain('noteAftertouch');
  expect(pressureCourse([{ tick: 10, value: 0 }])).toEqual([]);
});

test('a line becomes one step for each that MIDI has, no closer than can be heard', () => {
  const steps = (ticks: number) => pressureSteps([{ tick: 0, value: 0 }, { tick: ticks, value: 1 }], 1); // prettier-ignore
  expect([steps(12700).length, steps(200).length, steps(0).length]).toEqual([128, 21, 2]);
  expect(steps(200).at(-1)).toEqual({ pad: 1, tick: 200, value: 1 });
});

describe('a song that is cut into stretches', () => {
  const NOTES = [{ pad: 1, tick: 0, length: 480 }];
  const of = (moves: Move[]) => moves.map((move) => ('pad' in move ? [move.pad, ...flatPoints(move.points)] : []));

  test('has pressure where the pad’s notes sound, as it stood before: what is left pressed makes no two stretches differ', () => {
    const presses = [{ tick: 0, pad: 1, value: 0.5 }];
    expect(pressMoves([NOTES, [], NOTES, NOTES], presses, 960).map(of)).toEqual([[[1, 0, 0.5]], [], [[1, 0, 0.5]], [[1, 0, 0.5]]]); // prettier-ignore
    // A note that is held over is pressed on.
    const held = [{ pad: 1, tick: 900, length: 480 }];
    expect(pressMoves([held, []], [{ tick: 1000, pad: null, value: 1 }], 960).map(of)).toEqual([[], [[1, 0, 0, 40, 0, 40, 1]]]); // prettier-ignore
  });

  test('of thousands of movements no more points are made than a Move may have, and few are counted of those that come at once', () => {
    const many = Array.from({ length: 20_000 }, (_, i) => ({ tick: i * 12, value: (i * 7919) % 128 / 127 })); // prettier-ignore
    const course = pressureCourse(many);
    expect(course.length).toBeLessThanOrEqual(4096);
    expect(course.at(-1)!.tick).toBe(many.at(-1)!.tick);
    const touch = (deltaTime: number, amount: number) => ({ deltaTime, type: 'channelAftertouch', channel: 0, amount });
    const events = [
      { deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: 60, velocity: 90 },
      ...[touch(0, 10), touch(1, 20), touch(1, 30), touch(20, 30), touch(20, 40)],
      { deltaTime: 20, type: 'noteOff', channel: 0, noteNumber: 60, velocity: 0 },
      { deltaTime: 0, type: 'endOfTrack', meta: true },
    ];
    const file = writeMidi({ header: { format: 1, numTracks: 1, ticksPerBeat: 960 }, tracks: [events] } as Parameters<typeof writeMidi>[0]); // prettier-ignore
    const [part] = read(Uint8Array.from(file)).parts;
    expect(part!.pressures!.map(({ tick, value }) => [tick, Math.round(127 * value)])).toEqual([[0, 10], [2, 30], [42, 40]]); // prettier-ignore
  });
});
