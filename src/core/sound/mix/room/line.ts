import { decayPerFrame, exp2 } from '../../../math';
import { LOOK_FRAMES, setOut, stayThere } from '../glide';
import { flushed } from './flushed';

/** Fully damped, sound at 4 kHz decays faster than the rest by so many times its 60 dB. The damping goes in squares, so that a little is little. */
const MOST_DAMPED = 2.94;
/** e^(-2π x) is 2 to the power of this times x. */
const TURN = -9.064720283654388;

/** Where in what moves of a line: frames from where it is written back to where it is read, how much that changes with each, what is damped. */
const [BACK, BACK_STEP, DAMPED] = [0, 1, 2] as const;
/** Where in what it loses: its gain, and how much of its highs it keeps; then the steps of both. */
const [GAIN, DAMP, GAIN_STEP, DAMP_STEP] = [0, 1, 2, 3] as const;

/** A delay line, longer than any stretch, that decays, loses its highs, and may sway. */
export class Line {
  private readonly line: Float64Array;
  private readonly frames: number;
  private at = 0;
  /** In memory of its own: a number that a field holds may be written to a new place each time. */
  private readonly moving = new Float64Array(3);
  private readonly losses = new Float64Array(4);
  private readonly aims = new Float64Array(2);

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

  /**
   * How it is to lose what goes round.
   * @param size seconds in which it falls by 60 dB
   * @param damping 0..1, how much sooner the highs do
   */
  aim(size: number, damping: number): void {
    this.aims[GAIN] = decayPerFrame((size * this.sampleRate) / this.frames, 1);
    this.aims[DAMP] = 1;
    if (damping === 0) return;
    // Down by its share of the damping at 4 kHz: a first-order low-pass.
    const dampedDb = (60 / size) * (MOST_DAMPED * damping * damping) * this.seconds;
    const passed = exp2(-dampedDb / 3.010299956639812);
    this.aims[DAMP] = 1 - exp2((TURN * 4000) / Math.sqrt(1 / passed - 1) / this.sampleRate);
  }

  /** It goes to where it was aimed until the next look. */
  setOut(): void {
    setOut(this.losses, this.aims);
  }

  arrive(): void {
    stayThere(this.losses, this.aims);
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

  /** What comes back of it, before anything is written. */
  read(out: Float64Array, frames: number): void {
    const { line, losses, moving } = this;
    const backStep = moving[BACK_STEP]!;
    const gainStep = losses[GAIN_STEP]!;
    const dampStep = losses[DAMP_STEP]!;
    let { at } = this;
    let back = moving[BACK]!;
    let damped = moving[DAMPED]!;
    let gain = losses[GAIN]!;
    let damp = losses[DAMP]!;
    for (let i = 0; i < frames; i++) {
      let from = at - back;
      if (from < 0) from += line.length;
      const whole = Math.floor(from);
      const old = line[whole]!;
      const next = line[whole + 1 === line.length ? 0 : whole + 1]!;
      damped += (old + (from - whole) * (next - old) - damped) * damp;
      out[i] = damped * gain;
      if (++at === line.length) at = 0;
      back += backStep;
      gain += gainStep;
      damp += dampStep;
    }
    moving[BACK] = back;
    moving[DAMPED] = damped;
    losses[GAIN] = gain;
    losses[DAMP] = damp;
  }

  write(sound: Float64Array, frames: number): void {
    const { line } = this;
    let { at } = this;
    for (let i = 0; i < frames; i++) {
      line[at] = flushed(sound[i]!);
      if (++at === line.length) at = 0;
    }
    this.at = at;
  }

  clear(): void {
    this.line.fill(0);
    this.moving[DAMPED] = 0;
    this.at = 0;
  }
}
