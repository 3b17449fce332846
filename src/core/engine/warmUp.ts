import { POLISHED_FLOOR } from '../document/kits';
import { FIRST_LFO, LFO_SHAPES, LFO_TARGETS } from '../document/lfo';
import type { Sound } from '../document/sound';
import { MAX_TRACKS, PADS } from '../document/limits';
import type { MixControl } from '../document/mix';
import type { ToneSource } from '../document/toneVoices';
import { at, NOW, type Instruction } from '../protocol/commands';
import { prepareSample } from '../sample/levels';
import { HIT, HIT_WIDTH } from '../sequence/hitRows';
import { Engine } from './engine';

/** Rounds that are played at once, each on an engine of its own, and the steps of one. */
const ROUNDS = 2;
const STEPS = 40;
/** Frames of a step. Code becomes fast by being called often, and the same calls cost less with fewer frames to render. */
const FRAMES_AT_ONCE = 32;
const FRAMES = 4;
/**
 * Voices of notes that together use all there is: tables, sines, modulation, both filters, slurs, two channels. Short ones of few waves:
 * what rings on here is work for the audio thread while the app opens.
 */
const VOICES: readonly ToneSource[] = [
  { voice: 'bass', preset: 'rope' },
  { voice: 'keys', preset: 'lantern' },
];
/** Tracks that play meanwhile: drums, and those voices. */
const PLAYING_TRACKS = 1 + VOICES.length;
/** Tracks whose pads are all struck at once: enough for more strokes than there are voices. */
const STRUCK_TRACKS = 5;
/** Pads that are struck in a step. */
const STROKES = 2;

/**
 * Plays everything, unheard, on an engine of its own, so that the code is compiled and the tables are made before the first
 * stroke. To make it costs some 200 to 500 ms of the thread that does.
 *
 * More of it at once would not help: V8 compiles what is called often beside this thread, and while the app opens no core is
 * free for that. So it can be played on, a little at a time, as long as there is nothing to be heard.
 */
export class WarmUp {
  private readonly left = new Float32Array(FRAMES_AT_ONCE);
  private readonly right = new Float32Array(FRAMES_AT_ONCE);
  private engine!: Engine;
  private step = 0;

  /** @param sampleRate frames per second */
  constructor(sampleRate: number) {
    for (let round = 0; round < ROUNDS; round++) {
      this.engine = new Engine(sampleRate);
      this.tell(everything());
      for (let i = 0; i < STEPS; i++) {
        if (i % 10 === 0) this.tell(opening());
        this.play(FRAMES_AT_ONCE);
      }
    }
  }

  /** Plays on for one step: much less than a quantum's work. */
  play(frames = FRAMES): void {
    if (this.step % 5 === 0) this.tell(changes(this.step));
    this.tell(strokes(this.step));
    this.engine.process(this.left, this.right, frames);
    this.engine.events.drain();
    this.step++;
  }

  private tell(instructions: readonly Instruction[]): void {
    for (const instruction of instructions) this.engine.post(at(NOW, instruction));
  }
}

/** A sample in two channels, so short that preparing it takes no time. */
const SAMPLE = { id: '0'.repeat(32), channels: [new Float32Array(200).fill(0.1), new Float32Array(200)] };

/** A set with drums and notes, recording, rolling and repeating, and more strokes at once than there are voices. */
function everything(): Instruction[] {
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
  const notes = Float64Array.from({ length: PADS }, (_, pad) => 40 + pad);
  const tracks = Array.from({ length: PLAYING_TRACKS }, (_, track) => track);
  return [
    { type: 'tempo', bpm: 240 },
    { type: 'sample', sample: prepareSample(SAMPLE) },
    { type: 'metronome', on: true, level: 0.5, sound: 'wood', when: 'always', between: 240 },
    ...VOICES.map((source, i): Instruction => ({
      type: 'notes',
      track: 1 + i,
      layout: { ...source, notes, octave: 0 },
    })),
    ...tracks.flatMap((track): Instruction[] => [
      { type: 'pattern', track, slot: 0, revision: 0, length: 960, seen: 0, hits: hits.slice(), feels: null },
      { type: 'launch', track, slot: 0, on: 0, inPlace: false },
      // So fast that they strike within a few steps.
      ...pads((pad) => ({ type: 'repeatRate', track, pad, ticks: 10 })),
    ]),
    ...mixed(),
    { type: 'record', on: true, session: 0 },
    { type: 'play', startTick: 0, countInTicks: 0 },
    ...Array.from({ length: 2 * STRUCK_TRACKS }, (_, i) =>
      pads((pad) => press(i % STRUCK_TRACKS, pad, 1 + 2 * (i * PADS + pad))),
    ).flat(),
  ];
}

/** A channel with something of everything, which goes through a group to the echo. */
function mixed(): Instruction[] {
  const controls = {
    low: 3,
    bell: -2,
    high: 1,
    ratio: 3,
    drive: 0.4,
    filter: -0.3,
    pan: 0.2,
    room: 0.1,
    echo: 0.2,
  } as const;
  return [
    ...Object.entries(controls).map(([control, value]): Instruction => ({ type: 'channel', channel: 1, control: control as MixControl, value })),
    { type: 'goesTo', channel: 1, group: 0 },
  ]; // prettier-ignore
}

/** What a set of many tracks tells when it is opened. */
function opening(): Instruction[] {
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

/** What is set while hands play. What never changes here V8 takes for a constant, and compiles anew when it does. */
function changes(step: number): Instruction[] {
  return [
    { type: 'noteRepeat', on: step % 50 >= 25, latch: step % 100 >= 75 },
    { type: 'inputQuantize', grid: 240, on: step % 20 >= 10 },
    { type: 'muteSolo', track: 1, mute: step % 15 === 0 ? 1 : 0, solo: 0, on: 0 },
    { type: 'tempo', bpm: 240 + (step % PADS) / 3 },
    { type: 'launch', track: 2, slot: 0, on: 240, inPlace: true },
    { type: 'turn', track: 0, pad: step % PADS, control: 'pitch', value: step % 3 },
    { type: 'padSound', track: 0, pad: step % PADS, sound: shapedSound(step) },
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
function strokes(step: number): Instruction[] {
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

const press = (track: number, pad: number, id: number): Instruction => ({
  type: 'padDown',
  track,
  pad,
  velocity: 0.9,
  heard: NaN,
  id,
});

const pads = (instruction: (pad: number) => Instruction) => Array.from({ length: PADS }, (_, pad) => instruction(pad));
