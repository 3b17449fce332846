import { MAX_TRACKS } from '@/core/document/limits';
import { arraysOf, type Instruction } from '@/core/protocol/commands';
import { hitRows } from '@/core/sequence/hitRows';
import { fullMix } from './fullMix';

declare global {
  /** Plays a scene on the app's own engine for so many ms. */
  var playScene: (scene: keyof typeof SCENES, ms: number) => Promise<void>;
  /** Frames per second of the app's own engine. */
  var engineRate: number;
}

const HITS = 20_000;
const TRACKS = 4;

/** A pattern with so many hits that none sounds at once: each on a tick of its own. */
const bigPattern = (): Instruction => ({
  type: 'pattern',
  track: 0,
  slot: 0,
  revision: 0,
  length: 64 * 3840,
  seen: 0,
  feels: null,
  hits: hitRows(
    Array.from({ length: HITS }, (_, i) => {
      const tick = (i * 64 * 3840) / HITS;
      return {
        tick,
        struck: tick,
        pad: i % 16,
        velocity: 0.5,
        length: 60,
        id: 2 * i + 1,
        pitch: 0,
        odds: 1,
        roll: null,
      };
    }),
  ),
});
const play: Instruction[] = [
  { type: 'tempo', bpm: 120 },
  { type: 'play', startTick: 0, countInTicks: 0 },
];

/** What is told the engine: before, at once, and again and again. */
interface Scene {
  /** What a player has set some time before. */
  before: () => Instruction[];
  first: () => Instruction[];
  again: () => Instruction[];
}

const nothing = () => [];
const pads = (instruction: (track: number, pad: number) => Instruction) =>
  Array.from({ length: TRACKS * 16 }, (_, i) => instruction(i >> 4, i & 15));

/** Pads of sixteen tracks that ring for long. */
const fourOfEach = (instruction: (track: number, pad: number) => Instruction) =>
  Array.from({ length: MAX_TRACKS * 4 }, (_, i) => instruction(i >> 2, 8 + (i & 3)));

const SCENES = {
  /** Silence: what is late here is the machine's doing. */
  silence: { before: nothing, first: nothing, again: nothing },
  /** A pattern of 20,000 hits comes in while it plays. */
  arrival: { before: nothing, first: () => [bigPattern(), ...play], again: () => [bigPattern()] },
  /** Sixteen pads of each of four tracks repeat sixteenths, and all is recorded into the patterns of the set that is open. */
  repeating: {
    before: () => [
      { type: 'inputQuantize', grid: 240, on: false },
      ...pads((track, pad) => ({ type: 'repeatRate', track, pad, ticks: 240 })),
      { type: 'noteRepeat', on: true, latch: true },
    ],
    first: () => [
      { type: 'record', on: true, session: 1 },
      ...play,
      ...pads((track, pad) => {
        const id = 100_001 + 2 * (track * 16 + pad);
        return { type: 'padDown', track, pad, velocity: 0.5, heard: NaN, id };
      }),
    ],
    again: nothing,
  },
  /** Four pads of each of sixteen tracks repeat sixteenths, with everything of the mix on. */
  mixed: {
    before: () => [
      ...fullMix(),
      ...fourOfEach((track, pad) => ({ type: 'repeatRate', track, pad, ticks: 240 })),
      { type: 'noteRepeat', on: true, latch: true },
    ],
    first: () => [
      ...play,
      ...fourOfEach((track, pad) => {
        const id = 100_001 + 2 * (track * 16 + pad);
        return { type: 'padDown', track, pad, velocity: 0.5, heard: NaN, id };
      }),
    ],
    again: nothing,
  },
} satisfies Record<string, Scene>;

const BEFORE_MS = 100;
const AGAIN_MS = 580;
let port: MessagePort | null = null;

const Original = window.AudioWorkletNode;
window.AudioWorkletNode = class extends Original {
  constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
    super(context, name, options);
    port = this.port;
    globalThis.engineRate = context.sampleRate;
  }
};

globalThis.playScene = async (scene, ms) => {
  const tell = (instructions: Instruction[]) =>
    port!.postMessage(
      { instructions },
      instructions.flatMap(arraysOf).map(({ buffer }) => buffer as ArrayBuffer),
    );
  tell(SCENES[scene].before());
  await new Promise((done) => setTimeout(done, BEFORE_MS));
  tell(SCENES[scene].first());
  const end = performance.now() + ms;
  while (performance.now() < end) {
    await new Promise((done) => setTimeout(done, AGAIN_MS));
    const more = SCENES[scene].again();
    if (more.length > 0) tell(more);
  }
};
