/** How the package for stretching speaks with the page that it believes there is. */
export interface StretchPort {
  onmessage: (event: { data: unknown[] }) => void;
  postMessage: (message: unknown[]) => void;
}

/** What the package makes: it plays what it was given, block by block, at `currentTime`. */
export interface StretchProcessor {
  port: StretchPort;
  process: (inputs: Float32Array[][], outputs: Float32Array[][]) => boolean;
}
type Processor = new (options: { numberOfOutputs: number; outputChannelCount: number[] }) => StretchProcessor;

interface Scope {
  AudioWorkletProcessor?: unknown;
  registerProcessor?: (name: string, processor: Processor) => void;
  sampleRate: number;
  /** Seconds. */
  currentTime: number;
}

/**
 * The package is made for the audio thread alone, and registers itself there as it is loaded. In a worker it finds what it looks for
 * here. Import this module before the package.
 */
export const scope = globalThis as unknown as Scope;
export const registered: { processor?: Processor } = {};

scope.AudioWorkletProcessor = class {
  port: StretchPort = { onmessage: () => undefined, postMessage: () => undefined };
};
scope.registerProcessor = (_name, processor) => void (registered.processor = processor);
scope.sampleRate = 48000;
scope.currentTime = 0;
