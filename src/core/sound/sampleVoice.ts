import { exp2 } from '../math';
import { levelFor, SAMPLE_RATE, type PreparedSample } from '../sample/levels';
import type { SamplePatch } from './patch';
import { leftSound, otherSound, readSample, rightSound, stepOf, type Reading } from './sampleReader';
import { differs, PITCH_VARIATION, type Touch } from './touch';

/**
 * Frames of the sample over which it comes where it does not begin with its first frame, and goes beyond where it does not end with
 * its last. Two parts that meet are together what they were as one.
 */
const EDGE = 32;
/** And over which a loop's end passes into its beginning. */
const JOIN = 240;
/** Octaves of gain in 60 dB. */
const SIXTY_DB = -9.965784284662087;
/** So far down its decay is over. */
const NINETY_DB = 1.5 * SIXTY_DB;

/** The stretch that is read just now, of whichever voice. */
const reading: Reading = { at: 0, step: 1, count: 0, gain: 1, decay: 1 };

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
  /** Frames of sound until it begins to decay, and until its decay is over. */
  private holdLeft = 0;
  private decayLeft = Infinity;

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
    this.struckStep = this.step = stepOf(reverse ? -speed : speed);
    this.at = reverse ? Math.min(this.last, this.to - 1) : this.from;
    this.gain = touch.gain;
    this.holdLeft = Math.round(touch.hold * this.sampleRate);
    // One that is half as long is 60 dB down where half of it is over; one that is not made shorter never decays.
    const framesOfSound = ((this.to - this.from) * this.sampleRate) / SAMPLE_RATE;
    const octaves = touch.longer < 1 ? (SIXTY_DB * (1 / touch.longer - 1)) / framesOfSound : 0;
    this.decay = exp2(octaves);
    this.decayLeft = octaves < 0 ? Math.ceil(NINETY_DB / octaves) : Infinity;
    this.sounding = true;
  }

  /** From the next frame on its pitch is so many times that at which it was struck. */
  bend(ratio: number): void {
    this.step = stepOf(this.struckStep * ratio);
  }

  /**
   * The next frames (at most MAX_STRETCH) go to `leftSound` and, if it has two channels, `rightSound`; silence where it is over.
   * @returns how many frames until it is over
   */
  render(frames: number): number {
    const { levels } = this.sample;
    const { channels, every } = levels[levelFor(this.step < 0 ? -this.step : this.step, levels.length)]!;
    for (let i = 0; i < frames;) {
      const count = Math.min(frames - i, this.framesAlike());
      if (count === 0) {
        this.sounding = false;
        leftSound.fill(0, i, frames);
        rightSound.fill(0, i, frames);
        return i;
      }
      reading.count = count;
      const gain = this.read(channels[0]!, 1 / every, leftSound, i);
      if (channels[1]) this.read(channels[1], 1 / every, rightSound, i);
      this.goOn(count, gain);
      i += count;
    }
    return frames;
  }

  // --- where it is read, and how loud -----------------------------------------------------------------------

  /**
   * For how many frames it is read in one way: no edge lies between them. Near an edge it is one by one, since a quotient
   * is not exact. 0 when it is over.
   */
  private framesAlike(): number {
    const { at, step, from, to } = this;
    if (this.decayLeft === 0 || (!this.isLooped && (at > this.last || at < from))) return 0;
    let frames = Math.min(framesBefore(this.edgeIn, at, step), framesBefore(this.edgeOut, at, step));
    frames = Math.min(frames, this.holdLeft > 0 ? this.holdLeft : this.decayLeft);
    if (!this.isLooped) return Math.min(frames, framesBefore(step > 0 ? this.last : from, at, step));
    frames = Math.min(frames, framesBefore(step > 0 ? to : from, at, step));
    frames = Math.min(frames, framesBefore(step > 0 ? to - JOIN : from + JOIN, at, step));
    // What passes into a round's beginning lies before the sample's own for a while, or beyond its end.
    const length = to - from;
    return Math.min(frames, framesBefore(step > 0 ? length : this.sample.frames - 1 - length, at, step));
  }

  /** Reads frames that are read in one way. Returns the gain of what follows. */
  private read(channel: Float32Array, per: number, into: Float64Array, to: number): number {
    const { at, step, edgeIn, edgeOut } = this;
    reading.at = at;
    reading.step = step;
    reading.gain = this.gain;
    reading.decay = this.holdLeft > 0 ? 1 : this.decay;
    const gain = readSample(channel, per, reading, into, to);
    if (at < edgeIn || at >= edgeOut) this.shapeEdge(into, to);
    if (this.isLooped && (step > 0 ? this.to - at : at - this.from) < JOIN) this.join(channel, per, into, to);
    return gain;
  }

  private shapeEdge(into: Float64Array, to: number): void {
    const { at, step, from, edgeIn, edgeOut } = this;
    for (let i = 0; i < reading.count; i++) {
      const place = at + i * step;
      if (at < edgeIn) into[to + i]! *= (place - from) / EDGE;
      if (at >= edgeOut) into[to + i]! *= 1 - (place - edgeOut) / EDGE;
    }
  }

  /** Near the end of a round what comes before its beginning takes over. */
  private join(channel: Float32Array, per: number, into: Float64Array, to: number): void {
    const { at, step } = this;
    const length = this.to - this.from;
    reading.at = step > 0 ? at - length : at + length;
    const isHeard = reading.at >= 0 && reading.at <= this.sample.frames - 1;
    if (isHeard) readSample(channel, per, reading, otherSound, 0);
    for (let i = 0; i < reading.count; i++) {
      const place = at + i * step;
      const share = 1 - (step > 0 ? this.to - place : place - this.from) / JOIN;
      into[to + i]! *= 1 - share;
      if (isHeard) into[to + i]! += otherSound[i]! * share;
    }
  }

  private goOn(count: number, gain: number): void {
    const { from, to } = this;
    this.gain = gain;
    if (this.holdLeft > 0) this.holdLeft -= count;
    else this.decayLeft -= count;
    const next = this.at + count * this.step;
    if (!this.isLooped) this.at = next;
    else this.at = next >= to ? next - (to - from) : next < from ? next + (to - from) : next;
    if (this.at === next) return;
    // It comes in once.
    this.edgeIn = -Infinity;
    this.edgeOut = Infinity;
  }
}

/** How many frames surely lie before a place; one if it is near, and no bound if it was passed. */
function framesBefore(edge: number, at: number, step: number): number {
  const frames = (edge - at) / step;
  return frames < 0 ? Infinity : frames > 3 ? Math.floor(frames) - 2 : 1;
}
