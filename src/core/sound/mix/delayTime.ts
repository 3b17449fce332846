/** A new time is faded to, not bent to: so long that nothing clicks. Seconds. */
const FADE_SECONDS = 0.03;

/**
 * By how many frames something is delayed. When that changes, what rings goes on by the old time and fades into the new: no pitch moves, and
 * nothing is cut. While it fades, a further change waits.
 */
export class DelayTime {
  /** Frames as they are told, and as they were before; the share of the new ones, and by how much that grows with each sample. */
  frames: number;
  before: number;
  fade = 1;
  readonly fadeStep: number;
  private wanted: number;

  constructor(frames: number, sampleRate: number) {
    this.frames = this.before = this.wanted = frames;
    this.fadeStep = 1 / Math.round(FADE_SECONDS * sampleRate);
  }

  /** Frames by which anything is late at most. */
  get longest(): number {
    return Math.max(this.frames, this.before, this.wanted);
  }

  /** It sets out at the next look. */
  goTo(frames: number): void {
    this.wanted = frames;
  }

  /** It is at once as long as it is told to be: where nothing is heard. */
  arrive(): void {
    this.frames = this.before = this.wanted;
    this.fade = 1;
  }

  get isFading(): boolean {
    return this.fade < 1;
  }

  look(): void {
    if (this.isFading || this.wanted === this.frames) return;
    this.before = this.frames;
    this.frames = this.wanted;
    this.fade = 0;
  }
}
