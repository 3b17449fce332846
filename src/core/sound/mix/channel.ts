import type { MixControl } from '../../document/mix';
import { sinTurns } from '../../math';
import { Compressor } from './compressor';
import { Duck } from './duck';
import { Equaliser } from './equaliser';
import { Glide, glideLooks, LOOK_FRAMES, STILL_LOOK_FRAMES } from './glide';
import type { MixBus } from './mixBus';
import { Saturation } from './saturation';
import { send, sendMoving, SENT, SENT_NUMBERS } from './sendLoop';
import { Sweep } from './sweep';

/** Frames without any input after which it looks whether it may sleep. */
const STILL_FRAMES = 2048;

/**
 * What one track, one group or the whole mix goes through: equaliser, compressor, drive, filter, pan, and the shares that it sends to room and echo. Its
 * level is the mixer's. What is neutral is not rendered; with nothing to do, or nothing in it, all of it sleeps.
 */
export class Channel {
  /** Whether something is in it, or rings on in it. */
  isAwake = false;
  private readonly equaliser: Equaliser;
  private readonly compressor: Compressor;
  private readonly saturation: Saturation;
  private readonly sweep: Sweep;
  private readonly duck: Duck;
  private readonly pan: Glide;
  private readonly room: Glide;
  private readonly echo: Glide;
  private readonly gains = Float64Array.of(1, 1, 0, 0);
  private readonly steps = new Float64Array(SENT_NUMBERS);
  private isMoving = false;
  /** Whether nothing of it moves until it is told something else, or struck. */
  private isStill = false;
  private still = 0;

  constructor(sampleRate: number) {
    this.equaliser = new Equaliser(sampleRate);
    this.compressor = new Compressor(sampleRate);
    this.saturation = new Saturation(sampleRate);
    this.sweep = new Sweep(sampleRate);
    this.duck = new Duck(sampleRate);
    const looks = glideLooks(sampleRate);
    this.pan = new Glide(0, looks);
    this.room = new Glide(0, looks);
    this.echo = new Glide(0, looks);
  }

  /** Whether it does anything. */
  get isWanted(): boolean {
    const { equaliser, compressor, saturation, sweep, duck, pan, room, echo } = this;
    const bends = compressor.isWanted || saturation.isWanted || sweep.isWanted;
    return this.isAwake || isUp(pan) || isUp(room) || isUp(echo) || equaliser.isWanted || bends || duck.isWanted;
  }

  /** dB by which its compressor makes it softer now. */
  get reduction(): number {
    return this.compressor.reduction;
  }

  /** Something is in it: from now on its settings go where they are told to, and do not jump. */
  wake(): void {
    this.isAwake = true;
  }

  /** The settings are those of `MIX_RANGES`. */
  set(control: Exclude<MixControl, 'level'>, value: number): void {
    const { equaliser } = this;
    this.isStill = false;
    switch (control) {
      case 'low':
      case 'high':
      case 'bell':
        equaliser[control].gain.goTo(value);
        break;
      case 'bellHz':
        equaliser.bell.hz.goTo(value);
        break;
      case 'bellQ':
        equaliser.bell.q.goTo(value);
        break;
      case 'drive':
        this.saturation.amount.goTo(value);
        break;
      case 'filter':
        this.sweep.place.goTo(value);
        break;
      case 'duck':
      case 'duckTime':
        this.duck.set(control, value);
        break;
      case 'pan':
      case 'room':
      case 'echo':
        this[control].goTo(value);
        break;
      default:
        this.compressor.set(control, value);
    }
    if (!this.isAwake) this.arrive();
  }

  /** A stroke sounds that it makes room for. @param velocity 0..1 */
  strike(velocity: number, frame: number): void {
    this.duck.strike(velocity, frame);
    this.isStill = false;
  }

  /** Whether no stroke has it down. */
  isUpAt(frame: number): boolean {
    return !this.duck.isWanted || this.duck.isOver(frame);
  }

