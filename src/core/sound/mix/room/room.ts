import { FIRST_ROOM, type RoomSettings } from '../../../document/mix';
import { exp2, sinesOf } from '../../../math';
import { MAX_STRETCH } from '../../stretch';
import { Glide, glideLooks, LOOK_FRAMES, setOut, stayThere } from '../glide';
import { flushed } from '../../flushed';
import { Line } from './line';
import { PreDelay } from './preDelay';
import { AIMED_LOSSES, goRound, goRoundMoving, heard, into, LINES, LOSS, LOSS_NUMBERS, passing } from './roomLoops';
import { Spreader } from './spreader';

/** What is sent reaches the ears from the nearest walls first: seconds and gains, on the left and on the right. */
const EARLY = {
  left: [0.0053, 0.0079, 0.0107, 0.0139],
  right: [0.0061, 0.0088, 0.0119, 0.0146],
  gains: [0.27, -0.22, 0.17, -0.13],
};
/** Later it is spread by all-passes before it goes round, seconds. */
const BEHIND_SECONDS = 0.009;
const SPREAD_SECONDS = { both: [0.0014, 0.0023, 0.0037, 0.0058], left: [0.0083, 0.0127], right: [0.0093, 0.0139] };
/** Delay lines, in seconds: no two of them have echoes in common. A short room still needs long ones, or single tones stick out of it. */
const LINE_SECONDS = [0.0431, 0.0513, 0.0607, 0.0691, 0.0787, 0.0889, 0.0973, 0.1099];
const INPUT_HIGH_PASS_HZ = 180;
/** Every other line grows and shrinks by so much, so often: what rings on never stands quite still. */
const SWAY_SECONDS = 0.00012;
const SWAY_HZ = 0.7;
/** With nothing sent for so many times the 60 dB the tail is far below hearing, and the room sleeps. */
const SLEEP_AFTER = 25 / 7;
/** e^(-2π x) is 2 to the power of this times x. */
const TURN = -9.064720283654388;

/** Room for the stretch that is just being rendered. */
const input = into.left;
const inputRight = into.right;
/** Two waves that sway every second line, each in a way of its own: now, and at the next look. */
const swaying = new Float64Array(LINES);
const slowly = new Float64Array(LINES);
/** The room alone, while it is narrower than it was built. */
const wetLeft = new Float64Array(MAX_STRETCH);
const wetRight = new Float64Array(MAX_STRETCH);

/** What the room can be told. */
export const ROOM_SETTINGS = ['size', 'damping', 'width', 'preDelay'] as const satisfies (keyof RoomSettings)[];
export type RoomSetting = (typeof ROOM_SETTINGS)[number];

/** Where in its sides: the share of a side that stays there, and that of the other one that comes there; then their steps. */
const [OWN, OTHER, OWN_STEP, OTHER_STEP] = [0, 1, 2, 3] as const;

/**
 * A room: early echoes from the nearest walls, then eight damped delay lines that feed each other through an orthogonal matrix
 * (Hadamard's; J.-M. Jot and A. Chaigne, Digital delay networks for designing artificial reverberators, 1991).
 */
export class Room {
  private readonly spreaders: Record<keyof typeof SPREAD_SECONDS, readonly Spreader[]>;
  private readonly lines: readonly Line[];
  private readonly losses = new Float64Array(LOSS_NUMBERS);
  private readonly lossesAim = new Float64Array(AIMED_LOSSES);
  private readonly walls: Float64Array;
  private readonly leftTaps: readonly number[];
  private readonly rightTaps: readonly number[];
  private wallAt = 0;
  private readonly behind: number;
  private readonly highPass: number;
  private low = 0;
  /** Frames since something was sent. */
  private quiet = 0;
  private sleepAfter = 0;
  private readonly size: Glide;
  private readonly damping: Glide;
  private readonly width: Glide;
  private readonly preDelay: PreDelay;
  private readonly sides = Float64Array.of(1, 0, 0, 0);
  private readonly sidesAim = Float64Array.of(1, 0);
  /** Whether its lines lose less or more with every sample, and whether its sides come nearer or go apart. */
  private losesAnew = false;
  private isWidening = false;

  /** Nothing is in it: it has nothing to do until something is sent. */
  isAsleep = true;

