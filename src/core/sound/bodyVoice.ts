import { decayPerFrame, exp2, sinTurns } from '../math';
import type { Body } from './recipe';
import { leftSound } from './sampleReader';
import { differs, PITCH_VARIATION, type Touch } from './touch';
import { ATTACK, ATTACK_STEP, COSINE, DECAY, isSideBySide, LANES, modeLanes, renderModes, SINE, STEP, SWEEP, SWEEP_DECAY, TURN_COSINE, TURN_SINE, UNTIL_LOOK } from './voiceLoops'; // prettier-ignore

const MAX_MODES = 6;
/** A mode sounds for 1.5 times its -60 dB time: it ends 90 dB down. */
const LIFE = 1.5;
/** A few samples of ramp take the edge off a mode without softening the strike. */
const ATTACK_SECONDS = 0.0005;
/** Frames between two looks at the sweep, counted from the strike: three thousand steps a second are a glide to the ear. */
const CONTROL_FRAMES = 16;
/** Turns a sample above which nothing is made: what lies above half a turn would fold back down. */
const HIGHEST_STEP = 0.45;
/** Share by which the levels of modes differ from stroke to stroke at full variation: no two strikes fall on one spot. */
const MODE_VARIATION = 0.3;
/** A sweep this small is over. It stands in voiceLoops.wat, too, and so do CONTROL_FRAMES and HIGHEST_STEP. */
const SWEPT = 1e-5;

/**
 * The sounding body of a drum: up to six sine modes under one pitch sweep, each with a decay of its own. Each mode is a
 * rotating, shrinking vector: four multiplications a sample where a sine would cost three times as much.
 */
export class BodyVoice {
  /** Frames until the body is silent. */
  left = 0;

  private modes = 0;
  /** Frames of each mode still to come. */
  private readonly modeLeft = new Int32Array(MAX_MODES);
  private readonly step = new Float64Array(MAX_MODES);
  private readonly decay = new Float64Array(MAX_MODES);
  private readonly sine = new Float64Array(MAX_MODES);
  private readonly cosine = new Float64Array(MAX_MODES);
  private readonly turnSine = new Float64Array(MAX_MODES);
  private readonly turnCosine = new Float64Array(MAX_MODES);
  private sweep = 0;
  private sweepDecay = 0;
  private untilControl = 0;
  /** Frames before the decays begin. */
  private holdLeft = 0;
  private bendRatio = 1;
  private attack = 0;
  private attackStep = 0;

  constructor(private readonly sampleRate: number) {}

  /** A harder strike sweeps further and brings out the upper modes. */
  start(body: Body, touch: Touch): void {
    const { sampleRate } = this;
    const { velocity, gain, longer, hold } = touch;
    const pitch = touch.pitch * exp2((PITCH_VARIATION * differs(touch, 1)) / 12);
    this.holdLeft = Math.round(hold * sampleRate);
    this.bendRatio = 1;
    this.modes = body.modes.length;
    this.left = 0;
    let plain = 0;
    let struck = 0;
    for (let m = 0; m < this.modes; m++) {
      const mode = body.modes[m]!;
      const decay = mode.decay * longer;
      this.step[m] = (body.pitch * mode.ratio * pitch) / sampleRate;
      this.decay[m] = decayPerFrame(decay, sampleRate);
      // A soft stroke brings out the upper modes less, the further up they are.
      const hardness = m === 0 ? 0 : 0.5 + 0.1 * m;
      const level = mode.level * (1 - hardness + hardness * velocity);
      const differing = level * (1 + MODE_VARIATION * differs(touch, 10 + m));
      plain += level * level * mode.decay;
      struck += differing * differing * decay;
      this.sine[m] = 0;
      this.cosine[m] = differing;
      // A mode above what the rate can hold is not heard.
      this.modeLeft[m] = this.step[m]! < HIGHEST_STEP ? Math.round((decay * LIFE + hold) * sampleRate) : 0;
      this.left = Math.max(this.left, this.modeLeft[m]!);
    }
    // Wherever it is struck, and however long it rings for that: a stroke has as much energy as the next.
    const even = touch.variation > 0 ? Math.sqrt((plain * longer) / struck) : 1;
    for (let m = 0; m < this.modes; m++) this.cosine[m]! *= gain * even;
    this.sweep = (body.sweep - 1) * (0.35 + 0.65 * velocity);
    this.sweepDecay = exp2((-1.4426950408889634 * CONTROL_FRAMES) / (body.sweepTime * sampleRate));
    this.turn();
    this.untilControl = CONTROL_FRAMES;
    this.attack = 0;
    this.attackStep = 1 / Math.max(1, Math.round(ATTACK_SECONDS * sampleRate));
  }

  /** Adds the next `frames` samples to `leftSound`. */
  render(frames: number): void {
    const end = Math.min(frames, this.left);
    for (let from = 0; from < end;) {
      const to = this.holdLeft > 0 ? Math.min(end, from + this.holdLeft) : end;
      if (isSideBySide && this.areEvenFor(to - from)) this.renderBeside(from, to);
      else this.renderInTurn(from, to);
      for (let i = from; i < to && this.attack < 1; i++) this.attack += this.attackStep;
      if (this.holdLeft > 0) this.hold(to - from);
      from = to;
    }
    this.left -= end;
  }

