import type { Performed } from '@/core/engine/replay';
import type { ReplayReply, ReplayRequest } from './messages';

const WORKER_URL = '/workers/replay.worker.js';
/** Seconds of one piece of sound, and how many are ready ahead: a page that is busy for less than that is not heard. */
const PIECE = 0.25;
const AHEAD = 12;
/** Seconds after the end of a run in which its sounds ring out. */
const TAIL = 2;
/** Seconds from the first piece to its sound. */
const LEAD = 0.05;

/** Plays runs again. A worker makes the sound, which is laid end to end on a clock of its own. */
export class RunPlayer {
  private playing: { worker: Worker; context: AudioContext } | null = null;

  /**
   * Plays from one frame of the engine to another one. What was playing ends.
   * @param onEnd called when all was heard, or with what went wrong
   */
  play(performed: Performed, from: number, to: number, onEnd: (problem?: string) => void): void {
    this.stop();
    const { sampleRate } = performed;
    const frames = Math.round(PIECE * sampleRate);
    const [worker, context] = [new Worker(WORKER_URL), new AudioContext({ sampleRate })];
    const playing = (this.playing = { worker, context });
    const out = new GainNode(context);
    out.connect(context.destination);
    const ask = (message: ReplayRequest) => worker.postMessage(message);
    const end = (problem?: string) => {
      if (this.playing !== playing) return;
      this.stop();
      onEnd(problem);
    };
    let at = 0;
    const lay = (left: Float32Array<ArrayBuffer>, right: Float32Array<ArrayBuffer>) => {
      const buffer = new AudioBuffer({ length: left.length, numberOfChannels: 2, sampleRate });
      buffer.copyToChannel(left, 0);
      buffer.copyToChannel(right, 1);
      const source = new AudioBufferSourceNode(context, { buffer });
      source.connect(out);
      // A page that was busy for too long goes on where it is: a gap, and nothing on top of each other.
      at = Math.max(at, context.currentTime + LEAD);
      source.start(at);
      at += left.length / sampleRate;
      source.onended = left.length < frames ? () => end() : () => ask({ frames });
    };
    worker.onerror = ({ message }) => end(message || 'the player could not be loaded');
    worker.onmessage = ({ data }: MessageEvent<ReplayReply>) => {
      if (this.playing !== playing) return;
      if ('error' in data) end(data.error);
      else if (data.left.length > 0) lay(data.left, data.right);
      else if (at <= context.currentTime) end();
    };
    ask({ performed, from, to: to + Math.round(TAIL * sampleRate) });
    for (let i = 0; i < AHEAD; i++) ask({ frames });
  }

  /** Ends what is playing. */
  stop(): void {
    const { playing } = this;
    this.playing = null;
    playing?.worker.terminate();
    void playing?.context.close().catch(() => undefined);
  }
}
