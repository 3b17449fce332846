import { carry } from '@/audio/carryHost';
import type { CarryWanted } from '@/audio/messages';
import { RunPlayer } from '@/audio/runPlayer';
import type { Run } from '@/core/document/run';
import type { Performed } from '@/core/engine/replay';
import { writeScoreMidi } from '@/core/formats/scoreMidi';
import type { Stretch } from '@/core/score/make';
import { fixed, type Fix } from '@/core/score/fix';
import { pictureOf, type Score } from '@/core/score/score';
import { ScoreTime } from '@/core/score/scoreTime';
import type { Fixes } from '@/core/score/fixSchema';
import type { RunStore } from '@/storage/runStore';

/** What of an opened run is to be heard, in ticks. */
export interface Wanted {
  from: number;
  loop: { from: number; to: number } | null;
}

export type { CarryWanted };

/** A run that lies open: it can be looked at, heard from anywhere, and put right. What was played stays as it is. */
export class OpenedRun {
  /** The score as it was played, and after each fix. */
  private readonly scores: Score[];
  private fixes: readonly Fix[];
  /** How many of the fixes hold: those after them were undone. */
  private done: number;
  private readonly listeners = new Set<() => void>();
  private onEnd: (problem?: string) => void = () => undefined;
  /** Counts the changes: equal numbers, equal state. */
  private changes = 0;
  private isPlaying = false;
  /** Told when what was put right could not be stored; it is stored with the next fix. */
  onTrouble: (error: unknown) => void = () => undefined;
  private asPlayed = false;

  private constructor(
    readonly run: Run,
    private readonly store: RunStore,
    private readonly player: RunPlayer,
    private readonly performed: Performed,
    score: Score,
    { fixes, done }: Fixes,
  ) {
    this.scores = [score];
    this.fixes = fixes;
    this.done = done;
    for (const fix of fixes) this.scores.push(fixed(this.scores.at(-1)!, fix));
  }

  /**
   * Opens a run.
   * @throws Error that says what of it is missing or cannot be read
   */
  static async open(run: Run, store: RunStore): Promise<OpenedRun> {
    const [performed, fixes] = await Promise.all([store.performed(run), store.fixes(run)]);
    const player = new RunPlayer(performed, run, store.samplesOf(performed));
    try {
      return new OpenedRun(run, store, player, performed, await player.score, fixes);
    } catch (error) {
      player.close();
      throw error;
    }
  }

  /** Asks to be told of changes. Returns what ends it. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly version = (): number => this.changes;

  get name(): string {
    return this.run.name;
  }

  /** What is seen and heard: as it was played, or as it was put right. */
  get score(): Score {
    return this.scores[this.asPlayed ? 0 : this.done]!;
  }

  get canUndo(): boolean {
    return this.done > 0;
  }

  get canRedo(): boolean {
    return this.done < this.fixes.length;
  }

  get isHeard(): boolean {
    return this.isPlaying;
  }

  /** Whether it is shown and heard as it was played. */
  get isAsPlayed(): boolean {
    return this.asPlayed;
  }

  /** Puts something right. */
  fix(fix: Fix): void {
    const score = fixed(this.score, fix);
    if (score === this.score) return;
    this.fixes = [...this.fixes.slice(0, this.done), fix];
    this.scores.length = this.done + 1;
    this.scores.push(score);
    this.stand(this.done + 1);
  }

  undo(): void {
    if (this.canUndo) this.stand(this.done - 1);
  }

  redo(): void {
    if (this.canRedo) this.stand(this.done + 1);
  }

  showAsPlayed(asPlayed: boolean): void {
    const heard = this.tick;
    this.asPlayed = asPlayed;
    if (this.isPlaying) this.listen({ from: heard ?? 0, loop: null }, this.onEnd);
    this.tell();
  }

  /** Tick that is heard now; null while nothing is. */
  get tick(): number | null {
    const { frame } = this.player;
    return frame === null ? null : new ScoreTime(this.score, this.run.sampleRate).tickAt(frame);
  }

  /**
   * Plays it, in the place of what is heard of it.
   * @param onEnd called when all was heard, or with what went wrong
   */
  listen({ from, loop }: Wanted, onEnd: (problem?: string) => void): void {
    this.onEnd = onEnd;
    this.isPlaying = true;
    const fixes = this.asPlayed ? null : this.fixes.slice(0, this.done);
    this.player.listen({ fixes, from, loop }, (problem) => {
      this.isPlaying = false;
      this.tell();
      onEnd(problem);
    });
    this.tell();
  }

  stop(): void {
    this.isPlaying = false;
    this.player.stop();
    this.tell();
  }

  /**
   * Makes a file of sound of a stretch, or of all of it, as it stands now.
   * @param onProgress called with the share that is done, 0..1
   * @returns the file with how loud it is, and how to give up
   */
  carry(wanted: CarryWanted, onProgress: (done: number) => void): ReturnType<typeof carry> {
    const { performed, run } = this;
    const fixes = this.asPlayed ? [] : this.fixes.slice(0, this.done);
    return carry({ performed, run, fixes, ...wanted }, this.store.samplesOf(performed), onProgress);
  }

  /** A stretch, or all of it, as a standard MIDI file. */
  midi(stretch: Stretch | null): Blob {
    const { score, run } = this;
    const bytes = writeScoreMidi(score, stretch ?? { from: 0, to: score.length }, run.name);
    return new Blob([bytes], { type: 'audio/midi' });
  }

  close(): void {
    this.player.close();
    this.listeners.clear();
  }

  private stand(done: number): void {
    this.done = done;
    this.store.keepFixes(this.run, { fixes: this.fixes, done }).catch(this.onTrouble);
    this.tell();
  }

  private tell(): void {
    this.changes++;
    for (const listener of this.listeners) listener();
  }
}

/** Draws a run in small, and keeps the picture with it. */
export async function drawRun(run: Run, store: RunStore): Promise<void> {
  const performed = await store.performed(run);
  const player = new RunPlayer(performed, run, store.samplesOf(performed));
  try {
    await store.change(run, { picture: pictureOf(await player.score) });
  } finally {
    player.close();
  }
}
