import type { FromRecorder } from '@/audio/messages';

// The audio thread's own scope, which TypeScript's libraries do not describe.
declare const currentFrame: number;
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Frames of one message. */
const PIECE = 2048;

/** Tells the page what comes from the microphone, piece by piece. */
class RecorderProcessor extends AudioWorkletProcessor {
  private pieces: Float32Array<ArrayBuffer>[] = [];
  private filled = 0;
  private first = 0;

  process([input]: Float32Array[][]): boolean {
    // A device that was taken away has no channels: what it would have given is silence.
    const channels = input && input.length > 0 ? input.slice(0, 2) : [];
    const [one] = channels;
    if (this.filled === 0) {
      this.first = currentFrame;
      this.pieces = Array.from({ length: Math.max(1, channels.length) }, () => new Float32Array(PIECE));
    }
    if (one) this.pieces.forEach((piece, c) => piece.set(channels[c] ?? one, this.filled));
    this.filled += 128;
    if (this.filled === PIECE) {
      const message: FromRecorder = { frame: this.first, channels: this.pieces };
      this.port.postMessage(message, this.pieces.map(({ buffer }) => buffer)); // prettier-ignore
      this.filled = 0;
    }
    return true;
  }
}

registerProcessor('chaffinch-recorder', RecorderProcessor);
