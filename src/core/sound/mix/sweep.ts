import { exp2, tanHalfTurns } from '../../math';
import { Band } from './band';
import { Glide, glideLooks } from './glide';
import type { MixBus } from './mixBus';

/** Where the low-pass and the high-pass stand as the strip leaves its middle, Hz. */
const OPEN_HZ = 20000;
const LOWEST_HZ = 20;
/** Octaves from there to the strip's ends: 60 Hz at the left one, 10 kHz at the right one. */
const OCTAVES_DOWN = 8.380821783940931;
const OCTAVES_UP = 8.965784284662087;
/** A little more than flat: the edge is heard as it moves. */
const DAMPING = 1 / 0.9;
/** Nothing is tuned higher than this share of the sample rate. */
const HIGHEST = 0.49;

/**
 * A filter on one strip: left of the middle it closes from above (low-pass), right of it from below (high-pass), both of 12 dB an octave.
 * In the middle it is not there.
 */
export class Sweep {
  readonly place: Glide;
  private readonly low: Side;
  private readonly high: Side;

  constructor(sampleRate: number) {
    this.place = new Glide(0, glideLooks(sampleRate));
    this.low = new Side(sampleRate, true);
    this.high = new Side(sampleRate, false);
  }

  get isWanted(): boolean {
    return this.low.isOn || this.high.isOn || !this.place.isThere || this.place.value !== 0;
  }

  get isQuiet(): boolean {
    return this.low.isQuiet && this.high.isQuiet;
  }

  /** Whether a look would change nothing of it. */
  get isStill(): boolean {
    return this.place.isThere && this.low.isStill && this.high.isStill;
  }

  arrive(): void {
    this.place.arrive();
    this.low.arrive(this.place.value);
    this.high.arrive(this.place.value);
  }

  look(): void {
    this.place.look();
    this.low.look(this.place.value);
    this.high.look(this.place.value);
  }

  process(bus: MixBus, from: number, frames: number): void {
    this.low.process(bus, from, frames);
    this.high.process(bus, from, frames);
  }
}

/** The low-pass or the high-pass. It comes and goes by a cross-fade, since none of them is ever quite open. */
class Side {
  isOn = false;
  private readonly band = new Band();
  private readonly share: Glide;
  private isWanted = false;
  private place = 0;

  constructor(
    private readonly sampleRate: number,
    private readonly isLow: boolean,
  ) {
    this.share = new Glide(0, glideLooks(sampleRate));
    this.aim(0, 0);
    this.band.stay();
  }

  get isQuiet(): boolean {
    return this.band.isQuiet;
  }

  get isStill(): boolean {
    return this.share.isThere && !this.band.isMoving && this.isOn === this.isWanted;
  }

  private wants(place: number): boolean {
    return this.isLow ? place < 0 : place > 0;
  }

  arrive(place: number): void {
    this.isWanted = this.isOn = this.wants(place);
    this.share.goTo(this.isOn ? 1 : 0);
    this.share.arrive();
    this.aim(place, this.share.value);
    this.band.stay();
    this.band.clear();
  }

  look(place: number): void {
    const isWanted = this.wants(place);
    if (isWanted !== this.isWanted) this.share.goTo(isWanted ? 1 : 0);
    this.isWanted = isWanted;
    if (!isWanted && !this.isOn) return;
    const comes = this.share.look();
    if (comes || place !== this.place) this.aim(place, this.share.value);
    else this.band.stay();
    this.isOn = comes || isWanted;
    if (this.isOn) this.band.settle();
    else this.band.clear();
  }

  private aim(place: number, share: number): void {
    this.place = place;
    const { band, sampleRate } = this;
    if (this.isLow) {
      const hz = OPEN_HZ * exp2(OCTAVES_DOWN * Math.min(0, place));
      band.moveTo(tanHalfTurns(Math.min(HIGHEST, hz / sampleRate)), DAMPING, 1 - share, 0, share);
    } else {
      const hz = LOWEST_HZ * exp2(OCTAVES_UP * Math.max(0, place));
      band.moveTo(tanHalfTurns(Math.min(HIGHEST, hz / sampleRate)), DAMPING, 1, -DAMPING * share, -share);
    }
  }

  process(bus: MixBus, from: number, frames: number): void {
    if (this.isOn) this.band.process(bus, from, frames);
  }
}

/** Hz at which a place of the strip cuts; null in the middle, where nothing is cut. */
export function sweepHz(place: number): number | null {
  if (place === 0) return null;
  return place < 0 ? OPEN_HZ * exp2(OCTAVES_DOWN * place) : LOWEST_HZ * exp2(OCTAVES_UP * place);
}
