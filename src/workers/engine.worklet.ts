import { EngineRunner } from '@/audio/engineRunner';
import type { ToWorklet } from '@/audio/messages';

// The audio thread's own scope, which TypeScript's libraries do not describe.
declare const currentFrame: number;
declare const sampleRate: number;
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** The engine in the audio thread. */
class EngineProcessor extends AudioWorkletProcessor {
  private readonly runner = new EngineRunner(sampleRate, (message, transfer) =>
    this.port.postMessage(message, transfer as Transferable[]),
  );

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<ToWorklet>) => this.runner.receive(data);
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const [left, right] = outputs[0] as [Float32Array, Float32Array];
    this.runner.process(left, right, currentFrame);
    return true;
  }
}

registerProcessor('chaffinch-engine', EngineProcessor);
