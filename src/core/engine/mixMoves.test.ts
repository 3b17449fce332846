import { FIRST_ECHO, FIRST_ROOM, WHOLE_CHANNEL, type MixControl } from '../document/mix';
import { moveTable, movedKey, movedRange, type MovedInMix } from '../document/moves';
import { ECHO_TIME_NAMES, RETURN_CONTROLS, type MovedReturn } from '../document/returns';
import type { Instruction } from '../protocol/commands';
import { echoInstruction } from '../protocol/mixInstructions';
import { BAR, hits, padOf, pattern, PLAY, Rig, SR, STILL } from './rig.testing';

const HAT = padOf('closedHat');
const KIT: Instruction = { type: 'kit', track: 0, kit: STILL };
const sixteenths = (track = 0) =>
  pattern({ track, hits: hits(...Array.from({ length: 16 }, (_, i): [number, number, number] => [i * 240, HAT, 2 + i])) }); // prettier-ignore
const moves = (track: number, ...courses: [moved: MovedInMix, ...points: number[]][]): Instruction => ({
  type: 'moves',
  track,
  slot: 0,
  revision: 0,
  points: Float64Array.from(courses.flatMap(([moved, ...points]) => [moveTable(moved), points.length / 2, ...points])),
});
const channel = (of: number, control: MixControl, value: number): Instruction => ({ type: 'channel', channel: of, control, value }); // prettier-ignore
const ride = (of: number, control: MixControl, value: number): Instruction => ({ type: 'ride', channel: of, control, value }); // prettier-ignore
/** Energy of a second that nobody hears: the sixteenths have 0.1 and more. */
const NOTHING = 1e-5;
const FILTER: MovedInMix = { on: 'track', control: 'filter' };

/** Both sides of what is played up to a frame, by a rig that was told all of that. */
function heard(frames: number, told: readonly Instruction[], block = 128): [Float32Array, Float32Array] {
  const rig = new Rig(block).tell(KIT, ...told, PLAY);
  return more(rig, frames);
}

function more(rig: Rig, frames: number): [Float32Array, Float32Array] {
  const out: [Float32Array, Float32Array] = [new Float32Array(frames), new Float32Array(frames)];
  rig.engine.process(out[0], out[1]);
  return out;
}

const energy = (sound: Float32Array, from = 0, to = sound.length) => sound.subarray(from, to).reduce((sum, x) => sum + x * x, 0); // prettier-ignore

test('a course of one value is heard as that setting is, from its first bar on', () => {
  const set = heard(SR, [sixteenths(), channel(0, 'filter', 0.6), channel(0, 'pan', -1)]);
  const moved = heard(SR, [sixteenths(), moves(0, [FILTER, 0, 0.6], [{ on: 'track', control: 'pan' }, 0, -1])]);
  for (const side of [0, 1] as const) {
    const [a, b] = [energy(set[side], 2000), energy(moved[side], 2000)];
    expect(Math.abs(a - b)).toBeLessThanOrEqual(1e-4 * energy(set[0]));
  }
});

test('a level that goes to nothing over a bar goes evenly, and is back with the next one', () => {
  const [left] = heard(4 * SR, [sixteenths(), moves(0, [{ on: 'track', control: 'level' }, 0, 1, BAR, 0])]);
  const [plain] = heard(4 * SR, [sixteenths()]);
  // Amplitude of each stroke against what it is without the Move: the line's value where it sounds.
  for (let step = 1; step < 16; step++) {
    const from = Math.round((step * SR) / 8) + 400;
    const ratio = Math.sqrt(energy(left, from, from + 3000) / energy(plain, from, from + 3000));
    expect(Math.abs(ratio - (1 - step / 16))).toBeLessThan(0.05);
  }
  expect(energy(left, 2 * SR, 2.2 * SR)).toBeGreaterThan(0.5 * energy(plain, 2 * SR, 2.2 * SR));
});

test('a setting that is turned meanwhile waits until the Move is gone; the stopped song is as it is set', () => {
  const rig = new Rig().tell(KIT, sixteenths(), moves(0, [{ on: 'track', control: 'level' }, 0, 0]), PLAY);
  // The level is a ramp, and what comes through at first rings in the room.
  more(rig, SR);
  expect(energy(more(rig, SR)[0])).toBeLessThan(NOTHING);
  rig.tell({ type: 'trackLevel', track: 0, level: 0.5 });
  expect(energy(more(rig, SR)[0])).toBeLessThan(NOTHING);
  rig.tell({ type: 'moves', track: 0, slot: 0, revision: 0, points: new Float64Array() });
  const after = energy(more(rig, SR)[0], 2000);
  const half = energy(heard(SR, [sixteenths(), { type: 'trackLevel', track: 0, level: 0.5 }])[0], 2000);
  expect(after / half).toBeGreaterThan(0.8);
  expect(after / half).toBeLessThan(1.25);
  rig.tell(moves(0, [{ on: 'track', control: 'level' }, 0, 0]));
  more(rig, SR);
  rig.tell({ type: 'stop' }, { type: 'padDown', track: 0, pad: HAT, velocity: 1, heard: 0, id: 101 });
  more(rig, 400);
  expect(energy(more(rig, 2000)[0])).toBeGreaterThan(0);
});

