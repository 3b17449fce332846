import { exp2 } from '../math';
import { HALF_TAPS, kernelTable, PHASES, TAPS } from '../sample/kernel';
import { levelFor, MARGIN, SAMPLE_RATE, type PreparedSample } from '../sample/levels';
import type { SamplePatch } from './patch';
import { MAX_STRETCH } from './stretch';
import { differs, PITCH_VARIATION, type Touch } from './touch';

/**
 * Frames of the sample over which it comes where it does not begin with its first frame, and goes beyond where it does not end with
 * its last. Two parts that meet are together what they were as one.
 */
const EDGE = 32;
/** And over which a loop's end passes into its beginning. */
const JOIN = 240;
/** Softer than this its decay is over: 90 dB down. */
const SILENCE = 3.2e-5;
/** Octaves of gain in 60 dB. */
const SIXTY_DB = -9.965784284662087;

/** Room to work in: where the next frames are read, and how loud; and what passes into the beginning of another round. */
const places = new Float64Array(MAX_STRETCH);
const gains = new Float64Array(MAX_STRETCH);
const otherPlaces = new Float64Array(MAX_STRETCH);
const otherGains = new Float64Array(MAX_STRETCH);

/**
 * Plays a sample: read at any speed by windowed-sinc interpolation, forwards or backwards, once or round and round. All state is per
 * sample of sound, so how a render is cut into blocks changes nothing.
 */
export class SampleVoice {
  sounding = false;
  /** Whether it has two channels. */
  isStereo = false;

  private sample!: PreparedSample;
  /** Frames of the sample: where it is read next, and how far it goes with each frame of sound; below 0 backwards. */
  private at = 0;
  private step = 1;
  private struckStep = 1;
  /** The stretch that is read, and the last place of it. */
  private from = 0;
  private to = 0;
  private last = 0;
  /** Where it has come in, and where it begins to go. */
  private edgeIn = 0;
  private edgeOut = 0;
  private isLooped = false;
  private gain = 0;
  private decay = 1;
  private holdLeft = 0;

  constructor(private readonly sampleRate: number) {}

  /** @param later share of the sample by which it begins later, or below 0 sooner: backwards, nearer to the start */
  start(sample: PreparedSample, { start, end, reverse, looped }: SamplePatch, touch: Touch, later = 0): void {
    const { frames } = sample;
    this.sample = sample;
    this.isStereo = sample.levels[0]!.channels.length > 1;
    const from = Math.min(start, end) + (reverse ? 0 : later);
    const to = Math.max(start, end) - (reverse ? later : 0);
    this.from = Math.round(Math.min(1, Math.max(0, from)) * frames);
    this.to = Math.round(Math.min(1, Math.max(0, to)) * frames);
    // Something is left of it, however late it begins.
    if (reverse) this.to = Math.max(this.to, this.from + 1);
    else this.from = Math.max(0, Math.min(this.from, this.to - 1));
    this.to = Math.max(this.to, this.from + 1);
    this.isLooped = looped && this.to - this.from > 2 * JOIN;
    this.last = this.isLooped ? Infinity : Math.min(frames - 1, this.to - 1 + EDGE);
    // Of what goes round, only the end where it begins.
    this.edgeIn = this.from > 0 && !(this.isLooped && reverse) ? this.from + EDGE : -Infinity;
    const out = this.isLooped ? this.to - EDGE : this.to;
    this.edgeOut = this.to < frames && !(this.isLooped && !reverse) ? out : Infinity;
    const varied = differs(touch, 1) * PITCH_VARIATION;
    const speed = (touch.pitch * exp2(varied / 12) * SAMPLE_RATE) / this.sampleRate;
    this.struckStep = this.step = reverse ? -speed : speed;
    this.at = reverse ? Math.min(this.last, this.to - 1) : this.from;
    this.gain = touch.gain;
    this.holdLeft = Math.round(touch.hold * this.sampleRate);
    // One that is half as long is 60 dB down where half of it is over; one that is not made shorter never decays.
    const framesOfSound = ((this.to - this.from) * this.sampleRate) / SAMPLE_RATE;
    this.decay = touch.longer < 1 ? exp2((SIXTY_DB * (1 / touch.longer - 1)) / framesOfSound) : 1;
    this.sounding = true;
  }

  /** From the next frame on its pitch is so many times that at which it was struck. */
  bend(ratio: number): void {
    this.step = this.struckStep * ratio;
  }

  /** Adds the next frames (at most MAX_STRETCH) to `left`, and to `right` if it has two channels, from their start. */
  render(left: Float64Array, right: Float64Array, frames: number): void {
    const { levels } = this.sample;
    const level = levels[levelFor(this.step < 0 ? -this.step : this.step, levels.length)]!;
    // Frame by frame there is nothing to be read between.
    const isWhole = (this.step === 1 || this.step === -1) && this.at % 1 === 0;
    const count = this.isLooped ? this.goRound(frames) : this.goOn(frames);
    const add = isWhole ? copyPlaces : readPlaces;
    add(level.channels[0]!, 1 / level.every, places, gains, count, left);
    if (level.channels[1]) add(level.channels[1], 1 / level.every, places, gains, count, right);
    if (!this.isLooped) return;
    readPlaces(level.channels[0]!, 1 / level.every, otherPlaces, otherGains, count, left);
    if (level.channels[1]) readPlaces(level.channels[1], 1 / level.every, otherPlaces, otherGains, count, right);
  }

