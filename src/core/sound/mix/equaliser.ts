import { MIX_RANGES } from '../../document/mix';
import { decibels, tanHalfTurns } from '../../math';
import { Band } from './band';
import { Glide, glideLooks } from './glide';
import type { MixBus } from './mixBus';
import { HIGH_SHELF_HZ, LOW_SHELF_HZ, SHELF_Q } from './shelves';

/** Nothing is tuned higher than this share of the sample rate. */
const HIGHEST = 0.49;

type Kind = 'low' | 'high' | 'bell';

/**
 * One band of an equaliser: a shelf or a bell of R. Bristow-Johnson's Audio EQ Cookbook, to the same response. Where its gain is 0 it is
 * not rendered.
 */
class EqualiserBand {
  readonly gain: Glide;
  readonly hz: Glide;
  readonly q: Glide;
  /** Whether it is rendered. */
  isOn = false;
  readonly band = new Band();

  constructor(
    private readonly kind: Kind,
    hz: number,
    q: number,
    private readonly sampleRate: number,
  ) {
    const looks = glideLooks(sampleRate);
    this.gain = new Glide(0, looks);
    this.hz = new Glide(hz, looks);
    this.q = new Glide(q, looks);
    this.aim(true);
  }

  /** Whether it is, or will be at the next look. */
  get isWanted(): boolean {
    return this.isOn || !this.gain.isThere || this.gain.value !== 0;
  }

  get isQuiet(): boolean {
    return this.band.isQuiet;
  }

  /** Whether a look would change nothing of it. */
  get isStill(): boolean {
    const { gain, hz, q, band, isOn } = this;
    return gain.isThere && hz.isThere && q.isThere && !band.isMoving && isOn === (gain.value !== 0);
  }

  arrive(): void {
    this.gain.arrive();
    this.hz.arrive();
    this.q.arrive();
    this.isOn = this.gain.value !== 0;
    this.aim(true);
    this.band.clear();
  }

  look(): void {
    const { gain, hz, q, band } = this;
    if (!this.isWanted) {
      // Nobody hears where it is.
      if (!hz.isThere || !q.isThere) this.arrive();
      return;
    }
    const turned = gain.look();
    const tuned = hz.look();
    const narrowed = q.look();
    if (turned || tuned || narrowed) this.aim(false);
    else band.stay();
    this.isOn = turned || gain.value !== 0;
    if (this.isOn) band.settle();
    else band.clear();
  }

  process(bus: MixBus, from: number, frames: number): void {
    if (this.isOn) this.band.process(bus, from, frames);
  }

  /** Numbers of the filter, from the sum of input, band and low that is this kind (A. Simper, 2013). */
  private aim(atOnce: boolean): void {
    const { band, kind, sampleRate } = this;
    const dB = this.gain.value;
    const amplitude = decibels(dB / 2);
    const square = amplitude * amplitude;
    const g = tanHalfTurns(Math.min(HIGHEST, this.hz.value / sampleRate));
    const k = 1 / this.q.value;
    if (kind === 'bell') band.moveTo(g, k / amplitude, 1, (k / amplitude) * (square - 1), 0);
    else if (kind === 'low') band.moveTo(g / decibels(dB / 4), k, 1, k * (amplitude - 1), square - 1);
    else band.moveTo(g * decibels(dB / 4), k, square, k * (1 - amplitude) * amplitude, 1 - square);
    if (atOnce) band.stay();
  }
}

/** A low shelf, a bell and a high shelf. Gains go in a line of dB, the bell's place in one of hertz. */
export class Equaliser {
  readonly low: EqualiserBand;
  readonly bell: EqualiserBand;
  readonly high: EqualiserBand;

  constructor(sampleRate: number) {
    this.low = new EqualiserBand('low', LOW_SHELF_HZ, SHELF_Q, sampleRate);
    this.bell = new EqualiserBand('bell', MIX_RANGES.bellHz.neutral, MIX_RANGES.bellQ.neutral, sampleRate);
    this.high = new EqualiserBand('high', HIGH_SHELF_HZ, SHELF_Q, sampleRate);
  }

  get isWanted(): boolean {
    return this.low.isWanted || this.bell.isWanted || this.high.isWanted;
  }

  get isQuiet(): boolean {
    return this.low.isQuiet && this.bell.isQuiet && this.high.isQuiet;
  }

  get isStill(): boolean {
    return this.low.isStill && this.bell.isStill && this.high.isStill;
  }

  /** Every setting is at once where it is to be, and nothing rings. */
  arrive(): void {
    this.low.arrive();
    this.bell.arrive();
    this.high.arrive();
  }

  look(): void {
    this.low.look();
    this.bell.look();
    this.high.look();
  }

  process(bus: MixBus, from: number, frames: number): void {
    const { low, bell, high } = this;
    if (low.isOn && bell.isOn && high.isOn) {
      return Band.processThree(low.band, bell.band, high.band, bus, from, frames);
    }
    low.process(bus, from, frames);
    bell.process(bus, from, frames);
    high.process(bus, from, frames);
  }
}
