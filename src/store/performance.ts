import { CURRENT_TRACK } from './selectors';
import type { EngineEvent } from '@/core/engine/protocol';
import { LIMITER_LATENCY } from '@/core/dsp/limiter';
import type { LoopWindow } from '@/core/model/set';
import { loopPosition } from '@/core/sequence/loopWindow';
import { tickAt, Timeline, type Anchor } from '@/core/time/timeline';

/** A pad that sounded, as the Flyway and the pads show it. */
export interface Sounded {
  /** Engine output frame at which it is heard. */
  heardFrame: number;
  pad: number;
  velocity: number;
  live: boolean;
  /** Song ticks; `placed` is NaN for a stroke that was not recorded. */
  struck: number;
  placed: number;
}

/** A loop window and the song tick from which it goes round. */
export interface DroppedWindow extends LoopWindow {
  tick: number;
}

const SOUNDED_KEPT = 512;
const STOPPED: Anchor = { frame: 0, tick: 0, framesPerTick: 1, playing: false, recording: false };

/**
 * The performance as the engine reports it: where the song is and what sounded. It never passes through Redux: views
 * read it on every frame that they draw.
 */
export class Performance {
  /** What sounded last, oldest first. */
  readonly sounded: Sounded[] = [];
  /** Song tick where the count-in ends. */
  fromTick = 0;
  /** Song tick at which the current track's loop was at its start. */
  loopStart = 0;
  /** The loop window that waits for its beat or bar, or null. */
  coming: DroppedWindow | null = null;
  voices = 0;
  /** The windows of the current track that went round last, the newest last. */
  private windows: DroppedWindow[] = [];
  private timeline = new Timeline(STOPPED);
  private readonly listeners = new Set<(sounded: Sounded) => void>();

  /** @param frameHeardAt engine output frame heard at a time stamp (ms) */
  constructor(readonly frameHeardAt: (timeStamp: number) => number) {}

  get anchor(): Anchor {
    return this.timeline.now;
  }

  /** Song tick that the player hears at `timeStamp` (ms). */
  tickHeard(timeStamp: number): number {
    return this.timeline.tickAt(this.frameHeardAt(timeStamp) - LIMITER_LATENCY);
  }

  /** The loop window that goes round at a song tick. Before the engine told of one it is empty. */
  windowAt(songTick: number): LoopWindow {
    return this.windows.findLast(({ tick }) => tick <= songTick) ?? this.windows[0] ?? { start: 0, length: 0 };
  }

  /** Where the current track's loop is at a song tick, in ticks of its pattern. */
  positionAt(songTick: number): number {
    const window = this.windowAt(songTick);
    return window.length > 0 ? loopPosition(window, Math.max(0, songTick) - this.loopStart) : 0;
  }

  /** Song tick at an engine frame, or null when the song stood still then. */
  songTickAt(frame: number): number | null {
    const piece = this.timeline.at(frame);
    return piece.playing ? tickAt(piece, frame) : null;
  }

  /** Calls back with every pad that sounds, as soon as the engine reports it: a little before it is heard. */
  onSounded(listener: (sounded: Sounded) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  take(event: EngineEvent): void {
    switch (event.kind) {
      case 'anchor':
        this.fromTick = event.fromTick;
        if (event.playing && !this.anchor.playing) {
          this.loopStart = 0;
          // Song ticks come round again: the newest window goes round from the start.
          this.windows = this.windows.slice(-1).map((window) => ({ ...window, tick: -Infinity }));
        }
        if (!event.playing) this.coming = null;
        this.timeline.push(event);
        // A new start: what sounded in the last one would lie at the same ticks.
        if (event.playing && event.tick <= event.fromTick && this.sounded.length > 0) this.sounded.length = 0;
        return;
      case 'sounded': {
        const { frame, pad, velocity, live, struck, placed } = event;
        const sounded = { heardFrame: frame + LIMITER_LATENCY, pad, velocity, live, struck, placed };
        this.sounded.push(sounded);
        if (this.sounded.length > SOUNDED_KEPT) this.sounded.shift();
        for (const listener of this.listeners) listener(sounded);
        return;
      }
      case 'window': {
        if (event.track !== CURRENT_TRACK) return;
        const { start, length, tick, waiting } = event;
        this.coming = waiting ? { start, length, tick } : null;
        if (!waiting) this.windows = [...this.windows.slice(-7), { start, length, tick }];
        return;
      }
      case 'state':
        this.voices = event.voices;
        return;
    }
  }
}
