import type { Handlers } from '../protocol/commands';
import { CLICK } from '../sequence/clicks';
import type { Metronome } from './metronome';
import type { FramePart } from './part';
import type { Transport } from './transport';
import type { EventQueue } from '../protocol/events';

/** Seconds between two clicks: a calm 100 to the minute. */
const SECONDS = 0.6;

/** Clicks at a steady pace apart from the song, to be tapped along with. */
export class LatencyCheck implements FramePart {
  private left = 0;
  private click = 0;
  private frame = Infinity;

  constructor(
    private readonly sampleRate: number,
    private readonly transport: Transport,
    private readonly metronome: Metronome,
    private readonly events: EventQueue,
  ) {}

  readonly commands: Handlers<'latencyCheck'> = {
    latencyCheck: ({ clicks }) => {
      this.left = clicks;
      this.click = 0;
      this.frame = clicks > 0 ? this.transport.frame : Infinity;
    },
  };

  get isOn(): boolean {
    return this.frame < Infinity;
  }

  nextFrame(): number {
    return this.frame;
  }

  playFrame(): void {
    this.metronome.click.start(this.metronome.sound, CLICK.BEAT, 1);
    this.events.add('checked', this.transport.frame).click = this.click++;
    this.frame = --this.left > 0 ? this.transport.frame + Math.round(SECONDS * this.sampleRate) : Infinity;
  }
}
