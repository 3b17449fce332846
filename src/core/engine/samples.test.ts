import { demoSet } from '../document/demo';
import type { Kit } from '../document/kit';
import type { SoundSettings } from '../document/sound';
import { at, type Command, type Instruction } from '../protocol/commands';
import { random } from '../random';
import { prepareSample, type PreparedSample } from '../sample/levels';
import { packScore, unpackScore } from '../score/packScore';
import { readScore } from '../score/readScore';
import { replayScore } from '../score/replayScore';
import { LIMITER_LATENCY } from '../sound/limiter';
import { Engine } from './engine';
import { renderCommands, renderLoop } from './offline';
import { replayLog, type Performed, type Replay } from './replay';
import { SR, STILL } from './rig.testing';

const ID = 'f'.repeat(32);

/** Half a second of noise in one or two channels, so soft that the limiter leaves it alone. */
function recording(channels: number, frames = SR / 2): PreparedSample {
  const next = random(channels);
  const channel = () => Float32Array.from({ length: frames }, () => 0.2 * (next() - 0.5));
  return prepareSample({ id: ID, channels: Array.from({ length: channels }, channel) });
}

/** A kit whose first pad plays the recording. */
function kitOf(settings: SoundSettings = {}, frames = SR / 2): Kit {
  const [first, ...others] = STILL.pads;
  return { ...STILL, pads: [{ ...first!, sound: { ...first!.sound, source: { sample: ID, frames }, settings } }, ...others] }; // prettier-ignore
}

const kit = (settings: SoundSettings = {}, frame = 0, frames?: number): Command => at(frame, { type: 'kit', track: 0, kit: kitOf(settings, frames) }); // prettier-ignore
const comes = (sample: PreparedSample, frame = 0): Command => at(frame, { type: 'sample', sample });
const down = (frame: number, id = 1): Command => at(frame, { type: 'padDown', track: 0, pad: 0, velocity: 1, heard: 0, id }); // prettier-ignore
const up = (frame: number): Command => at(frame, { type: 'padUp', track: 0, pad: 0, heard: 0 });

function heard(commands: readonly Command[], frames: number) {
  const { left, right } = renderCommands(commands, SR, frames + LIMITER_LATENCY);
  return { left: left.subarray(LIMITER_LATENCY), right: right.subarray(LIMITER_LATENCY) };
}
const power = (x: Float32Array) => x.reduce((sum, v) => sum + v * v, 0) / x.length;
const dB = (ratio: number) => 10 * Math.log10(ratio + 1e-30);
/** How far below a sound lies what is left of it when another one is taken off, as loud as fits best. */
function nullOf(sound: Float32Array, other: Float32Array): number {
  const along = sound.reduce((sum, v, i) => sum + v * other[i]!, 0) / (power(other) * other.length);
  return dB(power(sound.map((v, i) => v - along * other[i]!)) / power(sound));
}

test('a sample is heard as it was recorded, each channel on its side; panned, one side is left', () => {
  const sample = recording(2);
  const { left, right } = heard([comes(sample), kit(), down(4800)], SR);
  const own = (channel: number) => Float32Array.from({ length: SR / 2 }, (_, i) => heldOf(sample, channel, i));
  // But for what the mix takes off below 20 Hz.
  expect(nullOf(left.subarray(4800, 4800 + SR / 2), own(0))).toBeLessThan(-30);
  expect(nullOf(right.subarray(4800, 4800 + SR / 2), own(1))).toBeLessThan(-30);
  const panned = heard([comes(sample), kit({ pan: -1 }), down(4800)], SR);
  expect(dB(power(panned.right) / power(panned.left))).toBeLessThan(-60);
});

/** A frame as it was recorded: the first level has one more between every two. */
function heldOf({ levels }: PreparedSample, channel: number, frame: number): number {
  const { channels, every } = levels[0]!;
  const margin = (channels[channel]!.length - SR / 2 / every) / 2;
  return channels[channel]![margin + frame / every]!;
}

test('a pad whose sample has not come is silent; it rings on when the sample goes', () => {
  const sample = recording(1);
  const early = heard([kit(), down(0), comes(sample, 9600), down(24000, 3)], SR);
  expect([power(early.left.subarray(0, 23000)), power(early.left.subarray(24000)) > 1e-4]).toEqual([0, true]);
  const whole = heard([comes(sample), kit(), down(0)], SR / 2);
  const dropped = heard([comes(sample), kit(), down(0), at(6000, { type: 'dropSample', id: ID }), down(30000, 3)], SR);
  expect(nullOf(dropped.left.subarray(0, 20000), whole.left.subarray(0, 20000))).toBeLessThan(-120);
  expect(power(dropped.left.subarray(30000))).toBeLessThan(1e-9);
});

test('while held it ends when it is let go; looped while held it goes on until then', () => {
  const sample = recording(1, 6000);
  const rings = (settings: SoundSettings, from: number) =>
    power(heard([comes(sample), kit(settings, 0, 6000), down(0), up(SR / 2)], SR).left.subarray(from, from + 2000)) > 1e-6; // prettier-ignore
  expect([rings({ plays: 'held' }, 3000), rings({ plays: 'held' }, 12000)]).toEqual([true, false]);
  expect([rings({ plays: 'looped' }, 12000), rings({ plays: 'looped' }, 21000), rings({ plays: 'looped' }, 26000)]).toEqual([true, true, false]); // prettier-ignore
});

