import { SOUND_NAMES } from '../document/kits';
import { TONE_VOICES } from '../document/tones';
import { at, NOW, type Instruction } from '../protocol/commands';
import { HIT, HIT_WIDTH } from '../sequence/hitRows';
import { Engine } from './engine';
import { MAX_TRACKS, PADS } from '../document/limits';

/** Quanta that are rendered to warm up, in two rounds: after some hundreds every path is compiled (measured: 300). */
const QUANTA = 150;
const ROUNDS = 2;
/** Tracks that play meanwhile: drums, and each voice of notes. */
const PLAYING_TRACKS = 1 + TONE_VOICES.length;

/**
 * Plays everything once, unheard, on an engine of its own, so that the code is compiled and the tables are made before the
 * first stroke. Costs 100 to 400 ms of the thread that calls it; more rounds did not make what comes after it any faster.
 */
export function warmUp(sampleRate: number): void {
  const left = new Float32Array(128);
  const right = new Float32Array(128);
  for (let round = 0; round < ROUNDS; round++) {
    const engine = new Engine(sampleRate);
    for (const instruction of everything()) engine.post(at(NOW, instruction));
    for (let quantum = 0; quantum < QUANTA; quantum++) {
      if (quantum % 30 === 0) for (const instruction of opening()) engine.post(at(NOW, instruction));
      if (quantum % 5 === 0) for (const instruction of playing(quantum)) engine.post(at(NOW, instruction));
      engine.process(left, right);
      engine.events.drain();
    }
  }
}

/** A set with drums and notes, recording, rolling and repeating. */
function everything(): Instruction[] {
  const hits = new Float64Array(SOUND_NAMES.length * HIT_WIDTH);
  for (let i = 0; i < SOUND_NAMES.length; i++) {
    const at = i * HIT_WIDTH;
    hits[at + HIT.TICK] = hits[at + HIT.STRUCK] = i * 60;
    hits[at + HIT.PAD] = i % PADS;
    hits[at + HIT.VELOCITY] = 0.8;
    hits[at + HIT.ID] = i + 1;
    hits[at + HIT.ODDS] = 1;
    hits[at + HIT.LENGTH] = 30;
    hits[at + HIT.STROKES] = i % 4 === 3 ? 3 : 0;
    hits[at + HIT.OVER] = 60;
  }
  const notes = Float64Array.from({ length: PADS }, (_, pad) => 40 + pad);
  const layouts = TONE_VOICES.map((voice) => ({ voice, notes, octave: 0 }));
  return [
    { type: 'tempo', bpm: 240 },
    { type: 'metronome', on: true, level: 0.5, sound: 'wood', when: 'always', between: 240 },
    ...layouts.map((layout, i): Instruction => ({ type: 'notes', track: 1 + i, layout })),
    ...[0, 1, 2].flatMap((track): Instruction[] => [
      { type: 'pattern', track, slot: 0, revision: 0, length: 960, seen: 0, hits: hits.slice(), feels: null },
      { type: 'launch', track, slot: 0, on: 0, inPlace: false },
    ]),
    { type: 'record', on: true, session: 0 },
    { type: 'play', startTick: 0, countInTicks: 0 },
  ];
}

/** What a set of many tracks tells when it is opened. */
function opening(): Instruction[] {
  const out: Instruction[] = [];
  for (let track = PLAYING_TRACKS; track < MAX_TRACKS; track++) {
    out.push(
      { type: 'kit', track, kit: 'polished-floor' },
      { type: 'trackLevel', track, level: 0.8 },
      { type: 'heardPads', track, pads: 0xffff },
      { type: 'pattern', track, slot: 0, revision: 0, length: 3840, seen: 0, hits: new Float64Array(0), feels: null },
      { type: 'launch', track, slot: 0, on: 0, inPlace: false },
    );
  }
  return out;
}

/** What hands do, and the page's answers. */
function playing(quantum: number): Instruction[] {
  const pad = quantum % PADS;
  const id = 1001 + 2 * quantum;
  return [
    { type: 'noteRepeat', on: quantum % 50 >= 25, latch: quantum >= QUANTA / 2 },
    { type: 'padDown', track: quantum % PLAYING_TRACKS, pad, velocity: 0.9, heard: NaN, id },
    { type: 'padUp', track: (quantum + 2) % PLAYING_TRACKS, pad: (quantum + 11) % PADS, heard: NaN },
    { type: 'tempo', bpm: 240 + pad / 3 },
    { type: 'launch', track: 2, slot: 0, on: 240, inPlace: true },
    { type: 'turn', track: 0, pad, control: 'pitch', value: quantum % 3 },
    { type: 'patternEdit', track: 1, slot: 0, revision: 0, removed: Float64Array.of(id), hits: new Float64Array(0) },
  ];
}