  // --- where it is read, and how loud -----------------------------------------------------------------------

  /** Notes the places and gains of the next frames. Returns how many there are before it is over. */
  private goOn(frames: number): number {
    let i = this.goOnPlain(frames);
    for (; i < frames; i++) {
      const { at, from } = this;
      if (at > this.last || at < from || this.gain < SILENCE) {
        this.sounding = false;
        break;
      }
      this.note(i);
      this.at = at + this.step;
    }
    return i;
  }

  /** Notes where it is, and how loud there; the next frame is softer as it decays. */
  private note(i: number): void {
    const { at } = this;
    places[i] = at;
    gains[i] = this.gain;
    if (at < this.edgeIn) gains[i]! *= (at - this.from) / EDGE;
    if (at >= this.edgeOut) gains[i]! *= 1 - (at - this.edgeOut) / EDGE;
    if (this.holdLeft > 0) this.holdLeft--;
    else this.gain *= this.decay;
  }

  /** As many frames as surely lie between the edges: most do. */
  private goOnPlain(frames: number): number {
    const { step, decay } = this;
    let { at, gain } = this;
    const forward = step > 0;
    const first = Math.max(this.from, this.edgeIn);
    const end = Math.min(this.last, this.edgeOut);
    if (this.holdLeft > 0 || gain < 2 * SILENCE || at < first || at > end) return 0;
    const count = Math.min(frames, Math.floor((forward ? end - at : first - at) / step) - 2);
    for (let i = 0; i < count; i++) {
      places[i] = at;
      gains[i] = gain;
      at += step;
      gain *= decay;
    }
    this.at = at;
    this.gain = gain;
    return Math.max(0, count);
  }

  /** The same for what goes round: near the end of a round what comes before its beginning takes over. */
  private goRound(frames: number): number {
    const { step, from, to, sample } = this;
    const length = to - from;
    const count = this.goOnRound(frames, length);
    for (let i = 0; i < count; i++) {
      const at = places[i]!;
      const share = 1 - (step > 0 ? to - at : at - from) / JOIN;
      const other = step > 0 ? at - length : at + length;
      const isHeard = share > 0 && other >= 0 && other <= sample.frames - 1;
      otherPlaces[i] = isHeard ? other : 0;
      otherGains[i] = isHeard ? gains[i]! * share : 0;
      if (share > 0) gains[i]! *= 1 - share;
    }
    return count;
  }

  private goOnRound(frames: number, length: number): number {
    const { step, from, to } = this;
    for (let i = 0; i < frames; i++) {
      if (this.gain < SILENCE) {
        this.sounding = false;
        return i;
      }
      this.note(i);
      const next = this.at + step;
      this.at = next >= to ? next - length : next < from ? next + length : next;
      // It comes in once.
      if (this.at !== next) {
        this.edgeIn = -Infinity;
        this.edgeOut = Infinity;
      }
    }
    return frames;
  }
}

/** Adds what lies at places that are frames of the sample. */
function copyPlaces(
  channel: Float32Array,
  per: number,
  at: Float64Array,
  gain: Float64Array,
  count: number,
  out: Float64Array,
): void {
  for (let i = 0; i < count; i++) out[i]! += channel[at[i]! * per + MARGIN]! * gain[i]!;
}

/** Adds what lies at places between the frames of a level. */
function readPlaces(
  channel: Float32Array,
  per: number,
  at: Float64Array,
  gain: Float64Array,
  count: number,
  out: Float64Array,
): void {
  const { weights, slopes } = kernelTable();
  for (let i = 0; i < count; i++) {
    const exact = at[i]! * per;
    const whole = Math.floor(exact);
    const place = (exact - whole) * PHASES;
    const phase = Math.floor(place);
    const row = phase * TAPS;
    const begin = whole + MARGIN - HALF_TAPS + 1;
    // Tap by tap: a loop takes twice as long.
    let x = channel[begin]!;
    let value = weights[row]! * x;
    let slope = slopes[row]! * x;
    x = channel[begin + 1]!;
    value += weights[row + 1]! * x;
    slope += slopes[row + 1]! * x;
    x = channel[begin + 2]!;
    value += weights[row + 2]! * x;
    slope += slopes[row + 2]! * x;
    x = channel[begin + 3]!;
    value += weights[row + 3]! * x;
    slope += slopes[row + 3]! * x;
    x = channel[begin + 4]!;
    value += weights[row + 4]! * x;
    slope += slopes[row + 4]! * x;
    x = channel[begin + 5]!;
    value += weights[row + 5]! * x;
    slope += slopes[row + 5]! * x;
    x = channel[begin + 6]!;
    value += weights[row + 6]! * x;
    slope += slopes[row + 6]! * x;
    x = channel[begin + 7]!;
    value += weights[row + 7]! * x;
    slope += slopes[row + 7]! * x;
    x = channel[begin + 8]!;
    value += weights[row + 8]! * x;
    slope += slopes[row + 8]! * x;
    x = channel[begin + 9]!;
    value += weights[row + 9]! * x;
    slope += slopes[row + 9]! * x;
    x = channel[begin + 10]!;
    value += weights[row + 10]! * x;
    slope += slopes[row + 10]! * x;
    x = channel[begin + 11]!;
    value += weights[row + 11]! * x;
    slope += slopes[row + 11]! * x;
    out[i]! += (value + (place - phase) * slope) * gain[i]!;
  }
}