test('a hand has a control until it lets go, and then the Move has it again', () => {
  const rig = new Rig().tell(KIT, sixteenths(), moves(0, [{ on: 'whole', control: 'level' }, 0, 0]), PLAY);
  more(rig, SR / 2);
  rig.tell(ride(WHOLE_CHANNEL, 'level', 1));
  expect(energy(more(rig, SR)[0])).toBeGreaterThan(0.01);
  rig.tell(ride(WHOLE_CHANNEL, 'level', NaN));
  more(rig, 2000);
  expect(energy(more(rig, SR)[0])).toBeLessThan(NOTHING);
});

test('of two patterns that move the whole mix the later track’s has it; a group is moved by what goes to it, and by nothing else', () => {
  const second: Instruction[] = [
    { type: 'kit', track: 1, kit: STILL },
    sixteenths(1),
    { type: 'launch', track: 1, slot: 0, on: 0, inPlace: false },
  ];
  const level = { on: 'whole', control: 'level' } as const;
  expect(energy(heard(SR, [sixteenths(), ...second, moves(0, [level, 0, 1]), moves(1, [level, 0, 0])])[0], 2000)).toBeLessThan(NOTHING); // prettier-ignore
  expect(energy(heard(SR, [sixteenths(), ...second, moves(0, [level, 0, 0]), moves(1, [level, 0, 1])])[0], 2000)).toBeGreaterThan(0.01); // prettier-ignore
  const ofGroup = moves(1, [{ on: 'group', control: 'level' }, 0, 0]);
  const alone = energy(heard(SR, [sixteenths(), ...second, ofGroup])[0], 2000);
  const inGroup = energy(heard(SR, [sixteenths(), ...second, ofGroup, { type: 'goesTo', channel: 1, group: 2 }])[0], 2000); // prettier-ignore
  expect(alone / inGroup).toBeGreaterThan(2);
  const wholeGroup = [0, 1].map((track): Instruction => ({ type: 'goesTo', channel: track, group: 2 }));
  expect(energy(heard(SR, [sixteenths(), ...second, ofGroup, ...wholeGroup])[0], SR * 0.8)).toBeLessThan(NOTHING);
});

test('swept or stepped by a Move, nothing clicks: no difference from sample to sample 6 dB above the sound’s own', () => {
  // A note that is held shows every step.
  const notes = Float64Array.from({ length: 16 }, (_, pad) => 45 + pad);
  const told: Instruction[] = [
    { type: 'notes', track: 0, layout: { voice: 'organ', notes, octave: 0 } },
    pattern({ hits: hits([0, 3, 2, { length: BAR - 100 }]) }),
  ];
  const steepest = (sound: Float32Array, from: number, to: number) => {
    let most = 0;
    for (let i = from; i < to; i++) most = Math.max(most, Math.abs(sound[i]! - sound[i - 1]!));
    return most;
  };
  const own = steepest(heard(1.8 * SR, told)[0], 0.2 * SR, 1.8 * SR);
  for (const [control, one, other] of [
    ['level', 1, 0],
    ['pan', -1, 1],
    ['filter', 0, -1],
    ['filter', 0, 1],
    ['low', 0, -18],
    ['high', 0, 6],
  ] as const) {
    // prettier-ignore
    const [left] = heard(1.8 * SR, [...told, moves(0, [{ on: 'track', control }, ...sweptAndStepped(one, other)])]);
    expect([control, steepest(left, 0.2 * SR, 1.8 * SR) < 2 * own]).toEqual([control, true]);
  }
  // The echo and the room, so loud that they are most of what is heard.
  const sent: Instruction[] = [...told, channel(0, 'room', 1), channel(0, 'echo', 1)];
  const answered = steepest(heard(1.8 * SR, sent)[0], 0.2 * SR, 1.8 * SR);
  for (const moved of RETURN_CONTROLS) {
    const { min, max } = movedRange(moved);
    const [left] = heard(1.8 * SR, [...sent, moves(0, [moved, ...sweptAndStepped(min, max)])]);
    expect([movedKey(moved), steepest(left, 0.2 * SR, 1.8 * SR) < 2 * answered]).toEqual([movedKey(moved), true]);
  }
});

/** A course over not quite a bar. */
function sweptAndStepped(one: number, other: number): number[] {
  return [0, one, 960, one, 960, other, 1440, other, 1460, one, 2400, one, 3000, other];
}