  /**
   * Takes a bus through it, in place. It wakes up at the very sample in which something is.
   * @param frame the engine's first of these
   */
  process(bus: MixBus, frames: number, frame: number): void {
    const { left, right } = bus;
    for (let from = 0; from < frames;) {
      if (!this.isAwake) {
        while (from < frames && left[from] === 0 && right[from] === 0) from++;
        if (from === frames) return;
        this.isAwake = true;
        this.isStill = false;
        // It may have been struck while nothing was in it.
        if (this.duck.isWanted) this.arrive(frame + from);
      }
      const at = frame + from;
      if (at % this.lookFrames === 0) this.look(at);
      if (!this.isAwake) continue;
      const run = Math.min(frames - from, this.lookFrames - (at % this.lookFrames));
      this.listen(bus, from, run);
      this.equaliser.process(bus, from, run);
      this.compressor.process(bus, from, run, frame + from);
      this.saturation.process(bus, from, run);
      this.sweep.process(bus, from, run);
      this.send(bus, from, run);
      from += run;
    }
  }

  /** Frames from look to look, counted from frame 0. */
  private get lookFrames(): number {
    return this.isStill ? STILL_LOOK_FRAMES : LOOK_FRAMES;
  }

  /** Every setting is at once where it is to be: nothing is in it. */
  private arrive(frame = 0): void {
    this.equaliser.arrive();
    this.compressor.arrive();
    this.saturation.arrive();
    this.sweep.arrive();
    this.duck.arrive();
    this.pan.arrive();
    this.room.arrive();
    this.echo.arrive();
    this.aim(frame);
    const { gains, steps } = this;
    for (let i = 0; i < SENT_NUMBERS; i++) gains[i] = steps[i]!;
    this.isMoving = false;
  }

  private look(frame: number): void {
    const { equaliser, compressor, saturation, sweep, duck } = this;
    const isQuiet = equaliser.isQuiet && compressor.isQuiet && saturation.isQuiet && sweep.isQuiet;
    if (this.still >= STILL_FRAMES && isQuiet) {
      this.isAwake = false;
      this.still = 0;
      return this.arrive(frame);
    }
    equaliser.look();
    compressor.look();
    saturation.look();
    sweep.look();
    const places = this.pan.look();
    const fills = this.room.look();
    const echoes = this.echo.look();
    const ducks = duck.isWanted && duck.look(frame);
    const wasMoving = this.isMoving;
    this.isMoving = places || fills || echoes || ducks;
    const areStill = equaliser.isStill && compressor.isStill && saturation.isStill && sweep.isStill && duck.isThere;
    this.isStill = !this.isMoving && areStill;
    if (!this.isMoving && !wasMoving) return;
    const { gains, steps } = this;
    this.aim(frame + LOOK_FRAMES);
    for (let i = 0; i < SENT_NUMBERS; i++) {
      const target = steps[i]!;
      // What has come to its place is there to the bit.
      if (!this.isMoving) gains[i] = target;
      steps[i] = (target - gains[i]!) / LOOK_FRAMES;
    }
  }

  /**
   * Where its gains are to be, into `steps`. Constant power, for what lies in the middle: voices are panned by the same law, which has 3 dB less there,
   * and together they have the law's values.
   */
  private aim(frame: number): void {
    const { steps } = this;
    const pan = this.pan.value;
    const ducked = this.duck.gainAt(frame);
    steps[SENT.left] = (pan === 0 ? 1 : ROOT_2 * sinTurns((1 - pan) / 8)) * ducked;
    steps[SENT.right] = (pan === 0 ? 1 : ROOT_2 * sinTurns((1 + pan) / 8)) * ducked;
    steps[SENT.room] = this.room.value / 2;
    steps[SENT.echo] = this.echo.value / 2;
  }

  /** For how long nothing has come in. */
  private listen({ left, right }: MixBus, from: number, frames: number): void {
    let last = from + frames - 1;
    while (last >= from && left[last] === 0 && right[last] === 0) last--;
    this.still = last < from ? this.still + frames : from + frames - 1 - last;
  }

  /** Pan, and what goes to room and echo. */
  private send(bus: MixBus, from: number, frames: number): void {
    const { gains, steps, isMoving } = this;
    const sendsEcho = gains[SENT.echo] !== 0 || (isMoving && steps[SENT.echo] !== 0);
    if (sendsEcho) bus.hasEcho = true;
    if (isMoving) return sendMoving(gains, steps, bus, from, frames);
    const isPlain = gains[SENT.left] === 1 && gains[SENT.right] === 1 && gains[SENT.room] === 0;
    if (!isPlain || sendsEcho) send(gains, bus, from, frames);
  }
}

const ROOT_2 = 1.4142135623730951;

/** Whether a setting is not at 0, or not there yet. */
const isUp = (glide: Glide) => glide.value !== 0 || !glide.isThere;
