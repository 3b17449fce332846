import type { Listening, ReplayReply, ReplayRequest } from '@/audio/messages';
import type { Run } from '@/core/document/run';
import { replayLog, type Performed, type Replay } from '@/core/engine/replay';
import { fixed, type Fix } from '@/core/score/fix';
import { prepareSample } from '@/core/sample/levels';
import { readScore } from '@/core/score/readScore';
import { packScore } from '@/core/score/packScore';
import { BEFORE, replayScore } from '@/core/score/replayScore';
import type { Score } from '@/core/score/score';
import { ScoreTime } from '@/core/score/scoreTime';

// The worker's own scope, which TypeScript's page libraries describe otherwise.
declare const self: {
  onmessage: (event: MessageEvent<ReplayRequest>) => void;
  postMessage(message: ReplayReply, transfer?: Transferable[]): void;
};

/** Seconds after the last sound in which it rings out. */
const TAIL = 2;

/** A run that was opened. */
class OpenRun {
  private readonly score: Score;
  /** Scores with the first so many fixes, so that one more costs one more. */
  private fixes: readonly Fix[] = [];
  private scores: Score[] = [];

  constructor(
    private readonly performed: Performed,
    private readonly run: Pick<Run, 'from' | 'to'>,
  ) {
    this.score = readScore(this.copy(), run);
  }

  get asPlayed(): Score {
    return this.score;
  }

  listen({ fixes, from, loop }: Listening): Play {
    const { sampleRate } = this.performed;
    const score = this.fixedBy(fixes ?? []);
    const time = new ScoreTime(score, sampleRate);
    const end = Math.round(time.frameAt(score.length)) + TAIL * sampleRate;
    const at = (tick: number) => () => replayScore(score, sampleRate, tick, BEFORE.quick);
    if (loop) {
      const round = { begin: at(loop.from), end: Math.round(time.frameAt(loop.to)) };
      return new Play(at(from < loop.to ? from : loop.from)(), round.end, round.begin);
    }
    return new Play(fixes === null && from <= 0 ? this.fromTheLog() : at(from)(), end, null);
  }

  /** To the sample as it was heard. */
  private fromTheLog(): Replay {
    const replay = replayLog(this.copy());
    replay.skipTo(this.run.from);
    return replay;
  }

  /** Lets the engine's code be compiled before it is needed in a hurry. */
  warmUp(): void {
    const frames = this.performed.sampleRate / 2;
    replayScore(this.score, this.performed.sampleRate).process(new Float32Array(frames), new Float32Array(frames));
  }

  private fixedBy(fixes: readonly Fix[]): Score {
    let same = 0;
    while (same < fixes.length && JSON.stringify(fixes[same]) === JSON.stringify(this.fixes[same])) same++;
    this.scores.length = same;
    for (const fix of fixes.slice(same)) this.scores.push(fixed(this.scores.at(-1) ?? this.score, fix));
    this.fixes = fixes;
    return this.scores.at(-1) ?? this.score;
  }

  /** An engine takes the arrays of what it plays. */
  private copy(): Performed {
    return { ...this.performed, log: structuredClone([...this.performed.log]) };
  }
}

/** What is being heard. */
class Play {
  constructor(
    private replay: Replay,
    /** The frame at which it ends, or goes round. */
    private readonly end: number,
    private readonly again: (() => Replay) | null,
  ) {}

  /** The next samples, at most so many. */
  next(most: number) {
    const { again } = this;
    if (again && this.replay.frame >= this.end) this.replay = again();
    const { frame } = this.replay;
    const frames = Math.max(0, Math.min(most, this.end - frame));
    const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
    this.replay.process(left, right);
    this.replay.engine.events.clear();
    return { left, right, frame, ended: !again && this.replay.frame >= this.end };
  }
}

let open: OpenRun | null = null;
let play: { id: number; play: Play } | null = null;

/** Plays a run again, away from the page and from the audio thread, as far as the page asks for it. */
self.onmessage = ({ data }) => {
  try {
    if ('performed' in data) {
      open = new OpenRun({ ...data.performed, samples: data.performed.samples.map(prepareSample) }, data.run);
      const packed = packScore(open.asPlayed);
      self.postMessage({ packed }, [packed.strokes.buffer]);
      open.warmUp();
    } else if ('listening' in data) {
      play = { id: data.id, play: open!.listen(data.listening) };
    } else if (play?.id === data.id) {
      const piece = play.play.next(data.frames);
      self.postMessage({ ...piece, id: data.id }, [piece.left.buffer, piece.right.buffer]);
    }
  } catch (error) {
    self.postMessage({ error: error instanceof Error ? error.message : String(error) });
  }
};