  /** One mode after another, from look to look at the sweep. */
  private renderInTurn(from: number, end: number): void {
    const { attackStep } = this;
    let { attack } = this;
    while (from < end) {
      const to = this.sweep > 0 ? Math.min(end, from + this.untilControl) : end;
      for (let m = 0; m < this.modes; m++) this.renderMode(m, from, to, attack);
      for (let i = from; i < to && attack < 1; i++) attack += attackStep;
      if (this.sweep > 0) this.control(to - from);
      from = to;
    }
  }

  private control(frames: number): void {
    this.untilControl -= frames;
    if (this.untilControl > 0) return;
    this.untilControl = CONTROL_FRAMES;
    this.sweep *= this.sweepDecay;
    if (this.sweep < SWEPT) this.sweep = 0;
    this.turn();
  }

  private hold(frames: number): void {
    this.holdLeft -= frames;
    if (this.holdLeft === 0) this.turn();
  }

  /** From the next sample on its pitch is so many times that at which it was struck. */
  bend(ratio: number): void {
    if (ratio === this.bendRatio) return;
    this.bendRatio = ratio;
    this.turn();
  }

  /** Sets each mode's rotation by one sample at the present pitch, with its decay in it. */
  private turn(): void {
    for (let m = 0; m < this.modes; m++) {
      const step = Math.min(HIGHEST_STEP, this.step[m]! * this.bendRatio * (1 + this.sweep));
      const decay = this.decayNow(m);
      this.turnSine[m] = sinTurns(step) * decay;
      this.turnCosine[m] = sinTurns(step + 0.25) * decay;
    }
  }

  /** Of a mode, by a frame. */
  private decayNow(m: number): number {
    return this.holdLeft > 0 ? 1 : this.decay[m]!;
  }

  private renderMode(m: number, from: number, end: number, attack: number): void {
    const to = Math.min(end, from + this.modeLeft[m]!);
    if (to <= from) return;
    const turnSine = this.turnSine[m]!;
    const turnCosine = this.turnCosine[m]!;
    const { attackStep } = this;
    let sine = this.sine[m]!;
    let cosine = this.cosine[m]!;
    let i = from;
    for (; i < to && attack < 1; i++) {
      leftSound[i]! += sine * attack;
      attack += attackStep;
      const next = sine * turnCosine + cosine * turnSine;
      cosine = cosine * turnCosine - sine * turnSine;
      sine = next;
    }
    for (; i < to; i++) {
      leftSound[i]! += sine;
      const next = sine * turnCosine + cosine * turnSine;
      cosine = cosine * turnCosine - sine * turnSine;
      sine = next;
    }
    this.sine[m] = sine;
    this.cosine[m] = cosine;
    this.modeLeft[m]! -= to - from;
  }

  // --- side by side -----------------------------------------------------------------------------------------

  /** Whether no mode ends within so many frames. */
  private areEvenFor(frames: number): boolean {
    for (let m = 0; m < this.modes; m++) if (this.modeLeft[m]! > 0 && this.modeLeft[m]! < frames) return false;
    return true;
  }

  /** All modes, as many at once as there are lanes, to the bits that they have one after another. */
  private renderBeside(from: number, to: number): void {
    const frames = to - from;
    const { sweep, untilControl } = this;
    for (let first = 0; first < this.modes; first += LANES) {
      this.toLanes(first);
      // Of all of them the sweep goes on from here.
      modeLanes[SWEEP] = sweep;
      modeLanes[UNTIL_LOOK] = untilControl;
      renderModes(from, frames);
      this.fromLanes(first, frames);
    }
    this.sweep = modeLanes[SWEEP]!;
    this.untilControl = modeLanes[UNTIL_LOOK]!;
  }

  private toLanes(first: number): void {
    for (let lane = 0; lane < LANES; lane++) {
      const m = first + lane;
      const sounds = m < this.modes && this.modeLeft[m]! > 0;
      modeLanes[SINE + lane] = sounds ? this.sine[m]! : 0;
      modeLanes[COSINE + lane] = sounds ? this.cosine[m]! : 0;
      modeLanes[TURN_SINE + lane] = sounds ? this.turnSine[m]! : 0;
      modeLanes[TURN_COSINE + lane] = sounds ? this.turnCosine[m]! : 0;
      modeLanes[STEP + lane] = sounds ? this.step[m]! * this.bendRatio : 0;
      modeLanes[DECAY + lane] = sounds ? this.decayNow(m) : 0;
    }
    modeLanes[ATTACK] = this.attack;
    modeLanes[ATTACK_STEP] = this.attackStep;
    modeLanes[SWEEP_DECAY] = this.sweepDecay;
  }

  private fromLanes(first: number, frames: number): void {
    for (let lane = 0; lane < LANES && first + lane < this.modes; lane++) {
      const m = first + lane;
      if (this.modeLeft[m] === 0) continue;
      this.sine[m] = modeLanes[SINE + lane]!;
      this.cosine[m] = modeLanes[COSINE + lane]!;
      this.turnSine[m] = modeLanes[TURN_SINE + lane]!;
      this.turnCosine[m] = modeLanes[TURN_COSINE + lane]!;
      this.modeLeft[m]! -= frames;
    }
  }
}
