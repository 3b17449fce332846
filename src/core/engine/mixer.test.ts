import { AS_IT_IS } from '../launch/launchState';
import { FIRST_GROUP_CHANNEL, WHOLE_CHANNEL, type MixControl } from '../document/mix';
import { Weighting } from '../measure/weighting';
import { at, type Command, type Instruction } from '../protocol/commands';
import { CEILING } from '../sound/limiter';
import { renderCommands } from './offline';
import { padOf, Rig, SR, STILL } from './rig.testing';

test('never exceeds the ceiling, and is limited only when it must be', () => {
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
  expect(CEILING).toBeLessThan(10 ** (-1 / 20));
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

describe('channels', () => {
  const kick = padOf('kick');
  const strike = (frame: number, track: number, pad: number, id: number) =>
    at(frame, { type: 'padDown', track, pad, velocity: 1, heard: 0, id });
  const kits = [0, 1, 2].map((track) => at(0, { type: 'kit', track, kit: STILL }));
  const strokes = [
    strike(1000, 0, kick, 1),
    strike(9000, 1, padOf('snare'), 3),
    strike(15000, 2, padOf('closedHat'), 5),
  ];
  const control = (channel: number, name: MixControl, value: number, frame = 0) =>
    at(frame, { type: 'channel', channel, control: name, value });
  const heard = (commands: readonly Command[], frames = SR) => renderCommands([...kits, ...commands, ...strokes], SR, frames); // prettier-ignore
  const energy = (samples: Float32Array, from = 0, to = samples.length) => samples.subarray(from, to).reduce((sum, x) => sum + x * x, 0); // prettier-ignore

  test('tracks go through their groups, and those through one more at most; with nothing set it is as without any', () => {
    const plain = heard([]);
    const grouped = heard([
      at(0, { type: 'goesTo', channel: 0, group: 1 }),
      at(0, { type: 'goesTo', channel: 1, group: 0 }),
      at(0, { type: 'goesTo', channel: FIRST_GROUP_CHANNEL, group: 1 }),
    ]);
    let worst = 0;
    plain.left.forEach((x, i) => (worst = Math.max(worst, Math.abs(x - grouped.left[i]!))));
    // The order of the additions is another one.
    expect(worst).toBeLessThan(1e-7);
    const routes = [at(0, { type: 'goesTo', channel: 0, group: 1 }), at(0, { type: 'goesTo', channel: 1, group: 0 }), at(0, { type: 'goesTo', channel: FIRST_GROUP_CHANNEL, group: 1 })]; // prettier-ignore
    const inner = heard([...routes, control(FIRST_GROUP_CHANNEL, 'level', 0)]);
    expect(energy(inner.left, 9000 + 500, 15000)).toBeLessThan(0.1 * energy(plain.left, 9000 + 500, 15000));
    const outer = heard([...routes, control(FIRST_GROUP_CHANNEL + 1, 'level', 0)]);
    expect(energy(outer.left, 500, 15000)).toBe(0);
    expect(energy(outer.left, 15000)).toBeGreaterThan(0);
  });

  test('a pad that goes to a group of its own passes by its track’s channel, and is as loud as the track is', () => {
    const apart = at(0, { type: 'padGoesTo', track: 0, pad: kick, group: 2 });
    const hat = strike(5000, 0, padOf('closedHat'), 7);
    const plain = heard([hat]);
    const worst = (other: Float32Array, from = 0, to = SR) => {
      let most = 0;
      for (let i = from; i < to; i++) most = Math.max(most, Math.abs(plain.left[i]! - other[i]!));
      return most;
    };
    expect(worst(heard([apart, hat]).left)).toBeLessThan(1e-7);
    // The track's filter takes the hat alone, the group's level the kick alone.
    const filtered = heard([apart, hat, control(0, 'filter', -0.9)]).left;
    expect(worst(filtered, 0, 4900)).toBeLessThan(1e-7);
    expect(worst(filtered, 5000, 9000)).toBeGreaterThan(0.01);
    const without = heard([apart, hat, control(FIRST_GROUP_CHANNEL + 2, 'level', 0)]).left;
    expect(energy(without, 0, 5000)).toBe(0);
    expect(energy(without, 5000, 9000)).toBeGreaterThan(0);
    // The track's level is that of both, and so are its mutes, however far the ramp has come.
    const level = (frame: number, value: number) => at(frame, { type: 'trackLevel', track: 0, level: value });
    const turned = [level(1100, 0.3), level(1350, 0.9)];
    const [together, parted] = [heard([hat, ...turned]), heard([apart, hat, ...turned])];
    parted.left.forEach((x, i) => expect(Math.abs(x - together.left[i]!)).toBeLessThan(1e-7));
    const muted = at(0, { type: 'muteSolo', track: 0, mute: 1, solo: AS_IT_IS, on: 0 });
    expect(energy(heard([apart, hat, muted]).left, 1000, 9000)).toBe(0);
    // Taken back it goes with the track again; so it does when the track is another one.
    const back = at(0, { type: 'padGoesTo', track: 0, pad: kick, group: -1 });
    expect(worst(heard([apart, back, hat, control(FIRST_GROUP_CHANNEL + 2, 'level', 0)]).left)).toBeLessThan(1e-7);
  });

  test('one channel changes its own track alone, and the whole mix all of it', () => {
    const plain = heard([]);
    const { left } = heard([control(1, 'filter', -0.8)]);
    expect(left.subarray(0, 9000)).toEqual(plain.left.subarray(0, 9000));
    expect(energy(left, 9000, 15000)).toBeLessThan(0.7 * energy(plain.left, 9000, 15000));
    expect(energy(heard([control(WHOLE_CHANNEL, 'level', 0.5)]).left)).toBeLessThan(0.3 * energy(plain.left));
    const panned = heard([control(0, 'pan', -1), control(1, 'pan', 1)]);
    // The room answers from everywhere.
    expect(energy(panned.right, 1000, 3000)).toBeLessThan(0.02 * energy(panned.left, 1000, 3000));
  });

  test('what is sent comes back after the echo’s time, which follows the tempo, and fades with the song', () => {
    const told = (frame: number): Command[] => [
      at(frame, { type: 'echo', ticks: 960, ms: 0, feedback: 0, tone: 1, width: 1 }),
      at(0, { type: 'tempo', bpm: 120 }),
      control(0, 'echo', 1),
    ];
    const plain = heard([], 60000);
    const { left, right } = heard(told(0), 60000);
    const difference = left.map((x, i) => x - plain.left[i]!);
    // 0.5 s at 120 BPM, on the left; the limiter tells of everything a little later.
    expect(difference.findIndex((x) => Math.abs(x) > 1e-4)).toBeGreaterThanOrEqual(24000 + 1000);
    expect(difference.findIndex((x) => Math.abs(x) > 1e-3)).toBeLessThan(24000 + 1000 + 200);
    expect(energy(right.map((x, i) => x - plain.right[i]!), 24000, 30000)).toBeLessThan(0.01 * energy(difference, 24000, 30000)); // prettier-ignore
    expect(energy(heard([...told(0), at(900, { type: 'tempo', bpm: 240 })], 60000).left.map((x, i) => x - plain.left[i]!), 13100, 20000)).toBeGreaterThan(0); // prettier-ignore
  });
});

test('meters tell what sounds within half a dB, and nothing while nobody looks', () => {
  const rig = new Rig(SR).tell({ type: 'kit', track: 0, kit: STILL }, { type: 'channel', channel: 0, control: 'low', value: 3 }); // prettier-ignore
  const strike: Instruction = { type: 'padDown', track: 0, pad: padOf('kick'), velocity: 0.5, heard: 0, id: 1 };
  rig.tell(strike).runTo(SR);
  expect(rig.of('meter')).toEqual([]);
  rig.tell({ type: 'meters', on: true }, strike).runTo(2 * SR);
  const of = (channel: number) => rig.of('meter').filter((event) => event.channel === channel);
  const loudest = Math.max(...rig.left.map(Math.abs), ...rig.right.map(Math.abs));
  const highest = (channel: number) => 20 * Math.log10(Math.max(...of(channel).map(({ peak }) => peak)) / loudest);
  expect(Math.abs(highest(WHOLE_CHANNEL))).toBeLessThan(0.01);
  // Without the room, which the kick sends a little to.
  expect(Math.abs(highest(0))).toBeLessThan(0.5);
  expect(of(1)).toEqual([]);
  // As loud as BS.1770 has it, over all that was told.
  const frames = 768 * of(WHOLE_CHANNEL).length;
  const power = (side: Float32Array) => new Weighting(SR).energy(side, 0, frames) / frames;
  const told = of(WHOLE_CHANNEL).reduce((sum, event) => sum + event.power, 0) / of(WHOLE_CHANNEL).length;
  expect(Math.abs(10 * Math.log10(told / (power(rig.left) + power(rig.right))))).toBeLessThan(0.05);
});