  constructor(private readonly sampleRate: number) {
    const frames = (seconds: number) => Math.round(seconds * sampleRate);
    const spreaders = (seconds: readonly number[]) => seconds.map((s) => new Spreader(frames(s) | 1));
    const { both, left, right } = SPREAD_SECONDS;
    this.spreaders = { both: spreaders(both), left: spreaders(left), right: spreaders(right) };
    this.lines = LINE_SECONDS.map((s, l) => new Line(s, sampleRate, l % 2 === 0 ? SWAY_SECONDS * sampleRate : 0));
    this.leftTaps = EARLY.left.map(frames);
    this.rightTaps = EARLY.right.map(frames);
    this.behind = frames(BEHIND_SECONDS);
    this.walls = new Float64Array(Math.max(...this.leftTaps, ...this.rightTaps) + MAX_STRETCH);
    this.highPass = 1 - exp2((TURN * INPUT_HIGH_PASS_HZ) / sampleRate);
    const looks = glideLooks(sampleRate);
    this.size = new Glide(FIRST_ROOM.size, looks);
    this.damping = new Glide(FIRST_ROOM.damping, looks);
    this.width = new Glide(FIRST_ROOM.width, looks);
    this.preDelay = new PreDelay(sampleRate);
    this.arrive();
  }

  /** @param value as in `RoomSettings` */
  set(setting: RoomSetting, value: number): void {
    this[setting].goTo(value);
    if (this.isAsleep) this.arrive();
  }

  /** Every setting is at once where it is to be: nothing is in it. */
  private arrive(): void {
    this.size.arrive();
    this.damping.arrive();
    this.width.arrive();
    this.preDelay.arrive();
    this.aim();
    stayThere(this.losses, this.lossesAim);
    this.aimSides();
    stayThere(this.sides, this.sidesAim);
    this.losesAnew = this.isWidening = false;
  }

  private aim(): void {
    const size = this.size.value;
    const damping = this.damping.value;
    for (let l = 0; l < LINES; l++) {
      const line = this.lines[l]!;
      this.lossesAim[LOSS.gain + l] = line.gainFor(size);
      this.lossesAim[LOSS.damp + l] = line.dampFor(size, damping);
    }
    this.sleepAfter = Math.round(size * SLEEP_AFTER * this.sampleRate);
  }

  private aimSides(): void {
    const width = this.width.value;
    this.sidesAim[OWN] = (1 + width) / 2;
    this.sidesAim[OTHER] = (1 - width) / 2;
  }

  private look(): void {
    this.preDelay.look();
    const grows = this.size.look();
    if (this.damping.look() || grows) {
      this.aim();
      setOut(this.losses, this.lossesAim);
      this.losesAnew = true;
    } else if (this.losesAnew) {
      stayThere(this.losses, this.lossesAim);
      this.losesAnew = false;
    }
    if (this.width.look()) {
      this.aimSides();
      setOut(this.sides, this.sidesAim);
      this.isWidening = true;
    } else if (this.isWidening) {
      stayThere(this.sides, this.sidesAim);
      this.isWidening = false;
    }
  }

  /**
   * Adds the room's answer to `send` to `left` and `right`. It wakes up at the very sample that is sent, and sways by the frame that it
   * is: how the sound is cut into blocks, and what else is in the room, changes nothing.
   * @param frame the first frame of the engine's time
   */
  process(send: Float64Array, left: Float64Array, right: Float64Array, frames: number, frame: number): void {
    for (let from = 0; from < frames;) {
      if (this.isAsleep) {
        while (from < frames && send[from] === 0) from++;
        if (from === frames) return;
      }
      const gone = (frame + from) % LOOK_FRAMES;
      if (gone === 0 && !this.isAsleep) this.look();
      if (gone === 0 || this.isAsleep) this.control(frame + from - gone, gone);
      this.isAsleep = false;
      const run = Math.min(frames - from, LOOK_FRAMES - gone);
      this.render(send, left, right, from, run);
      from += run;
      if (this.quiet >= this.sleepAfter + this.preDelay.longest && gone + run === LOOK_FRAMES) this.clear();
    }
  }

  /** The swaying lines go on towards where they will be at the next look. */
  private control(frame: number, gone: number): void {
    const { lines } = this;
    for (let l = 0; l < LINES; l++) {
      // Of every second line that it has now, and then.
      const turns = ((frame + (l % 2) * LOOK_FRAMES) / this.sampleRate) * SWAY_HZ;
      swaying[l] = turns;
      slowly[l] = turns / 3 + (l - (l % 2)) / 8;
    }
    sinesOf(swaying);
    sinesOf(slowly);
    for (let l = 0; l < LINES; l++) swaying[l]! *= slowly[l]!;
    for (let l = 0; l < LINES; l += 2) lines[l]!.sway(swaying, l, gone);
  }

