import { POLISHED_FLOOR } from '../document/kits';
import { FIRST_LFO, LFO_SHAPES, LFO_TARGETS } from '../document/lfo';
import type { Sound } from '../document/sound';
import { MAX_TRACKS, PADS } from '../document/limits';
import { ANY_PAD, FIRST_GROUP_CHANNEL, MIX_RANGES, WHOLE_CHANNEL, type MixControl } from '../document/mix';
import { RETURN_CONTROLS, type MovedReturn } from '../document/returns';
import type { ToneSource } from '../document/toneVoices';
import type { Instruction } from '../protocol/commands';
import { prepareSample } from '../sample/levels';
import { HIT, HIT_WIDTH } from '../sequence/hitRows';

/**
 * Voices of notes that together use all there is: tables, sines, modulation, both filters, slurs, two channels. Short ones of few waves:
 * what rings on here is work for the audio thread while the app opens.
 */
const VOICES: readonly ToneSource[] = [
  { voice: 'bass', preset: 'rope' },
  { voice: 'keys', preset: 'lantern' },
];
/** The last of them is changed for these, in turns: with and without a filter, vibrato, a slow wave, and what is held. */
const OTHER_VOICES: readonly ToneSource[] = [
  { voice: 'keys', preset: 'lamp' },
  { voice: 'lead', preset: 'spark' },
  { voice: 'mallet', preset: 'bottle' },
  { voice: 'keys', preset: 'lantern' },
];
/** Tracks that play meanwhile: drums, and those voices. */
const PLAYING_TRACKS = 1 + VOICES.length;
/** Tracks whose pads are all struck at once: enough for more strokes than there are voices. */
const STRUCK_TRACKS = 5;
/** Pads that are struck in a step. */
const STROKES = 2;

/** Where the controls of the mix are turned to, of which channels, and for how many changes. */
const TURNED = { pan: -0.4, room: 0.2, echo: 0.2, low: 3, bell: -2, high: 1, ratio: 8, makeUp: 24, drive: 0.4, filter: 0.3, duck: 12 }; // prettier-ignore
const TURNED_CONTROLS = Object.keys(TURNED) as (keyof typeof TURNED)[];
const TURNED_CHANNELS = [0, 2, FIRST_GROUP_CHANNEL, FIRST_GROUP_CHANNEL + 1, WHOLE_CHANNEL];
const STAYS_UP = 8;

/** A sample in two channels, so short that preparing it takes no time. */
const SAMPLE = { id: '0'.repeat(32), channels: [new Float32Array(200).fill(0.1), new Float32Array(200)] };

/** A set with drums and notes, recording, rolling and repeating, and more strokes at once than there are voices. */
export function everything(): Instruction[] {
  const hits = new Float64Array(PADS * HIT_WIDTH);
  for (let i = 0; i < PADS; i++) {
    const row = i * HIT_WIDTH;
    hits[row + HIT.TICK] = hits[row + HIT.STRUCK] = i * 60;
    hits[row + HIT.PAD] = i % PADS;
    hits[row + HIT.VELOCITY] = 0.8;
    hits[row + HIT.ID] = i + 1;
    hits[row + HIT.ODDS] = 1;
    hits[row + HIT.LENGTH] = 30;
    hits[row + HIT.STROKES] = i % 4 === 3 ? 3 : 0;
    hits[row + HIT.OVER] = 60;
  }
  const tracks = Array.from({ length: PLAYING_TRACKS }, (_, track) => track);
  return [
    { type: 'tempo', bpm: 240 },
    { type: 'sample', sample: prepareSample(SAMPLE) },
    { type: 'metronome', on: true, level: 0.5, sound: 'wood', when: 'always', between: 240 },
    ...VOICES.map((source, i) => plays(1 + i, source)),
    ...tracks.flatMap((track): Instruction[] => [
      { type: 'pattern', track, slot: 0, revision: 0, length: 960, seen: 0, hits: hits.slice(), feels: null },
      { type: 'launch', track, slot: 0, on: 0, inPlace: false },
      // So fast that they strike within a few steps.
      ...pads((pad) => ({ type: 'repeatRate', track, pad, ticks: 10 })),
    ]),
    ...mix(),
    { type: 'record', on: true, session: 0 },
    { type: 'play', startTick: 0, countInTicks: 0 },
    ...Array.from({ length: 2 * STRUCK_TRACKS }, (_, i) =>
      pads((pad) => press(i % STRUCK_TRACKS, pad, 1 + 2 * (i * PADS + pad))),
    ).flat(),
  ];
}

/** A channel with something of everything, which goes through a group to the echo; one that sleeps until it is struck, and ducks; and some with one thing alone. */
function mix(): Instruction[] {
  const controls = { low: 3, bell: -2, high: 1, ratio: 3, drive: 0.4, filter: -0.3, pan: 0.2, room: 0.1, echo: 0.2 } as const; // prettier-ignore
  return [
    ...Object.entries(controls).map(([control, value]): Instruction => ({ type: 'channel', channel: 1, control: control as MixControl, value })),
    { type: 'goesTo', channel: 1, group: 0 },
    { type: 'duckedBy', channel: 4, track: 0, pad: ANY_PAD },
    { type: 'channel', channel: 4, control: 'duck', value: 6 },
    { type: 'channel', channel: 6, control: 'room', value: 0.1 },
    { type: 'channel', channel: 7, control: 'echo', value: 0.1 },
    { type: 'channel', channel: 8, control: 'low', value: 1 },
    { type: 'meters', on: true },
  ]; // prettier-ignore
}

