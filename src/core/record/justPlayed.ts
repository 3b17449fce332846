/** One stroke by hand, whether or not it was recorded. */
export interface PlayedStroke {
  /** The engine's name of the stroke. */
  id: number;
  track: number;
  pad: number;
  /** 0..1 */
  velocity: number;
  /** Semitones from the pad's own pitch; absent: none. */
  pitch?: number;
  /** When it was struck as the player heard it, ms on a clock of its own that never stops. */
  ms: number;
  /** Song tick at which it was struck, or null when the song stood still. */
  songTick: number | null;
  /** How long the pad was held, ms; 0 until it is let go. */
  heldMs: number;
}

/** What is remembered of free playing. */
export const REMEMBERED_MS = 4 * 60_000;
/** What is remembered of playing with the song. */
export const REMEMBERED_BARS = 64;

/**
 * The memory of everything that was just played, armed or not: the last 64 bars with the song, the last 4 minutes
 * without. One stretch is either with the song or free: whichever was played last.
 */
export class JustPlayed {
  private strokes: PlayedStroke[] = [];

  /** @param barTicks length of a bar in ticks, for what is too old */
  add(stroke: PlayedStroke, barTicks: number): void {
    const last = this.strokes[this.strokes.length - 1];
    // The song went back or began anew: its ticks come round again, and the old ones would lie among the new.
    if (last && last.songTick !== null && stroke.songTick !== null && stroke.songTick < last.songTick - barTicks / 2) {
      this.strokes = this.strokes.filter((old) => old.songTick === null);
    }
    this.strokes.push(stroke);
    if (this.strokes.length > 64 && this.isOld(this.strokes[0]!, stroke, barTicks)) {
      this.strokes = this.strokes.filter((old) => !this.isOld(old, stroke, barTicks));
    }
  }

  /** The stroke's pad was let go. */
  release(id: number, heldMs: number): void {
    for (let i = this.strokes.length - 1; i >= 0; i--) {
      if (this.strokes[i]!.id !== id) continue;
      this.strokes[i]!.heldMs = heldMs;
      return;
    }
  }

  /** The last stretch of playing on a track: all with the song, or all without it. Oldest first. */
  lastStretch(track: number): readonly PlayedStroke[] {
    const own = this.strokes.filter((s) => s.track === track);
    const withSong = own[own.length - 1]?.songTick !== null;
    let from = own.length;
    while (from > 0 && (own[from - 1]!.songTick !== null) === withSong) from--;
    return own.slice(from);
  }

  private isOld(old: PlayedStroke, now: PlayedStroke, barTicks: number): boolean {
    if (old.songTick !== null && now.songTick !== null) return old.songTick < now.songTick - REMEMBERED_BARS * barTicks;
    return old.ms < now.ms - REMEMBERED_MS;
  }
}
