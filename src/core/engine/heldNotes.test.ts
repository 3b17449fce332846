import { CONTROLS, moveIndex, type Control } from '../document/moves';
import type { SoundSettings } from '../document/sound';
import { presetsOf, TONE_VOICES, type ToneVoice } from '../document/toneVoices';
import { centroidOf, spectrumOf } from '../measure/spectrum';
import type { Instruction } from '../protocol/commands';
import { hits, pattern, PLAY, Rig, SR } from './rig.testing';

const PAD = 5;
const NOTES = Float64Array.from({ length: 16 }, (_, pad) => 48 + pad);
const plays = (voice: ToneVoice, settings: SoundSettings = {}): Instruction => ({ type: 'notes', track: 0, layout: { voice, preset: presetsOf(voice)[0]!, notes: NOTES, octave: 0, settings } }); // prettier-ignore
const DOWN: Instruction = { type: 'padDown', track: 0, pad: PAD, velocity: 0.7, heard: 0, id: 1 };
const turn = (control: Control, value: number): Instruction => ({ type: 'turn', track: 0, pad: PAD, control, value });
const press = (value: number) => turn('pressure', value);

/** What a rig plays up to a frame, of one side. */
function heard(rig: Rig, to: number, block = 128): Float32Array {
  const out = new Float32Array(to - rig.engine.frame);
  for (let i = 0; i < out.length; i += block) {
    const frames = Math.min(block, out.length - i);
    rig.engine.process(rig.left, rig.right, frames);
    out.set(rig.left.subarray(0, frames), i);
  }
  return out;
}

const energy = (sound: Float32Array, from: number, to: number) => sound.subarray(from, to).reduce((sum, x) => sum + x * x, 0); // prettier-ignore
/** Highest difference from one sample to the next. */
const steepest = (sound: Float32Array, from: number, to: number) => {
  let most = 0;
  for (let i = from + 1; i < to; i++) most = Math.max(most, Math.abs(sound[i]! - sound[i - 1]!));
  return most;
};

test.each(TONE_VOICES)(
  '%s: a key that is pressed sounds more, without a click, and as before when it is let be',
  (voice) => {
    const still = heard(new Rig().tell(plays(voice), DOWN), SR);
    const rig = new Rig().tell(plays(voice), DOWN);
    const parts = [heard(rig, SR / 4), heard(rig.tell(press(1)), (SR * 3) / 4), heard(rig.tell(press(NaN)), SR)];
    const pressed = Float32Array.from(parts.flatMap((part) => [...part]));
    expect(pressed.subarray(0, SR / 4)).toEqual(still.subarray(0, SR / 4));
    const [from, to] = [SR * 0.35, SR * 0.75];
    const more = 10 * Math.log10(energy(pressed, from, to) / energy(still, from, to));
    expect(more).toBeGreaterThan(1);
    expect(more).toBeLessThan(12);
    // At the two moments nothing is steeper than while it is pressed, by more than 6 dB.
    const own = steepest(pressed, from, to);
    expect(steepest(pressed, SR / 4 - 10, SR / 4 + 4000)).toBeLessThan(2 * own);
    expect(steepest(pressed, (SR * 3) / 4 - 10, (SR * 3) / 4 + 4000)).toBeLessThan(2 * own);
  },
);

/** Where the middle of its spectrum lies, Hz. It does not end there: a window (of von Hann) hides that. */
function brightness(sound: Float32Array): number {
  const hidden = sound.map((x, i) => x * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / sound.length)));
  return centroidOf(spectrumOf(hidden, SR));
}

/** Energy of the differences from sample to sample, which rise by 6 dB an octave. */
function highs(sound: Float32Array, from: number, to: number): number {
  let sum = 0;
  for (let i = from + 1; i < to; i++) sum += (sound[i]! - sound[i - 1]!) ** 2;
  return sum;
}

