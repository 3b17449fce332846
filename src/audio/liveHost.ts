import { ClockMap } from '@/core/time/clockMap';
import type { FromWorklet, ToWorklet } from './messages';
import { arraysOf, type Command, type Instruction, type Sent } from '@/core/protocol/commands';
import { decodeEvents, type EngineEvent } from '@/core/protocol/events';

const WORKLET_URL = '/workers/engine.worklet.js';

/** How far the heard moment may lie before or behind the rendered one to be believed: a buffer's jitter, a long Bluetooth delay. */
const EARLIEST_SECONDS = 0.03;
const OLDEST_SECONDS = 1;

/**
 * The engine's highest rate, frames per second. Saturation of a sound answers to what lies above hearing too, so at 96 kHz a
 * set would not sound as its 48 kHz files do, for twice the work: such a device is left to the browser's resampler.
 */
const HIGHEST_RATE = 48000;

/** Browsers give the audio thread, and the time of strokes, to secure contexts alone (W3C Secure Contexts; Web Audio API, AudioWorklet). */
const INSECURE =
  'Browsers give sound only to pages that come from this machine (http://localhost) or by https. Open Chaffinch under such an address.';

/** An engine that has not told of a song's beginning by then does not run, ms; and how long a page that was blocked hears what waited. */
const ANSWERS_BY_MS = 5000;
const HEARS_BY_MS = 1000;

export type HostState = 'starting' | 'locked' | 'running' | 'failed';

/** Runs the engine in the browser's audio thread and keeps the two clocks together. */
export class LiveHost {
  state: HostState = 'starting';
  private context: AudioContext | null = null;
  private node: AudioWorkletNode | null = null;
  private clock = new ClockMap(48000);
  /** Context frame of the engine's frame 0. */
  private origin = 0;
  /** How often the engine has told anything. */
  private answers = 0;

  constructor(
    private readonly onState: (state: HostState, problem?: string) => void,
    private readonly onEvents: (events: EngineEvent[], log: readonly Command[]) => void,
  ) {}

  /** Builds the audio graph. The browser may keep it silent until the page is touched: then the state is `locked`. */
  async start(): Promise<void> {
    if (!window.isSecureContext) return this.change('failed', INSECURE);
    try {
      const context = this.openContext();
      this.context = context;
      this.clock = new ClockMap(context.sampleRate);
      await context.audioWorklet.addModule(WORKLET_URL);
      const node = new AudioWorkletNode(context, 'chaffinch-engine', { numberOfInputs: 0, outputChannelCount: [2] });
      node.port.onmessage = ({ data }: MessageEvent<FromWorklet>) => {
        this.answers++;
        this.origin = data.origin;
        this.onEvents(decodeEvents(data.events), data.log);
      };
      node.onprocessorerror = () => this.change('failed', 'The sound engine stopped.');
      const keep: ToWorklet = { keepLog: true };
      node.port.postMessage(keep);
      node.connect(context.destination);
      this.node = node;
      context.onstatechange = () => this.followContext();
      this.followContext();
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error);
      this.change('failed', `This browser could not start the sound engine (${reason}).`);
    }
  }

  /** Begins anew with an engine that knows nothing yet, after the old one failed. */
  async restart(): Promise<void> {
    const { context, node } = this;
    if (node) node.port.onmessage = node.onprocessorerror = null;
    if (context) {
      context.onstatechange = null;
      // Not waited for: a device that does not answer would keep the new one from starting.
      if (context.state !== 'closed') void context.close().catch(() => undefined);
    }
    this.context = this.node = null;
    this.change('starting');
    await this.start();
    this.unlock();
  }

  /** Frames per second of the audio clock. */
  get sampleRate(): number {
    return this.context?.sampleRate ?? 48000;
  }

  /** Asks for sound; call it from the player's own gesture. */
  unlock(): void {
    if (this.context && this.context.state !== 'running') void this.context.resume().catch(() => undefined);
  }

  /** Tells the engine something, to be applied before its next sample. */
  send(instruction: Instruction): void {
    this.sendAll([instruction]);
  }

  /** Tells the engine several things, to be applied at one frame. The arrays that they bring are given away. */
  sendAll(instructions: readonly Sent[]): void {
    if (instructions.length === 0 || !this.node) return;
    const message: ToWorklet = { instructions };
    const arrays = new Set(instructions.flatMap(arraysOf).map((array) => array.buffer as ArrayBuffer));
    this.node.port.postMessage(message, [...arrays]);
    if (instructions.some(({ type }) => type === 'play')) this.expectAnswer();
  }

  /**
   * Context frame that the player was hearing at a moment, for the engine's `heard`.
   * @param timeStamp ms, of the event (`event.timeStamp`) or `performance.now()`
   */
  frameHeard(timeStamp: number): number {
    this.readClocks();
    const { context } = this;
    if (!context) return 0;
    if (this.clock.ready) return this.clock.frameAt(timeStamp);
    return (context.currentTime - latencyOf(context)) * context.sampleRate;
  }

  /** Frame of the engine's output that is heard at `timeStamp` (ms). */
  engineFrameHeard(timeStamp: number): number {
    return this.frameHeard(timeStamp) - this.origin;
  }

  /** When a frame of the engine's output is heard, ms on the clock of `performance.now()`. */
  timeHeard(engineFrame: number): number {
    this.readClocks();
    const frame = engineFrame + this.origin;
    if (this.clock.ready) return this.clock.timeAt(frame);
    const now = performance.now();
    return now + ((frame - this.frameHeard(now)) / this.sampleRate) * 1000;
  }

  /** A song that begins is told of at once. If it is not, what was loaded does not run, and would be silent for ever. */
  private expectAnswer(): void {
    const { node, answers } = this;
    const failed = () => node === this.node && answers === this.answers && this.state === 'running';
    const fail = () => failed() && this.change('failed', 'The sound engine does not answer.');
    setTimeout(() => failed() && setTimeout(fail, HEARS_BY_MS), ANSWERS_BY_MS);
  }

  /** A context at the device's rate, or at the highest of the engine's. */
  private openContext(): AudioContext {
    const context = new AudioContext({ latencyHint: 'interactive' });
    if (context.sampleRate <= HIGHEST_RATE) return context;
    void context.close();
    return new AudioContext({ latencyHint: 'interactive', sampleRate: HIGHEST_RATE });
  }

  private readClocks(): void {
    const { context } = this;
    if (!context || context.state !== 'running') return;
    const now = performance.now();
    const { contextTime, performanceTime } = context.getOutputTimestamp();
    if (contextTime && performanceTime) {
      // What is heard was rendered, and not long ago. A starved machine reports moments that cannot be; they are no readings.
      const heardNow = contextTime + (now - performanceTime) / 1000;
      const age = context.currentTime - heardNow;
      if (age > -EARLIEST_SECONDS && age < OLDEST_SECONDS) this.clock.addPair(contextTime, performanceTime);
    } else this.clock.addPair(context.currentTime - latencyOf(context), now);
  }

  private followContext(): void {
    const state = this.context?.state;
    if (state === 'closed') return this.change('failed', 'The browser has closed the sound.');
    // Its engine is gone, whatever its context does.
    if (this.state !== 'failed') this.change(state === 'running' ? 'running' : 'locked');
  }

  private change(state: HostState, problem?: string): void {
    if (state === this.state) return;
    this.state = state;
    this.onState(state, problem);
  }
}

function latencyOf(context: AudioContext): number {
  return context.outputLatency || context.baseLatency || 0;
}
