import { random } from '@/core/random';
import type { BenchDevice } from './benchDevice';

/** How often it looks for what is due, ms. */
const LOOK_MS = 4;
const CLOCKS_PER_QUARTER = 24;

/** A clock that another instrument would send: steady, or as unsteady as it is told to be. */
export class ClockSource {
  tempo = 120;
  /** Each tick is early or late by up to so much, ms. */
  jitterMs = 0;
  /** The share of ticks that never come, 0..1. */
  lost = 0;
  private timer: ReturnType<typeof setInterval> | null = null;
  /** When the next tick is due, ms. */
  private next = 0;
  private readonly chance = random(1);

  constructor(private readonly device: BenchDevice) {}

  get isRunning(): boolean {
    return this.timer !== null;
  }

  start(): void {
    if (this.timer !== null) return;
    this.next = performance.now() + 20;
    this.device.send({ type: 'start' }, this.next);
    this.timer = setInterval(() => this.look(), LOOK_MS);
  }

  stop(): void {
    if (this.timer === null) return;
    clearInterval(this.timer);
    this.timer = null;
    this.device.send({ type: 'stop' });
  }

  private look(): void {
    for (; this.next <= performance.now(); this.next += 60000 / this.tempo / CLOCKS_PER_QUARTER) {
      if (this.chance() < this.lost) continue;
      this.device.send({ type: 'clock' }, this.next + (2 * this.chance() - 1) * this.jitterMs);
    }
  }
}
