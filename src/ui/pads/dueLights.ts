import type { Sounded } from '@/instrument/performance';

/**
 * Strokes whose light waits for their sound: the engine tells of the pattern's hits before they leave the loudspeaker. A page that
 * is not shown draws no frames, so what is past is dropped whenever more comes: nothing here grows with the time it is hidden.
 * Times are engine frames that are heard.
 */
export class DueLights {
  private waiting: Sounded[] = [];

  get count(): number {
    return this.waiting.length;
  }

  /** @param stale what was heard before this lights no more */
  add(sounded: Sounded, stale: number): void {
    if (this.waiting[0] && this.waiting[0].heardFrame < stale) {
      this.waiting = this.waiting.filter(({ heardFrame }) => heardFrame >= stale);
    }
    this.waiting.push(sounded);
  }

  /** Takes out what is heard by `now`; gives back what of it was not heard before `stale`. */
  take(now: number, stale: number): Sounded[] {
    const due = this.waiting.filter(({ heardFrame }) => heardFrame <= now);
    this.waiting = this.waiting.filter(({ heardFrame }) => heardFrame > now);
    return due.filter(({ heardFrame }) => heardFrame >= stale);
  }
}
