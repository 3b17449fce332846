import { Engine } from '@/core/engine/engine';
import type { WarmUp } from '@/core/engine/warmUp';
import { dueFrom, type Sent } from '@/core/protocol/commands';
import type { FromWorklet, ToWorklet } from './messages';

const QUANTUM = 128;
/** The context's frame counter may stall for a few quanta and catch up; a difference that lasts this long is real. */
const QUANTA_TO_REBASE = 8;
/**
 * The warm-up goes on in these quanta with nothing to be heard: when the app has opened, which keeps the compiler busy enough,
 * and in every second one, so that most of their time stays free.
 */
const WARM_UP_FROM = 100;
const WARM_UP_TO = 1600;

/** Runs the engine on the clock of an audio context: what the worklet does, apart from being a worklet. */
export class EngineRunner {
  private readonly engine: Engine;
  private origin = NaN;
  private quantaApart = 0;
  /** Quanta at rest so far. */
  private restQuanta = 0;

  /**
   * @param send posts a message to the page, with the buffers that it gives away
   * @param warmUp goes on while nothing is to be heard: code that runs for the first time would cost the first stroke several
   * quanta's time
   */
  constructor(
    sampleRate: number,
    private readonly send: (message: FromWorklet, transfer: ArrayBufferLike[]) => void,
    private readonly warmUp: WarmUp | null,
  ) {
    this.engine = new Engine(sampleRate);
  }

  /** Takes a message of the page's. */
  receive(message: ToWorklet): void {
    if ('keepLog' in message) return this.engine.log.keep(message.keepLog);
    const { engine } = this;
    for (const sent of message.instructions) engine.post(dueFrom(engine.frame, this.onEngineClock(sent)));
  }

  /**
   * Renders one quantum.
   * @param contextFrame the context's frame of its first sample
   */
  process(left: Float32Array, right: Float32Array, contextFrame: number): void {
    const { engine } = this;
    this.followContext(contextFrame);
    this.tell();
    engine.process(left, right, QUANTUM);
    if (this.warmUp && this.restQuanta < WARM_UP_TO && engine.isAtRest) this.rest(this.warmUp);
  }

  /**
   * Sends what happened in the quantum before. To post a message takes the thread some time, and most has happened where many strokes
   * fall on one line: that quantum is the dearest already.
   */
  private tell(): void {
    const { engine } = this;
    if (engine.events.length === 0 && engine.log.length === 0) return;
    const events = engine.events.drain();
    this.send({ events, origin: this.origin, log: engine.log.drain() }, [events.buffer]);
  }

  private rest(warmUp: WarmUp): void {
    this.restQuanta++;
    if (this.restQuanta > WARM_UP_FROM && this.restQuanta % 2 === 0) warmUp.play();
  }

  /** Pads say what they heard by the context's clock. */
  private onEngineClock(instruction: Sent): Sent {
    if (instruction.type !== 'padDown' && instruction.type !== 'padUp') return instruction;
    const origin = Number.isNaN(this.origin) ? 0 : this.origin;
    return { ...instruction, heard: instruction.heard - origin };
  }

  private followContext(contextFrame: number): void {
    const origin = contextFrame - this.engine.frame;
    if (origin === this.origin) {
      this.quantaApart = 0;
      return;
    }
    if (!Number.isNaN(this.origin) && ++this.quantaApart < QUANTA_TO_REBASE) return;
    this.origin = origin;
    this.quantaApart = 0;
  }
}