  private render(send: Float64Array, left: Float64Array, right: Float64Array, from: number, frames: number): void {
    let { quiet } = this;
    for (let i = 0; i < frames; i++) {
      const x = send[from + i]!;
      if (x !== 0) quiet = 0;
      else quiet++;
      input[i] = x;
    }
    this.quiet = quiet;
    this.preDelay.process(input, frames);
    if (this.sides[OTHER] === 0 && !this.isWidening) return this.answer(left, right, from, frames);
    wetLeft.fill(0, 0, frames);
    wetRight.fill(0, 0, frames);
    this.answer(wetLeft, wetRight, 0, frames);
    this.place(left, right, from, frames);
  }

  /** Brings the sides as near to each other as its width has it. */
  private place(left: Float64Array, right: Float64Array, from: number, frames: number): void {
    const { sides } = this;
    const ownStep = sides[OWN_STEP]!;
    const otherStep = sides[OTHER_STEP]!;
    let own = sides[OWN]!;
    let other = sides[OTHER]!;
    for (let i = 0; i < frames; i++) {
      left[from + i]! += own * wetLeft[i]! + other * wetRight[i]!;
      right[from + i]! += own * wetRight[i]! + other * wetLeft[i]!;
      own += ownStep;
      other += otherStep;
    }
    sides[OWN] = own;
    sides[OTHER] = other;
  }

  /** Adds what the room makes of `input` to both sides. */
  private answer(left: Float64Array, right: Float64Array, from: number, frames: number): void {
    const { highPass } = this;
    let { low } = this;
    for (let i = 0; i < frames; i++) {
      const x = input[i]!;
      low = flushed(low + (x - low) * highPass);
      input[i] = x - low;
    }
    this.low = low;
    this.renderWalls(left, right, from, frames);
    this.delay(frames);
    for (const spreader of this.spreaders.both) spreader.process(input, frames);
    for (let i = 0; i < frames; i++) inputRight[i] = input[i]!;
    for (const spreader of this.spreaders.left) spreader.process(input, frames);
    for (const spreader of this.spreaders.right) spreader.process(inputRight, frames);
    this.goRound(left, right, from, frames);
  }

  private renderWalls(left: Float64Array, right: Float64Array, from: number, frames: number): void {
    const { walls, leftTaps, rightTaps, wallAt } = this;
    const { gains } = EARLY;
    for (let i = 0, at = wallAt; i < frames; i++) {
      walls[at] = input[i]!;
      if (++at === walls.length) at = 0;
    }
    for (let tap = 0; tap < gains.length; tap++) {
      const gain = gains[tap]!;
      let l = (wallAt + walls.length - leftTaps[tap]!) % walls.length;
      let r = (wallAt + walls.length - rightTaps[tap]!) % walls.length;
      for (let i = from; i < from + frames; i++) {
        left[i]! += gain * walls[l]!;
        right[i]! += gain * walls[r]!;
        if (++l === walls.length) l = 0;
        if (++r === walls.length) r = 0;
      }
    }
  }

  /** From the walls on it goes into the room. */
  private delay(frames: number): void {
    const { walls } = this;
    let at = (this.wallAt + walls.length - this.behind) % walls.length;
    for (let i = 0; i < frames; i++) {
      input[i] = walls[at]!;
      if (++at === walls.length) at = 0;
    }
    this.wallAt = (this.wallAt + frames) % walls.length;
  }

  /** All lines are longer than a stretch: what comes back of all of them is known before anything goes in. */
  private goRound(left: Float64Array, right: Float64Array, from: number, frames: number): void {
    const { lines, losses } = this;
    for (let l = 0; l < LINES; l++) lines[l]!.read(passing[l]!, frames);
    if (this.losesAnew) goRoundMoving(losses, frames);
    else goRound(losses, frames);
    for (let l = 0; l < LINES; l++) lines[l]!.write(passing[l]!, frames);
    for (let i = 0; i < frames; i++) {
      left[from + i]! += heard.left[i]!;
      right[from + i]! += heard.right[i]!;
    }
  }

  private clear(): void {
    for (const line of this.lines) line.clear();
    this.losses.fill(0, LOSS.held);
    for (const part of Object.values(this.spreaders)) for (const spreader of part) spreader.clear();
    this.preDelay.clear();
    this.walls.fill(0);
    this.wallAt = 0;
    this.low = 0;
    this.quiet = 0;
    this.isAsleep = true;
    this.arrive();
  }
}
