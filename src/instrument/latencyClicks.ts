import type { Instruction } from '@/core/protocol/commands';
import { LIMITER_LATENCY } from '@/core/sound/limiter';
import { CHECK_CLICKS, LEAD_IN_CLICKS } from '@/core/time/latency';
import type { EngineHost } from './engineHost';

/** A latency check: clicks at a steady pace apart from the song, to be tapped along with. */
export class LatencyClicks {
  /** Times (ms, as `performance.now()`) at which the clicks so far are heard. */
  readonly heardAt: number[] = [];

  constructor(private readonly host: EngineHost) {}

  start(): void {
    this.heardAt.length = 0;
    this.send({ type: 'stop' }, { type: 'latencyCheck', clicks: LEAD_IN_CLICKS + CHECK_CLICKS });
  }

  stop(): void {
    this.send({ type: 'latencyCheck', clicks: 0 });
  }

  /** A click has left the engine at a frame. */
  clicked(frame: number): void {
    const now = window.performance.now();
    const ago = (this.host.engineFrameHeard(now) - frame - LIMITER_LATENCY) / this.host.sampleRate;
    this.heardAt.push(now - ago * 1000);
  }

  private send(...instructions: Instruction[]): void {
    this.host.sendAll(instructions);
  }
}
