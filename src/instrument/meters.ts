import { CHANNELS, WHOLE_CHANNEL } from '@/core/document/mix';
import type { Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';

/** Reports over which a meter's loudness is smoothed: some 300 ms. */
const SMOOTHED = 18;
/** Reports of the three seconds over which short-term loudness is measured (EBU Tech 3341). */
const SHORT_TERM = 188;
/** Of the weighted mean square, ITU-R BS.1770. */
const OFFSET = -0.691;

const dB = (power: number) => 10 * Math.log10(power);

/** How loud every channel of the mix is, as long as somebody looks. Views read it on the frame. */
export class Meters {
  private watchers = 0;
  /** Mean squares, smoothed; highest samples since they were touched; dB that the compressors take away. */
  private readonly powers = new Float64Array(CHANNELS);
  private readonly peaks = new Float64Array(CHANNELS);
  private readonly reductions = new Float64Array(CHANNELS);
  private readonly heard = new Uint8Array(CHANNELS);
  private readonly short: number[] = [];

  constructor(private readonly send: (instruction: Instruction) => void) {}

  /** Has the engine measure. @returns ends it, once nobody else looks */
  watch(): () => void {
    if (this.watchers++ === 0) this.send({ type: 'meters', on: true });
    return () => {
      if (--this.watchers === 0) this.send({ type: 'meters', on: false });
    };
  }

  /** The engine that measured is another one. */
  restart(): void {
    if (this.watchers > 0) this.send({ type: 'meters', on: true });
  }

  take(events: readonly EngineEvent[]): void {
    for (const event of events) {
      if (event.kind !== 'meter') continue;
      const { channel } = event;
      this.heard[channel] = 1;
      this.powers[channel]! += (event.power - this.powers[channel]!) / SMOOTHED;
      this.peaks[channel] = Math.max(this.peaks[channel]!, event.peak);
      this.reductions[channel] = event.reduction;
      // The whole mix comes last of each report, and silent channels are not told of.
      if (channel === WHOLE_CHANNEL) this.close(event.power);
    }
  }

  private close(power: number): void {
    for (let channel = 0; channel < CHANNELS; channel++) {
      if (this.heard[channel] === 0) this.powers[channel]! *= 1 - 1 / SMOOTHED;
    }
    this.heard.fill(0);
    this.short.push(power);
    if (this.short.length > SHORT_TERM) this.short.shift();
  }

  /** How loud a channel is, dB of the mean square of both sides; -Infinity in silence. */
  loudness(channel: number): number {
    return dB(this.powers[channel]!);
  }

  /** Its highest sample since it was reset, dB. */
  peak(channel: number): number {
    return 2 * dB(this.peaks[channel]!);
  }

  /** dB by which its compressor makes it softer. */
  reduction(channel: number): number {
    return this.reductions[channel]!;
  }

  resetPeak(channel: number): void {
    this.peaks[channel] = 0;
  }

  /** Of what leaves the app, over the last three seconds, LUFS. */
  get shortTerm(): number {
    const { short } = this;
    return short.length === 0 ? -Infinity : OFFSET + dB(short.reduce((sum, power) => sum + power, 0) / short.length);
  }
}
