/** Fewest ticks that are shown at once: a beat. */
const LEAST = 960;

/** The part of a score that is seen, in ticks. Canvases draw it on the frame; nothing of it passes through React. */
export class ScoreView {
  from = 0;
  to: number;
  private readonly listeners = new Set<() => void>();

  /** @param length ticks of the score */
  constructor(private length: number) {
    this.to = length;
  }

  get span(): number {
    return this.to - this.from;
  }

  /** The score became longer or shorter. */
  fit(length: number): void {
    if (length === this.length) return;
    this.length = length;
    this.show(this.from, this.to);
  }

  /** Shows a stretch, brought to what there is. */
  show(from: number, to: number): void {
    const span = Math.min(this.length, Math.max(LEAST, to - from));
    this.from = Math.min(Math.max(0, from), this.length - span);
    this.to = this.from + span;
    this.tell();
  }

  scroll(ticks: number): void {
    this.show(this.from + ticks, this.to + ticks);
  }

  /** Shows so many times as much, with one tick staying where it is. */
  zoom(by: number, at: number): void {
    const span = Math.min(this.length, Math.max(LEAST, this.span * by));
    const from = at - ((at - this.from) / this.span) * span;
    this.show(from, from + span);
  }

  /** Brings a tick into sight, with room ahead of it. */
  reveal(tick: number): void {
    if (tick >= this.from && tick < this.to) return;
    const from = tick - this.span * 0.1;
    this.show(from, from + this.span);
  }

  /** Calls back whenever something else is seen. Returns what ends it. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}