/** What a set of many tracks tells when it is opened. */
export function opening(): Instruction[] {
  const out: Instruction[] = [];
  for (let track = PLAYING_TRACKS; track < MAX_TRACKS; track++) {
    out.push(
      { type: 'kit', track, kit: POLISHED_FLOOR },
      { type: 'trackLevel', track, level: 0.8 },
      { type: 'heardPads', track, pads: 0xffff },
      { type: 'pattern', track, slot: 0, revision: 0, length: 3840, seen: 0, hits: new Float64Array(0), feels: null },
      { type: 'launch', track, slot: 0, on: 0, inPlace: false },
    );
  }
  return out;
}

/** What is set while hands play, one time after the other. What never changes here V8 takes for a constant, and compiles anew when it does. */
export function changes(change: number): Instruction[] {
  return [
    { type: 'noteRepeat', on: change % 10 >= 5, latch: change % 20 >= 15 },
    { type: 'inputQuantize', grid: 240, on: change % 4 >= 2 },
    { type: 'muteSolo', track: 1, mute: change % 3 === 0 ? 1 : 0, solo: 0, on: 0 },
    { type: 'tempo', bpm: 240 + (change % PADS) / 3 },
    { type: 'launch', track: 2, slot: 0, on: 240, inPlace: true },
    { type: 'turn', track: 0, pad: change % PADS, control: 'pitch', value: change % 3 },
    { type: 'padSound', track: 0, pad: change % PADS, sound: shapedSound(change) },
  ];
}

/**
 * What is set in between: one control after the other of each channel is turned up, and neutral again some changes later, so that each is
 * on alone, and with others; and a track plays notes of another kind.
 */
export function mixChanges(change: number): Instruction[] {
  const turned = (at: number, isUp: boolean): Instruction => {
    const control = TURNED_CONTROLS[at % TURNED_CONTROLS.length]!;
    const value = isUp ? TURNED[control] : MIX_RANGES[control].neutral;
    return { type: 'channel', channel: TURNED_CHANNELS[at % TURNED_CHANNELS.length]!, control, value };
  };
  const { on, control } = RETURN_CONTROLS[change % RETURN_CONTROLS.length]!;
  return [
    plays(VOICES.length, OTHER_VOICES[change % OTHER_VOICES.length]!),
    ...(change >= STAYS_UP ? [turned(change - STAYS_UP, false)] : []),
    turned(change, true),
    { type: 'ride', channel: 0, control: 'level', value: change % 3 === 0 ? NaN : 0.3 + 0.1 * (change % 5) },
    { type: 'rideReturn', ...({ on, control } as MovedReturn), value: change % 2 === 0 ? NaN : 0.5 },
    { type: 'duckedBy', channel: 2, track: 0, pad: change % 2 === 0 ? ANY_PAD : 3 },
    { type: 'goesTo', channel: 0, group: (change % 2) - 1 },
  ];
}

/** Every other one with a filter and a wave, every fourth a sample, whose code is to be fast before it is wanted, too. */
function shapedSound(step: number): Sound {
  const { sound } = POLISHED_FLOOR.pads[step % PADS]!;
  const lfos = [{ ...FIRST_LFO, moves: LFO_TARGETS[step % LFO_TARGETS.length]!, shape: LFO_SHAPES[step % LFO_SHAPES.length]! }]; // prettier-ignore
  if (step % 2 === 0) return sound;
  const source = step % 4 === 1 ? { sample: SAMPLE.id, frames: 200 } : sound.source;
  return { ...sound, source, settings: { ...sound.settings, cutoff: 4000, attack: 0.002, lfos } };
}

/** Some pads are struck; those of the step before are let go, and what was recorded of them is taken out again. */
export function strokes(step: number): Instruction[] {
  const track = step % PLAYING_TRACKS;
  const before = (step + PLAYING_TRACKS - 1) % PLAYING_TRACKS;
  const id = 1001 + 2 * STROKES * step;
  const removed = Float64Array.from({ length: STROKES }, (_, i) => id - 2 * STROKES + 2 * i);
  const out: Instruction[] = [
    { type: 'patternEdit', track: before, slot: 0, revision: 0, removed, hits: new Float64Array(0) },
  ];
  for (let i = 0; i < STROKES; i++) {
    out.push({ type: 'padUp', track: before, pad: padAt(step - 1, i), heard: NaN });
    out.push(press(track, padAt(step, i), id + 2 * i));
  }
  return out;
}

const padAt = (step: number, i: number) => (Math.floor((step + PLAYING_TRACKS) / PLAYING_TRACKS) * STROKES + i) % PADS;

const plays = (track: number, source: ToneSource): Instruction => ({
  type: 'notes',
  track,
  layout: { ...source, notes: Float64Array.from({ length: PADS }, (_, pad) => 40 + pad), octave: 0 },
});

const press = (track: number, pad: number, id: number): Instruction => ({
  type: 'padDown',
  track,
  pad,
  velocity: 0.9,
  heard: NaN,
  id,
});

const pads = (instruction: (pad: number) => Instruction) => Array.from({ length: PADS }, (_, pad) => instruction(pad));
