import { EngineRunner } from '@/audio/engineRunner';
import type { ToWorklet } from '@/audio/messages';
import { WarmUp } from '@/core/engine/warmUp';

// The audio thread's own scope, which TypeScript's libraries do not describe.
declare const currentFrame: number;
declare const sampleRate: number;
declare function registerProcessor(name: string, processor: new (options: NodeOptions) => AudioWorkletProcessor): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

interface NodeOptions {
  /** `cold`: without a warm-up, for who opens the app only to look at it, as most browser tests do. */
  processorOptions?: { cold?: boolean };
}

/** The engine in the audio thread. */
class EngineProcessor extends AudioWorkletProcessor {
  private readonly runner: EngineRunner;

  constructor({ processorOptions }: NodeOptions) {
    super();
    this.runner = new EngineRunner(
      sampleRate,
      (message, transfer) => this.port.postMessage(message, transfer as Transferable[]),
      processorOptions?.cold ? null : new WarmUp(sampleRate),
    );
    this.port.onmessage = ({ data }: MessageEvent<ToWorklet>) => this.runner.receive(data);
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const [left, right] = outputs[0] as [Float32Array, Float32Array];
    this.runner.process(left, right, currentFrame);
    return true;
  }
}

registerProcessor('chaffinch-engine', EngineProcessor);
