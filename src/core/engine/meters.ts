import { CHANNELS, WHOLE_CHANNEL } from '../document/mix';
import type { Handlers } from '../protocol/commands';
import type { EventQueue } from '../protocol/events';
import { Weighting } from '../measure/weighting';
import type { MixBus } from '../sound/mix/mixBus';
import type { Strip } from '../sound/mix/strip';
import type { FramePart } from './part';
import type { Transport } from './transport';

/** Frames between two reports: more often than a display shows. */
const REPORT_FRAMES = 768;

/** How loud each channel is, told while somebody looks. Nothing is measured otherwise. */
export class Meters implements FramePart {
  isOn = false;
  private next = Infinity;
  private since = 0;
  /** Of each channel since the last report: the highest sample, and the sum of the squares of both sides. */
  private readonly peaks = new Float64Array(CHANNELS);
  private readonly energies = new Float64Array(CHANNELS);
  /** What leaves the app, weighted as loudness is (ITU-R BS.1770), and its highest sample. */
  private readonly weighting: readonly [Weighting, Weighting];
  private loudness = 0;
  private out = 0;

  constructor(
    sampleRate: number,
    private readonly transport: Transport,
    private readonly events: EventQueue,
    private readonly strips: readonly Strip[],
  ) {
    this.weighting = [new Weighting(sampleRate), new Weighting(sampleRate)];
  }

  readonly commands: Handlers<'meters'> = {
    meters: ({ on }) => {
      this.isOn = on;
      this.since = this.transport.frame;
      this.next = on ? this.since + REPORT_FRAMES : Infinity;
      this.clear();
    },
  };

  /** Looks at a channel's bus, before its level. */
  look(channel: number, { left, right }: MixBus, gain: number, frames: number): void {
    let peak = this.peaks[channel]! / (gain || 1);
    let energy = 0;
    for (let i = 0; i < frames; i++) {
      const l = left[i]!;
      const r = right[i]!;
      const a = Math.abs(l);
      const b = Math.abs(r);
      if (a > peak) peak = a;
      if (b > peak) peak = b;
      energy += l * l + r * r;
    }
    this.peaks[channel] = gain === 0 ? this.peaks[channel]! : peak * gain;
    this.energies[channel]! += energy * gain * gain;
  }

  /** Looks at what leaves the app. */
  lookOut(left: Float32Array, right: Float32Array, from: number, frames: number): void {
    const to = from + frames;
    this.loudness += this.weighting[0].energy(left, from, to) + this.weighting[1].energy(right, from, to);
    for (let i = from; i < to; i++) {
      const l = Math.abs(left[i]!);
      const r = Math.abs(right[i]!);
      if (l > this.out) this.out = l;
      if (r > this.out) this.out = r;
    }
  }

  nextFrame(): number {
    return this.next;
  }

  playFrame(): void {
    const frames = this.next - this.since;
    for (let channel = 0; channel < CHANNELS; channel++) {
      const isWhole = channel === WHOLE_CHANNEL;
      if (!isWhole && this.peaks[channel] === 0) continue;
      const event = this.events.add('meter', this.next);
      event.channel = channel;
      event.peak = isWhole ? this.out : this.peaks[channel]!;
      event.power = (isWhole ? this.loudness : this.energies[channel]!) / frames;
      event.reduction = this.strips[channel]!.reduction;
    }
    this.clear();
    this.since = this.next;
    this.next += REPORT_FRAMES;
  }

  private clear(): void {
    this.peaks.fill(0);
    this.energies.fill(0);
    this.loudness = 0;
    this.out = 0;
  }
}
