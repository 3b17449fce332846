import type { EngineEvent } from '@/core/engine/protocol';
import { LIMITER_LATENCY } from '@/core/dsp/limiter';
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
  voices = 0;
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
        if (event.playing && !this.anchor.playing) this.loopStart = 0;
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
      case 'state':
        this.voices = event.voices;
        return;
    }
  }
}