test.each(TONE_VOICES)('%s: slid to the right a note that sounds is brighter, to the left duller, and no click comes', (voice) => {
  const slid = (value: number, own?: number) => {
    const rig = new Rig().tell(plays(voice, own === undefined ? {} : { bright: own }), DOWN);
    const parts = [heard(rig, SR / 16), heard(rig.tell(turn('bright', value)), SR / 4), heard(rig.tell(turn('bright', NaN)), SR / 2)]; // prettier-ignore
    return Float32Array.from(parts.flatMap((part) => [...part]));
  };
  const [from, to] = [Math.round(SR / 16 + SR * 0.05), SR / 4];
  const [dull, still, bright] = [slid(-1), slid(NaN), slid(1)] as const;
  expect(bright.subarray(0, SR / 16)).toEqual(still.subarray(0, SR / 16));
  expect(brightness(bright.subarray(from, to))).toBeGreaterThan(1.001 * brightness(still.subarray(from, to)));
  // What is struck beside it, as a breath, stays: of the sound as a whole less is left above.
  expect(highs(dull, from, to)).toBeLessThan(0.999 * highs(still, from, to));
  for (const sound of [dull, bright]) {
    const own = Math.max(steepest(sound, 0, SR / 4), steepest(still, 0, SR / 2));
    for (const at of [SR / 16, SR / 4]) expect(steepest(sound, at - 10, at + 4000)).toBeLessThan(2 * own);
  }
  // No further than its strip goes, from where that stands.
  expect(slid(1, 1)).toEqual(slid(NaN, 1));
}); // prettier-ignore

test('a note that begins slid is as bright as one whose strip stands there', () => {
  for (const voice of TONE_VOICES) {
    const slid = heard(new Rig().tell(plays(voice), turn('bright', 0.5), DOWN), SR / 2);
    const set = heard(new Rig().tell(plays(voice, { bright: 0.5 }), DOWN), SR / 2);
    expect(slid.findIndex((x, i) => Math.abs(x - set[i]!) > 1e-5)).toBe(-1);
  }
});

const table = moveIndex(PAD, CONTROLS.indexOf('pressure'));
const rising = (): Instruction[] => [
  plays('pad'),
  pattern({ hits: hits([0, PAD, 2, { length: 3800 }]) }),
  { type: 'moves', track: 0, slot: 0, revision: 0, points: new Float64Array([table, 3, 0, 0, 1920, 0, 3000, 1]) },
];

test('a Move presses a note while it sounds, the same at any block size; a hand has it until it lets go', () => {
  const play = (block: number, ...hand: Instruction[]) => heard(new Rig(block).tell(...rising(), ...hand, PLAY), 2 * SR, block); // prettier-ignore
  const moved = play(128);
  expect([...play(37)]).toEqual([...moved]);
  expect([...play(500)]).toEqual([...moved]);
  const held = play(128, press(0));
  const [early, late] = [[SR * 0.5, SR * 0.95] as const, [SR * 1.55, SR * 1.9] as const];
  expect(energy(moved, ...early)).toBeCloseTo(energy(held, ...early), 6);
  expect(10 * Math.log10(energy(moved, ...late) / energy(held, ...late))).toBeGreaterThan(1.5);
});

test('who skims is told of each pressure that a key comes to, and of nothing while it stays', () => {
  const rig = new Rig().tell(...rising(), PLAY);
  rig.engine.skim(SR);
  const before = rig.events.length;
  rig.runTo(SR + 1);
  expect(rig.events.slice(before).filter(({ kind }) => kind === 'held')).toEqual([]);
  rig.engine.skim(SR / 2);
  rig.runTo(rig.engine.frame + 1);
  const told = rig.events.flatMap((event) => (event.kind === 'held' ? [event.value] : []));
  expect(told.length).toBeGreaterThan(80);
  expect(told.every((pressure, i) => i === 0 || pressure > told[i - 1]!)).toBe(true);
  // Tick 2880 after a second and a half: 960 of the 1,080 from 1920 to 3000 are gone.
  expect(told.at(-1)).toBeCloseTo(960 / 1080, 1);
});
