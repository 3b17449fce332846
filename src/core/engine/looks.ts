import type { FramePart } from './part';
import type { Transport } from './transport';

/** Frames from one look to the next, counted from frame 0, so that no block size changes what is heard: 5 ms. */
const LOOK_FRAMES = 256;

/**
 * Looks again and again at what goes on moving while it sounds, as long as anything does. A command may begin that, and so may another
 * pattern and the song: at each of them there is a look at once, before anything of it sounds.
 */
export abstract class Looks implements FramePart {
  /** Something may move until the next look. */
  private isMoving = false;
  private isDue = false;
  private lookedAt = NaN;

  constructor(protected readonly transport: Transport) {}

  /** @returns whether anything may have moved by the next look */
  protected abstract look(): boolean;

  nextFrame(): number {
    const { frame } = this.transport;
    if (this.isDue) return frame;
    if (!this.isMoving) return Infinity;
    const next = Math.ceil(frame / LOOK_FRAMES) * LOOK_FRAMES;
    return next === this.lookedAt ? next + LOOK_FRAMES : next;
  }

  playFrame(): void {
    this.isDue = false;
    this.lookedAt = this.transport.frame;
    this.isMoving = this.look();
  }

  passBy(): void {
    this.isDue = true;
  }

  trackChanges(): void {
    this.isDue = true;
  }

  songStarts(): void {
    this.isDue = true;
  }

  songStops(): void {
    this.isDue = true;
  }
}
