import type { FromWorklet } from '@/audio/messages';
import { arraysOf, type Instruction } from '@/core/protocol/commands';
import { hitRows } from '@/core/sequence/hitRows';
import type { ToTimed } from './worklet';

/** What the page offers the bench: it takes hold of the app's own engine. */
export interface Timed {
  /** Frames per second. */
  rate(): number;
  /** What each quantum has cost since the last time, ms. */
  take(): Promise<Float64Array>;
  /** Runs a scene and returns what each of at least so many quanta cost. */
  run(scene: keyof typeof SCENES, quanta: number): Promise<number[]>;
}

declare global {
  var timed: Timed;
}

const HITS = 20_000;
const TRACKS = 4;

/** A pattern with so many hits that none sounds at once: each on a tick of its own. */
const bigPattern = (track: number): Instruction => ({
  type: 'pattern',
  track,
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

/** What is told the engine: at once, and again after every 200 quanta. */
const SCENES = {
  /** Silence: what is late here is the machine's and the clock's doing. */
  silence: { first: () => [], again: () => [] },
  /** A pattern of 20,000 hits comes in while it plays. */
  arrival: { first: () => [bigPattern(0), ...play], again: () => [bigPattern(0)] },
  /** Sixteen pads of each of four tracks repeat sixteenths, and all is recorded into patterns of 20,000 hits. */
  repeating: {
    first: () => {
      const out: Instruction[] = [{ type: 'inputQuantize', grid: 240, on: false }];
      for (let track = 0; track < TRACKS; track++) {
        out.push(bigPattern(track), { type: 'launch', track, slot: 0, on: 0, inPlace: false });
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

const BETWEEN = 200;
let node: AudioWorkletNode | null = null;

const Original = window.AudioWorkletNode;
window.AudioWorkletNode = class extends Original {
  constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
    super(context, name, options);
    node = this;
    const clock = new SharedArrayBuffer(16);
    new Worker('/bench/clock.js').postMessage(clock);
    this.port.postMessage({ clock } satisfies ToTimed);
  }
};

const take = () =>
  new Promise<Float64Array>((done) => {
    const { port } = node!;
    const listen = ({ data }: MessageEvent<FromWorklet | { costs: Float64Array }>) => {
      if (!('costs' in data)) return;
      port.removeEventListener('message', listen);
      done(data.costs);
    };
    port.addEventListener('message', listen);
    port.postMessage({ take: true } satisfies ToTimed);
  });

globalThis.timed = {
  rate: () => node!.context.sampleRate,
  take,
  async run(scene, quanta) {
    const { first, again } = SCENES[scene];
    const tell = (instructions: Instruction[]) =>
      node!.port.postMessage(
        { instructions },
        instructions.flatMap(arraysOf).map(({ buffer }) => buffer as ArrayBuffer),
      );
    await take();
    tell(first());
    const costs: number[] = [];
    while (costs.length < quanta) {
      await new Promise((done) => setTimeout(done, (BETWEEN * 128000) / node!.context.sampleRate));
      costs.push(...(await take()));
      const more = again();
      if (more.length > 0) tell(more);
    }
    return costs;
  },
};
