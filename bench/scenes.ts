import { arraysOf, type Instruction } from '@/core/protocol/commands';
import { hitRows } from '@/core/sequence/hitRows';

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

/** What is told the engine: at once, and again and again. */
const SCENES = {
  /** Silence: what is late here is the machine's doing. */
  silence: { first: () => [], again: () => [] },
  /** A pattern of 20,000 hits comes in while it plays. */
  arrival: { first: () => [bigPattern(), ...play], again: () => [bigPattern()] },
  /** Sixteen pads of each of four tracks repeat sixteenths, and all is recorded into the patterns of the set that is open. */
  repeating: {
    first: () => {
      const out: Instruction[] = [{ type: 'inputQuantize', grid: 240, on: false }];
      for (let track = 0; track < TRACKS; track++) {
        for (let pad = 0; pad < 16; pad++) out.push({ type: 'repeatRate', track, pad, ticks: 240 });
      }
      out.push({ type: 'noteRepeat', on: true, latch: true }, { type: 'record', on: true, session: 1 }, ...play);
      for (let i = 0; i < TRACKS * 16; i++) {
        out.push({ type: 'padDown', track: i >> 4, pad: i & 15, velocity: 0.5, heard: NaN, id: 100_001 + 2 * i });
      }
      return out;
    },
    again: () => [],
  },
} satisfies Record<string, { first: () => Instruction[]; again: () => Instruction[] }>;

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
  tell(SCENES[scene].first());
  const end = performance.now() + ms;
  while (performance.now() < end) {
    await new Promise((done) => setTimeout(done, AGAIN_MS));
    const more = SCENES[scene].again();
    if (more.length > 0) tell(more);
  }
};