test('cut in parts on pads and played in the old order it is what it was, more than 40 dB down', () => {
  const sample = recording(2);
  const cuts = [0, 5003, 9000, 13777, 18001, SR / 2];
  const pads = STILL.pads.map((pad, i) => {
    if (i >= cuts.length - 1) return pad;
    const settings = { start: cuts[i]! / (SR / 2), end: cuts[i + 1]! / (SR / 2) };
    return { ...pad, sound: { ...pad.sound, source: { sample: ID, frames: SR / 2 }, settings } };
  });
  const strokes = cuts.slice(0, -1).map((frame, pad) => at(frame, { type: 'padDown', track: 0, pad, velocity: 1, heard: 0, id: 2 * pad + 1 } as Instruction)); // prettier-ignore
  const parts = heard([comes(sample), at(0, { type: 'kit', track: 0, kit: { ...STILL, pads } }), ...strokes], SR / 2);
  const whole = heard([comes(sample), kit(), down(0)], SR / 2);
  expect(nullOf(parts.left, whole.left)).toBeLessThan(-40);
  expect(nullOf(parts.right, whole.right)).toBeLessThan(-40);
});

test('through a filter, a drive and waves two channels are what each would be alone, at any block size', () => {
  const sample = recording(2);
  const settings: SoundSettings = { pitch: 0.37, cutoff: 3000, resonance: 2, drive: 9, attack: 0.01, decay: -0.5, variation: 0.4, lfos: [{ moves: 'pitch', shape: 'sine', note: '1/8', low: -2, high: 3, start: 'stroke' }] }; // prettier-ignore
  const commands = () => [comes(sample), kit(settings), down(0), down(6000, 3)];
  const [a, b] = [64, 997].map((block) => renderCommands(commands(), SR, SR, block));
  expect(Buffer.compare(Buffer.from(a!.left.buffer), Buffer.from(b!.left.buffer))).toBe(0);
  // The same recording on both sides is heard in the middle.
  const mono = recording(1);
  const channel = Float32Array.from({ length: SR / 2 }, (_, i) => heldOf(mono, 0, i));
  const [alone, both] = [1, 2].map((channels) => prepareSample({ id: ID, channels: new Array<Float32Array>(channels).fill(channel) })); // prettier-ignore
  const [one, two] = [alone!, both!].map((of) => heard([comes(of), kit(settings), down(0)], SR / 2));
  expect(nullOf(two!.left, one!.left)).toBeLessThan(-120);
  expect(nullOf(two!.right, one!.right)).toBeLessThan(-120);
});

test('the engine that gets a sample plays its arrays and copies none', () => {
  const engine = new Engine(SR);
  const sample = recording(1);
  engine.post(comes(sample));
  engine.post(kit());
  engine.post(down(0));
  // It was handed over: what changes in it is heard.
  sample.levels[0]!.channels[0]!.fill(0);
  const [left, right] = [new Float32Array(4800), new Float32Array(4800)];
  engine.process(left, right);
  expect(power(left)).toBe(0);
});

/** The demo, whose first track plays the recording on its first pad; that pad's part is played by hand. */
function performed(samples: readonly PreparedSample[], more: readonly Command[] = []): Performed {
  const { set, stage } = demoSet();
  const track = set.tracks[0]!;
  const engine = new Engine(SR);
  engine.log.keep(true);
  engine.post(at(0, { type: 'snapshot', id: 1, state: null }));
  engine.process(new Float32Array(64), new Float32Array(64));
  const log = [...engine.log.drain(), ...more, down(4800)].sort((a, b) => a.frame - b.frame);
  return { set: { ...set, tracks: { ...set.tracks, 0: { ...track, kit: kitOf() } } }, stage, log, sampleRate: SR, samples }; // prettier-ignore
}

/** How loud it is in each tenth of a second. */
function powers(replay: Replay): number[] {
  return Array.from({ length: 8 }, () => {
    const [left, right] = [new Float32Array(4800), new Float32Array(4800)];
    replay.process(left, right);
    return power(left);
  });
}

test('what was performed is heard again with its samples: those that came while it was played from then on', () => {
  const sample = recording(1);
  const there = powers(replayLog(performed([sample])));
  expect([there[0]! < 1e-9, there[2]! > 1e-4]).toEqual([true, true]);
  expect(powers(replayLog(performed([])))[2]).toBeLessThan(1e-9);
  // It came after the stroke, as the log says: then, too, the stroke was silent.
  const told = { ...sample, levels: [] };
  const late = performed([sample], [at(9600, { type: 'sample', sample: told })]);
  expect(powers(replayLog(late))[2]).toBeLessThan(1e-9);
});

test('a score is heard with the samples of its kits, and crosses to the page without them', () => {
  const sample = recording(1);
  const score = readScore(performed([sample]), { from: 100, to: 48000 });
  expect(score.samples).toEqual([sample]);
  const loudest = Math.max(...powers(replayScore(score, SR, 0, 0)));
  expect(loudest).toBeGreaterThan(1e-4);
  expect(unpackScore(packScore(score)).samples).toBeUndefined();
});

test('a loop is rendered with its samples', () => {
  const { set } = demoSet();
  const track = { ...set.tracks[0]!, kit: kitOf() };
  const loop = { track, pattern: track.patterns[0]!, tempo: 112, sampleRate: SR };
  const [without, with_] = [[], [recording(1)]].map((samples) => power(renderLoop({ ...loop, samples }).left));
  expect(with_).toBeGreaterThan(without! * 1.0001);
});
