import { EngineRunner } from '@/audio/engineRunner';
import type { ToWorklet } from '@/audio/messages';

// The audio thread's own scope, which TypeScript's libraries do not describe.
declare const currentFrame: number;
declare const sampleRate: number;
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** To the timed engine, besides what the app sends. */
export type ToTimed = { clock: SharedArrayBuffer } | { take: true };

const QUANTA = 20_000;

/** The engine in the audio thread, with the time that each quantum costs: its messages and its samples, ms. */
class TimedProcessor extends AudioWorkletProcessor {
  private readonly runner = new EngineRunner(sampleRate, (message, transfer) =>
    this.port.postMessage(message, transfer as Transferable[]),
  );
  private clock: Float64Array<ArrayBufferLike> = new Float64Array(1);
  private readonly costs = new Float64Array(QUANTA);
  private count = 0;
  /** What messages have cost since the last quantum. */
  private messages = 0;

  constructor() {
    super();
    this.port.onmessage = (event: MessageEvent<ToWorklet | ToTimed>) => {
      const start = this.clock[0]!;
      const { data } = event; // read now for the first time: the browser unpacks it here
      if ('clock' in data) this.clock = new Float64Array(data.clock, 0, 1);
      else if ('take' in data) this.give();
      else {
        this.runner.receive(data);
        this.messages += this.clock[0]! - start;
      }
    };
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const [left, right] = outputs[0] as [Float32Array, Float32Array];
    const start = this.clock[0]!;
    this.runner.process(left, right, currentFrame);
    if (this.count < QUANTA) this.costs[this.count++] = this.messages + this.clock[0]! - start;
    this.messages = 0;
    return true;
  }

  private give(): void {
    this.port.postMessage({ costs: this.costs.slice(0, this.count) });
    this.count = 0;
  }
}

registerProcessor('chaffinch-engine', TimedProcessor);
