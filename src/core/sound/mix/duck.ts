import { MIX_RANGES } from '../../document/mix';
import { decibels } from '../../math';
import { Glide, glideLooks, LOOK_FRAMES } from './glide';

/** So long it goes down. */
const DOWN_SECONDS = 0.004;

/**
 * Makes room for a stroke: down at once, by as much as the stroke is hard, and evenly back, so many dB in each moment. It follows strokes and not
 * sound: it costs nothing to listen to, and a stroke that is itself not heard, as that of a muted track, has it duck as well.
 */
export class Duck {
  private readonly depth: Glide;
  private readonly time: Glide;
  /** The last stroke: its frame, how far down it was there, and how far it goes, as shares. */
  private struckAt = -Infinity;
  private from = 0;
  private to = 0;
  private last = 1;

  constructor(private readonly sampleRate: number) {
    const looks = glideLooks(sampleRate);
    this.depth = new Glide(MIX_RANGES.duck.neutral, looks);
    this.time = new Glide(MIX_RANGES.duckTime.neutral, looks);
  }

  get isWanted(): boolean {
    return this.depth.value !== 0 || !this.depth.isThere;
  }

  /** Whether its settings are where they were told to be. */
  get isThere(): boolean {
    return this.depth.isThere && (this.time.isThere || !this.isWanted);
  }

  /** Depth in dB, time in ms. */
  set(setting: 'duck' | 'duckTime', value: number): void {
    (setting === 'duck' ? this.depth : this.time).goTo(value);
  }

  arrive(): void {
    this.depth.arrive();
    this.time.arrive();
  }

  /** @param velocity 0..1 */
  strike(velocity: number, frame: number): void {
    this.from = this.shareAt(frame);
    this.to = Math.max(this.from, velocity);
    this.struckAt = frame;
  }

  /** Whether it is back. */
  isOver(frame: number): boolean {
    return this.shareAt(frame) === 0;
  }

  /** Goes on by one look. @returns whether the gain moves until the next one, or has moved to this one */
  look(frame: number): boolean {
    const moved = this.depth.look();
    this.time.look();
    const gain = this.gainAt(frame + LOOK_FRAMES);
    const wasElsewhere = gain !== this.last;
    this.last = gain;
    return moved || wasElsewhere || gain !== 1;
  }

  gainAt(frame: number): number {
    if (this.depth.value === 0) return 1;
    const share = this.shareAt(frame);
    return share === 0 ? 1 : decibels(-this.depth.value * share);
  }

  /** How far down it is, 0..1. */
  private shareAt(frame: number): number {
    const seconds = (frame - this.struckAt) / this.sampleRate;
    if (seconds < DOWN_SECONDS) return this.from + ((this.to - this.from) * Math.max(0, seconds)) / DOWN_SECONDS;
    const back = (1000 * (seconds - DOWN_SECONDS)) / this.time.value;
    return back >= 1 ? 0 : this.to * (1 - back);
  }
}
