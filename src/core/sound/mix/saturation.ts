import { decibels } from '../../math';
import { Glide, glideLooks, setOut, stayThere } from './glide';
import { isEmpty } from './isEmpty';
import type { MixBus } from './mixBus';
import {
  ALL_PASSES,
  bend,
  FIRST_SATURATION_STEP,
  GAIN,
  MAKE_UP,
  saturate,
  SATURATION_NUMBERS,
  SHARE,
} from './saturationLoop';

/** dB into the curve as the drive leaves 0, where hardly anything is bent, and at its end. */
const LEAST_DB = -18;
const MOST_DB = 18;
/** What has this peak, -12 dBFS, keeps it: a channel that is driven harder is not louder for that. */
const KEPT = 0.25;

/**
 * Drive of a channel: a curve that is flat at its ends, at four times the sample rate, so that what it adds above half of it does not fold down. The
 * all-passes before and after it take a few samples, so it comes and goes by a cross-fade. At 0 it is not there.
 */
export class Saturation {
  /** 0..1 */
  readonly amount: Glide;
  isOn = false;
  private readonly share: Glide;
  private readonly numbers = new Float64Array(SATURATION_NUMBERS);
  private readonly targets = new Float64Array(FIRST_SATURATION_STEP);
  private isMoving = false;

  constructor(sampleRate: number) {
    const looks = glideLooks(sampleRate);
    this.amount = new Glide(0, looks);
    this.share = new Glide(0, looks);
  }

  /** Whether it is there, or will be at the next look. */
  get isWanted(): boolean {
    return this.isOn || !this.amount.isThere || this.amount.value !== 0;
  }

  /** Whether nothing rings in it. */
  get isQuiet(): boolean {
    return isEmpty(this.numbers, ALL_PASSES);
  }

  /** Whether a look would change nothing of it. */
  get isStill(): boolean {
    const { amount, share, isMoving, isOn } = this;
    return amount.isThere && share.isThere && !isMoving && isOn === amount.value > 0;
  }

  arrive(): void {
    const { amount, share } = this;
    amount.arrive();
    this.isOn = amount.value > 0;
    share.goTo(this.isOn ? 1 : 0);
    share.arrive();
    if (this.isOn) {
      this.aim();
      this.stay();
    }
    this.clear();
  }

  look(): void {
    const { amount, share } = this;
    const wasThere = amount.value > 0;
    const moves = amount.look();
    const isThere = amount.value > 0;
    if (isThere !== wasThere) share.goTo(isThere ? 1 : 0);
    if (!isThere && !this.isOn) return;
    const comes = share.look();
    // Before it is heard there is nothing to move on from.
    if (!this.isOn) {
      this.aim();
      this.numbers.set(this.targets);
      this.numbers[SHARE] = 0;
    }
    if (moves || comes) this.aim();
    else this.stay();
    this.isOn = comes || isThere;
    // Arithmetic on the smallest numbers there are is many times slower.
    if (!this.isOn || this.isQuiet) this.clear();
  }

  process(bus: MixBus, from: number, frames: number): void {
    if (this.isOn) saturate(this.numbers, bus, from, frames);
  }

  /** At the next look its numbers will be those of where it is now. */
  private aim(): void {
    const { numbers, targets } = this;
    const gain = decibels(LEAST_DB + (MOST_DB - LEAST_DB) * this.amount.value);
    targets[GAIN] = gain;
    targets[MAKE_UP] = KEPT / bend(KEPT * gain);
    targets[SHARE] = this.share.value;
    setOut(numbers, targets);
    this.isMoving = true;
  }

  /** What has come to its place is there to the bit. */
  private stay(): void {
    if (!this.isMoving) return;
    this.isMoving = false;
    stayThere(this.numbers, this.targets);
  }

  private clear(): void {
    this.numbers.fill(0, ALL_PASSES);
  }
}
