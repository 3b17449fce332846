import { carry } from '@/audio/carryHost';
import type { CarryWanted } from '@/audio/messages';
import { RunPlayer } from '@/audio/runPlayer';
import { writeScoreMidi } from '@/core/formats/scoreMidi';
import type { Sample } from '@/core/sample/levels';
import type { Stretch } from '@/core/score/make';
import type { PlayedThrough } from '@/core/score/playThrough';
import { readScore } from '@/core/score/readScore';
import type { Score } from '@/core/score/score';

/** Frames per second at which parts of a set are played and written. */
export const PART_RATE = 48000;

/** A part of a set that plays by itself: to be heard apart from the song, or carried away like a run. */
export class PlayedPart {
  private player: RunPlayer | null = null;
  private given: PlayedThrough | null = null;
  private known: Score | null = null;

  /**
   * @param play plays it; asked once, when it is wanted first
   * @param samples finds what its sounds name
   */
  constructor(
    readonly name: string,
    private readonly play: () => PlayedThrough,
    private readonly samples: () => Promise<readonly Sample[]> = () => Promise.resolve([]),
  ) {}

  private get played(): PlayedThrough {
    return (this.given ??= this.play());
  }

  /** What sounds in it. */
  get score(): Score {
    const { performed, run } = this.played;
    // An engine takes the arrays of what it plays.
    return (this.known ??= readScore({ ...performed, log: structuredClone([...performed.log]) }, run));
  }

  /**
   * Plays it from its beginning.
   * @param onEnd called when all was heard, or with what went wrong
   */
  listen(onEnd: (problem?: string) => void): void {
    const { performed, run } = this.played;
    this.player ??= new RunPlayer(performed, run, this.samples());
    this.player.listen({ fixes: null, from: 0, loop: null }, onEnd);
  }

  /** Ends what is heard, and forgets it. */
  close(): void {
    this.player?.close();
    this.player = null;
  }

  /**
   * Makes a file of its sound.
   * @param onProgress called with the share that is done, 0..1
   * @returns the file with how loud it is, and how to give up
   */
  carry(wanted: CarryWanted, onProgress: (done: number) => void): ReturnType<typeof carry> {
    const { performed, run } = this.played;
    return carry({ performed, run, fixes: [], ...wanted }, this.samples(), onProgress);
  }

  /** A stretch, or all of it, as a standard MIDI file. */
  midi(stretch: Stretch | null): Blob {
    const { score, name } = this;
    return new Blob([writeScoreMidi(score, stretch ?? { from: 0, to: score.length }, name)], { type: 'audio/midi' });
  }
}
