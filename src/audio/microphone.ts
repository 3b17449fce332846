import { SAMPLE_RATE, type SampleAudio } from '@/core/sample/levels';
import { Take } from '@/core/sample/take';
import type { FromRecorder } from './messages';

const WORKLET_URL = '/workers/recorder.worklet.js';

/** A voice call's help would change the sound: none of it (Media Capture and Streams, MediaTrackConstraints). */
const PLAIN = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

/** Why browsers give no microphone, in words that help (Media Capture and Streams, getUserMedia). */
const REFUSALS: Record<string, string> = {
  NotAllowedError:
    'The browser was not allowed to use the microphone. Allow it in the browser’s settings for this page.',
  NotFoundError: 'There is no microphone.',
  NotReadableError: 'The microphone is in use, or does not answer.',
};

/** The microphone, open: how loud it is, and one take after the other. */
export class Microphone {
  /** The loudest of the last piece, 0..1. */
  level = 0;
  private take: Take | null = null;
  private frame = 0;
  private onOver: () => void = () => undefined;

  private constructor(
    private readonly context: AudioContext,
    private readonly stream: MediaStream,
    node: AudioWorkletNode,
  ) {
    node.port.onmessage = ({ data }: MessageEvent<FromRecorder>) => this.hear(data);
  }

  /**
   * Asks for the microphone.
   * @throws Error whose message is a sentence that says why there is none
   */
  static async open(): Promise<Microphone> {
    if (!navigator.mediaDevices?.getUserMedia) throw new Error('This browser gives pages no microphone.');
    let stream: MediaStream;
    try {
      stream = await navigator.mediaDevices.getUserMedia({ audio: PLAIN });
    } catch (error) {
      const name = error instanceof Error ? error.name : '';
      throw new Error(REFUSALS[name] ?? `The microphone could not be opened (${String(error)}).`, { cause: error });
    }
    try {
      const context = new AudioContext({ sampleRate: SAMPLE_RATE });
      await context.audioWorklet.addModule(WORKLET_URL);
      const node = new AudioWorkletNode(context, 'chaffinch-recorder', { numberOfOutputs: 0 });
      context.createMediaStreamSource(stream).connect(node);
      await context.resume();
      return new Microphone(context, stream, node);
    } catch (error) {
      for (const track of stream.getTracks()) track.stop();
      throw error;
    }
  }

  /**
   * Listens for a take, of which it is told later where it begins.
   * @param onOver called when it has ended itself
   */
  listen(options: { most: number; endsItself: boolean }, onOver: () => void): void {
    this.take = new Take({ rate: SAMPLE_RATE, ...options });
    this.onOver = onOver;
  }

  /** @param timeStamp ms on the clock of `performance.now()`; it may have gone by */
  beginAt(timeStamp: number): void {
    this.take?.begin(this.frameAt(timeStamp));
  }

  /** Seconds of the take so far. */
  get seconds(): number {
    return (this.take?.lengthAt(this.frame) ?? 0) / SAMPLE_RATE;
  }

  /** Ends the take: what there is of it. */
  end(): SampleAudio {
    const { take } = this;
    this.take = null;
    take?.end(this.frame);
    return take?.audio() ?? { channels: [new Float32Array(0)] };
  }

  /** Gives the microphone back. */
  close(): void {
    this.take = null;
    for (const track of this.stream.getTracks()) track.stop();
    void this.context.close().catch(() => undefined);
  }

  private hear({ frame, channels }: FromRecorder): void {
    this.level = Math.max(...channels.map((channel) => channel.reduce((most, v) => Math.max(most, Math.abs(v)), 0)));
    this.frame = frame + channels[0]!.length;
    this.take?.add(frame, channels);
    if (this.take?.isOver(this.frame)) this.onOver();
  }

  /** What was sung at a moment comes in later by what the device needs for it, as far as the browser knows that. */
  private frameAt(timeStamp: number): number {
    const { contextTime = 0, performanceTime = 0 } = this.context.getOutputTimestamp();
    const known = performanceTime > 0 ? contextTime + (timeStamp - performanceTime) / 1000 : this.context.currentTime + (timeStamp - performance.now()) / 1000; // prettier-ignore
    const [track] = this.stream.getAudioTracks();
    const { latency = 0 } = (track?.getSettings() ?? {}) as { latency?: number };
    return Math.round((known + latency) * SAMPLE_RATE);
  }
}