describe('the echo and the room', () => {
  const SENT = [sixteenths(), channel(0, 'room', 0.5), channel(0, 'echo', 0.5)];
  /** Not what it is by itself, nor at an end. */
  const other = (moved: MovedReturn) => {
    const { min, max, stepped } = movedRange(moved);
    return stepped ? 2 : min + 0.7 * (max - min);
  };
  const set = (moved: MovedReturn, value: number): Instruction => {
    if (moved.on === 'room') return { type: 'room', ...FIRST_ROOM, [moved.control]: value };
    const time = moved.control === 'time' ? ECHO_TIME_NAMES[value]! : FIRST_ECHO.time;
    const shares = moved.control === 'time' ? {} : { [moved.control]: value };
    return echoInstruction({ ...FIRST_ECHO, ...shares, time });
  };
  const rideReturn = (moved: MovedReturn, value: number): Instruction => ({ type: 'rideReturn', ...moved, value });

  test.each(RETURN_CONTROLS)('$on $control: moved to a value from the first bar on they are, to the sample, as they are when it is set', (moved) => {
    const value = other(moved);
    const asSet = heard(2 * SR, [...SENT, set(moved, value)]);
    const asMoved = heard(2 * SR, [...SENT, moves(0, [moved, 0, value])]);
    const plain = heard(2 * SR, SENT);
    for (const side of [0, 1] as const) expect(asMoved[side].findIndex((x, i) => x !== asSet[side][i])).toBe(-1);
    // And that is something else than without.
    expect(asMoved[0].some((x, i) => Math.abs(x - plain[0][i]!) > 1e-3)).toBe(true);
  }); // prettier-ignore

  test('a hand has them until it lets go; what is set meanwhile holds once the Move is gone', () => {
    const moved = { on: 'echo', control: 'feedback' } as const;
    const echoOnly = [sixteenths(), channel(0, 'echo', 1)];
    /** Energy that rings on after the song: much of it where the echo feeds back. */
    const ringing = (...told: Instruction[]) => {
      const rig = new Rig().tell(KIT, ...echoOnly, ...told, PLAY);
      more(rig, SR);
      return (...then: Instruction[]) => {
        rig.tell(...then);
        more(rig, SR / 2);
        rig.tell({ type: 'kit', track: 0, kit: STILL }, pattern({ hits: hits() }));
        more(rig, SR);
        return energy(more(rig, SR)[0]);
      };
    };
    const little = ringing(moves(0, [moved, 0, 0]))();
    const much = ringing(moves(0, [moved, 0, 1]))();
    expect(much).toBeGreaterThan(100 * little);
    expect(ringing(moves(0, [moved, 0, 0]))(rideReturn(moved, 1))).toBeGreaterThan(much / 4);
    expect(ringing(moves(0, [moved, 0, 0]), rideReturn(moved, 1))(rideReturn(moved, NaN))).toBeLessThan(much / 4);
    const noMoves: Instruction = { type: 'moves', track: 0, slot: 0, revision: 0, points: new Float64Array() };
    expect(ringing(moves(0, [moved, 0, 0]))(set(moved, 1), noMoves)).toBeGreaterThan(much / 4);
    expect(ringing(moves(0, [moved, 0, 0]))(set(moved, 1))).toBeLessThan(much / 4);
  });

  test('the time of the echo steps where its Move steps, and by note values alone', () => {
    const time = { on: 'echo', control: 'time' } as const;
    const [EIGHTH, HALF] = [ECHO_TIME_NAMES.indexOf('1/8'), ECHO_TIME_NAMES.indexOf('1/2')];
    const one = pattern({ hits: hits([0, HAT, 2], [1920, HAT, 3]) });
    const told = [one, channel(0, 'echo', 1), set({ on: 'echo', control: 'feedback' }, 0)];
    const plain = heard(2 * SR, [one])[0];
    const [left] = heard(2 * SR, [...told, moves(0, [time, 0, EIGHTH, 1440, HALF])]);
    /** Whether an echo alone begins at a tick (120 BPM: 960 ticks are half a second). */
    const comesAt = (tick: number) => {
      const from = Math.round((tick / 1920) * SR);
      const of = (sound: Float32Array) => energy(sound, from + 300, from + 3000);
      return of(left) > 4 * of(plain) + NOTHING;
    };
    // An eighth after the first stroke, and a half after the second, which is beyond the bar.
    expect([480, 960, 1440, 2400, 2880].map(comesAt)).toEqual([true, false, false, false, false]);
    expect(energy(more(new Rig().tell(KIT, ...told, moves(0, [time, 0, HALF]), PLAY), 2 * SR)[0], SR * 0.27, SR * 0.3)).toBeLessThan(0.01); // prettier-ignore
  });
});
