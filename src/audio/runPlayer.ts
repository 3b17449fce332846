import type { Run } from '@/core/document/run';
import type { Performed } from '@/core/engine/replay';
import type { Sample } from '@/core/sample/levels';
import { unpackScore } from '@/core/score/packScore';
import type { Score } from '@/core/score/score';
import type { Listening, ReplayReply, ReplayRequest } from './messages';

const WORKER_URL = '/workers/replay.worker.js';
/** Seconds of one piece of sound, and how many are ready ahead: a page that is busy for less than that is not heard. */
const PIECE = 0.25;
const AHEAD = 12;
/** Seconds from the first piece to its sound. */
const LEAD = 0.05;

/** A piece of sound that was laid: when it begins on the context's clock, and its first frame on the engine's. */
interface Laid {
  at: number;
  frame: number;
  frames: number;
}

/** What is being heard. */
interface Playing {
  id: number;
  context: AudioContext;
  laid: Laid[];
  onEnd: (problem?: string) => void;
}

/** A run that was opened: it is read and played again by a worker, whose sound is laid end to end on a clock of its own. */
export class RunPlayer {
  private readonly worker = new Worker(WORKER_URL);
  private playing: Playing | null = null;
  private lastId = 0;
  private readonly sampleRate: number;
  /** What is asked waits for what was asked before. */
  private turn: Promise<void>;
  /** What sounded in the run. Rejects with what is wrong with it. */
  readonly score: Promise<Score>;

  /** @param samples what its sounds name */
  constructor(performed: Performed, run: Pick<Run, 'from' | 'to'>, samples: Promise<readonly Sample[]>) {
    this.sampleRate = performed.sampleRate;
    const begun = samples.then((all) => this.worker.postMessage({ performed: { ...performed, samples: all }, run } satisfies ReplayRequest)); // prettier-ignore
    this.turn = begun.catch(() => undefined);
    this.score = new Promise((found, failed) => {
      this.worker.onerror = ({ message }) => {
        const problem = message || 'The player could not be loaded.';
        failed(new Error(problem));
        this.end(problem);
      };
      begun.catch((error: unknown) => {
        const problem = `Its recordings could not be read (${error instanceof Error ? error.message : String(error)}).`;
        failed(new Error(problem));
        this.end(problem);
      });
      this.worker.onmessage = ({ data }: MessageEvent<ReplayReply>) => {
        if ('packed' in data) found(unpackScore(data.packed));
        else if ('error' in data) {
          failed(new Error(data.error));
          this.end(data.error);
        } else if (data.id === this.playing?.id) this.lay(this.playing, data);
      };
    });
    // Whoever only listens is told by `onEnd`.
    this.score.catch(() => undefined);
  }

  /**
   * Plays in the place of what was heard.
   * @param onEnd called when all was heard, or with what went wrong
   */
  listen(listening: Listening, onEnd: (problem?: string) => void): void {
    this.stop();
    const id = ++this.lastId;
    const context = new AudioContext({ sampleRate: this.sampleRate });
    this.playing = { id, context, laid: [], onEnd };
    this.ask({ listening, id });
    const frames = Math.round(PIECE * this.sampleRate);
    for (let i = 0; i < AHEAD; i++) this.ask({ frames, id });
  }

  /** The engine's frame that is heard now; null while nothing is. */
  get frame(): number | null {
    if (!this.playing) return null;
    const { context, laid } = this.playing;
    const now = context.currentTime - (context.outputLatency || 0);
    while (laid.length > 1 && laid[1]!.at <= now) laid.shift();
    const [piece] = laid;
    if (!piece || piece.at > now) return null;
    return piece.frame + Math.min(piece.frames, (now - piece.at) * this.sampleRate);
  }

  /** Ends what is heard. */
  stop(): void {
    const { playing } = this;
    this.playing = null;
    void playing?.context.close().catch(() => undefined);
  }

  /** Ends what is heard, and forgets the run. */
  close(): void {
    this.stop();
    this.worker.terminate();
  }

  private ask(message: ReplayRequest): void {
    this.turn = this.turn.then(() => this.worker.postMessage(message));
  }

  private end(problem?: string): void {
    const { playing } = this;
    this.stop();
    playing?.onEnd(problem);
  }

  private lay(playing: Playing, { left, right, frame, ended }: Extract<ReplayReply, { frame: number }>): void {
    const { context, laid, id } = playing;
    const { sampleRate } = this;
    if (left.length > 0) {
      const last = laid.at(-1);
      // A page that was busy for too long goes on where it is: a gap, and nothing on top of each other.
      const at = Math.max(last ? last.at + last.frames / sampleRate : 0, context.currentTime + LEAD);
      const buffer = new AudioBuffer({ length: left.length, numberOfChannels: 2, sampleRate });
      buffer.copyToChannel(left, 0);
      buffer.copyToChannel(right, 1);
      const source = new AudioBufferSourceNode(context, { buffer });
      source.connect(context.destination);
      source.start(at);
      laid.push({ at, frame, frames: left.length });
      source.onended = () => {
        if (this.playing !== playing) return;
        if (ended) this.end();
        else this.ask({ frames: Math.round(PIECE * sampleRate), id });
      };
    } else if (ended && laid.length === 0) this.end();
  }
}
