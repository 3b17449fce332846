import { samplesOfSet } from '@/core/document/samplesOf';
import type { BeatSet } from '@/core/document/set';
import { preparedBytes, type PreparedSample } from '@/core/sample/levels';
import { sampleMissed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import type { Instruction } from '@/core/protocol/commands';

/** Finds a sample and prepares it for the engine; null: it is not on this device. */
export type FindSample = (id: string) => Promise<PreparedSample | null>;

/** Above so many bytes those that no sound names any more go: until then undo finds them where they were. */
const MOST_BYTES = 300_000_000;

/** Gives the engine the samples that the sounds of the set name, one after the other, and takes back what is too much. */
export class SampleFollower {
  /** What the engine has, the one that was named last at the end, and its bytes. */
  private readonly told = new Map<string, number>();
  /** Named and on their way. */
  private readonly asked = new Set<string>();
  private named: readonly string[] = [];
  private turn: Promise<void> = Promise.resolve();
  private isOver = false;

  /**
   * @param store is told of those that cannot be had, and why not
   * @param send tells the engine; arrays are given away
   */
  constructor(
    private readonly store: Store,
    private readonly find: FindSample,
    private readonly send: (instruction: Instruction) => void,
  ) {}

  follow({ tracks }: Pick<BeatSet, 'tracks'>): void {
    this.named = samplesOfSet({ tracks });
    for (const id of this.named) {
      const bytes = this.told.get(id);
      if (bytes !== undefined) {
        this.told.delete(id);
        this.told.set(id, bytes);
      } else if (!this.asked.has(id) && !(id in this.store.getState().session.missing)) this.fetch(id);
    }
  }

  /** Its engine is no more. */
  end(): void {
    this.isOver = true;
  }

  private fetch(id: string): void {
    this.asked.add(id);
    this.turn = this.turn.then(async () => {
      try {
        if (this.isOver || !this.named.includes(id)) return;
        const sample = await this.find(id);
        if (this.isOver) return;
        if (!sample) return this.miss(id, 'its recording is not on this device');
        this.told.set(id, preparedBytes(sample));
        this.send({ type: 'sample', sample });
        this.dropWhatIsTooMuch();
      } catch (error) {
        this.miss(id, error instanceof Error ? error.message : String(error));
      } finally {
        this.asked.delete(id);
      }
    });
  }

  private miss(id: string, problem: string): void {
    this.store.dispatch(sampleMissed({ id, problem }));
  }

  private dropWhatIsTooMuch(): void {
    let bytes = [...this.told.values()].reduce((sum, one) => sum + one, 0);
    for (const [id, own] of this.told) {
      if (bytes <= MOST_BYTES) return;
      if (this.named.includes(id)) continue;
      this.told.delete(id);
      this.send({ type: 'dropSample', id });
      bytes -= own;
    }
  }
}
