import { decayPerFrame, exp2 } from '../../../math';
import { LOOK_FRAMES } from '../glide';

/** Fully damped, sound at 4 kHz decays faster than the rest by so many times its 60 dB. The damping goes in squares, so that a little is little. */
const MOST_DAMPED = 2.94;
/** e^(-2π x) is 2 to the power of this times x. */
const TURN = -9.064720283654388;

/** Where in what moves of a line: frames from where it is written back to where it is read, and how much that changes with each. */
const [BACK, BACK_STEP] = [0, 1] as const;

/** A delay line, longer than any stretch, which may sway. */
export class Line {
  private readonly line: Float64Array;
  private readonly frames: number;
  private at = 0;
  /** In memory of its own: a number that a field holds may be written to a new place each time. */
  private readonly moving = new Float64Array(2);

  /** @param most frames by which its length moves either way */
  constructor(
    private readonly seconds: number,
    private readonly sampleRate: number,
    private readonly most: number,
  ) {
    this.frames = Math.round(seconds * sampleRate) | 1;
    this.moving[BACK] = this.frames;
    this.line = new Float64Array(this.frames + Math.ceil(most) + 2);
  }

  /** By what it loses each time round. @param size seconds in which all falls by 60 dB */
  gainFor(size: number): number {
    return decayPerFrame((size * this.sampleRate) / this.frames, 1);
  }

  /** The share of its way that a first-order low-pass goes with each sample. @param damping 0..1, how much sooner than the rest the highs decay */
  dampFor(size: number, damping: number): number {
    if (damping === 0) return 1;
    // Down by its share of the damping at 4 kHz.
    const dampedDb = (60 / size) * (MOST_DAMPED * damping * damping) * this.seconds;
    const passed = exp2(-dampedDb / 3.010299956639812);
    return 1 - exp2((TURN * 4000) / Math.sqrt(1 / passed - 1) / this.sampleRate);
  }

  /**
   * It sways from one place to another.
   * @param places -1..1: where it is, and at the next number where it is to be LOOK_FRAMES later
   * @param gone frames that it has been on its way
   */
  sway(places: Float64Array, at: number, gone: number): void {
    const { moving, frames, most } = this;
    const step = ((places[at + 1]! - places[at]!) * most) / LOOK_FRAMES;
    moving[BACK_STEP] = step;
    moving[BACK] = frames + places[at]! * most + step * gone;
  }

  /** What comes out of it, before anything is written. */
  read(out: Float64Array, frames: number): void {
    if (this.most > 0) return this.readBetween(out, frames);
    const { line, at } = this;
    let from = at < this.frames ? at - this.frames + line.length : at - this.frames;
    for (let i = 0; i < frames; i++) {
      out[i] = line[from]!;
      if (++from === line.length) from = 0;
    }
  }

  /** Between its samples, while it sways. */
  private readBetween(out: Float64Array, frames: number): void {
    const { line, moving } = this;
    const step = moving[BACK_STEP]!;
    let { at } = this;
    let back = moving[BACK]!;
    for (let i = 0; i < frames; i++) {
      let from = at - back;
      if (from < 0) from += line.length;
      const whole = Math.floor(from);
      const old = line[whole]!;
      const next = line[whole + 1 === line.length ? 0 : whole + 1]!;
      out[i] = old + (from - whole) * (next - old);
      if (++at === line.length) at = 0;
      back += step;
    }
    moving[BACK] = back;
  }

  write(sound: Float64Array, frames: number): void {
    const { line } = this;
    let { at } = this;
    for (let i = 0; i < frames; i++) {
      line[at] = sound[i]!;
      if (++at === line.length) at = 0;
    }
    this.at = at;
  }

  clear(): void {
    this.line.fill(0);
    this.at = 0;
  }
}
