import type { FromWorklet, ToWorklet } from '@/audio/messages';
import { Engine } from '@/core/engine/engine';
import { at, NOW, type Instruction } from '@/core/engine/protocol';

// The audio thread's own scope, which TypeScript's libraries do not describe.
declare const currentFrame: number;
declare const sampleRate: number;
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

const QUANTUM = 128;
/** The context's frame counter may stall for a few quanta and catch up; a difference that lasts this long is real. */
const QUANTA_TO_REBASE = 8;

/** Runs the engine in the audio thread and keeps its frames in step with the context's. */
class EngineProcessor extends AudioWorkletProcessor {
  private readonly engine = new Engine(sampleRate);
  private origin = NaN;
  private quantaApart = 0;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<ToWorklet>) => this.engine.post(at(NOW, this.onEngineClock(data)));
  }

  process(_inputs: Float32Array[][], outputs: Float32Array[][]): boolean {
    const [left, right] = outputs[0] as [Float32Array, Float32Array];
    this.followContext();
    this.engine.process(left, right, QUANTUM);
    if (this.engine.events.length > 0 || this.engine.applied.length > 0) this.report();
    return true;
  }

  /** Pads say what they heard by the context's clock. */
  private onEngineClock(instruction: Instruction): Instruction {
    const origin = Number.isNaN(this.origin) ? 0 : this.origin;
    if (instruction[0] === 'padDown') {
      const [name, track, pad, velocity, heard, id] = instruction;
      return [name, track, pad, velocity, heard - origin, id];
    }
    if (instruction[0] === 'padUp') {
      const [name, track, pad, heard] = instruction;
      return [name, track, pad, heard - origin];
    }
    return instruction;
  }

  private followContext(): void {
    const origin = currentFrame - this.engine.frame;
    if (origin === this.origin) {
      this.quantaApart = 0;
      return;
    }
    if (!Number.isNaN(this.origin) && ++this.quantaApart < QUANTA_TO_REBASE) return;
    this.origin = origin;
    this.quantaApart = 0;
  }

  private report(): void {
    const message: FromWorklet = {
      events: this.engine.events.drain(),
      origin: this.origin,
      applied: this.engine.applied.splice(0),
    };
    this.port.postMessage(message, [message.events.buffer]);
  }
}

registerProcessor('chaffinch-engine', EngineProcessor);
