import { FIRST_ECHO } from '../../document/mix';
import { decibels, exp2, sinTurns } from '../../math';
import { DelayTime } from './delayTime';
import { flushed } from '../flushed';
import { Glide, glideLooks, LOOK_FRAMES } from './glide';
import { TapeTime } from './tapeTime';

/** The longest time between two echoes, seconds: a whole note at 60 BPM. Longer ones are as long as this. */
export const LONGEST_ECHO = 4;
/** What comes out in one look was there before it, also between samples. Less than a ms. */
const SHORTEST_FRAMES = LOOK_FRAMES + 4;
/** Of what goes round only so much is kept: it always ends. */
const MOST_FEEDBACK = 0.95;
/** Every echo loses what is below this, so that many of them do not boom, and in the middle of *tone* what is above. Hz. */
const HIGH_PASS_HZ = 120;
const DARKEST_HZ = 600;
/** Octaves from the darkest tone to the brightest. */
const TONE_OCTAVES = 5;
/** Once it is this quiet nobody hears it. */
const QUIET = decibels(-120);
/** e^(-2π x) is 2 to the power of this times x. */
const TURN = -9.064720283654388;

/** What the echo can be told, besides its time: 0..1 each. `width`: 0 in the middle, 1 from side to side. */
export const ECHO_SETTINGS = ['feedback', 'tone', 'width'] as const;
export type EchoSetting = (typeof ECHO_SETTINGS)[number];

/** Where in what each of the two lines holds: its low-pass, and its high-pass. */
const [LOW, BASS] = [0, 1] as const;

/** What comes out of the two lines in one look, and how late each frame of it is. */
const taps: readonly [Float64Array, Float64Array] = [new Float64Array(LOOK_FRAMES), new Float64Array(LOOK_FRAMES)];
const delays = new Float64Array(LOOK_FRAMES);

/**
 * The echo of the mix: two lines that answer each other, the first of which is heard first. So echoes come at one, two, three times the time, and
 * lie in the middle or from side to side.
 * When its time changes (a new note value, another tempo), it fades into the new one, or bends there like a tape.
 */
export class Echo {
  /** Nothing is in it: it has nothing to do until something is sent. */
  isAsleep = true;
  /** Made when something is first sent: 3 MB that most mixes have no need of. */
  private lines: readonly [Float64Array, Float64Array] | null = null;
  private readonly size: number;
  private readonly held: readonly [Float64Array, Float64Array] = [new Float64Array(2), new Float64Array(2)];
  private readonly glides: Record<EchoSetting, Glide>;
  private at = 0;
  /** Between two echoes. */
  private readonly time: DelayTime;
  private readonly tape: TapeTime;
  /** Which of the two it goes by, and is to go by: while its time changes it goes on as it began. */
  private isTape = false;
  private wantsTape = false;
  /** What goes round: its low-pass and its high-pass, by sample. */
  private damp = 1;
  private readonly highPass: number;
  private feedback = 0;
  private feedbackStep = 0;
  private loud = 0;
  private loudStep = 0;
  private soft = 0;
  private softStep = 0;
  /** Frames since anything above `QUIET` was in it. */
  private quiet = 0;

  constructor(private readonly sampleRate: number) {
    this.size = Math.ceil(LONGEST_ECHO * sampleRate) + SHORTEST_FRAMES;
    const looks = glideLooks(sampleRate);
    const { feedback, tone, width } = FIRST_ECHO;
    this.glides = {
      feedback: new Glide(feedback, looks),
      tone: new Glide(tone, looks),
      width: new Glide(width, looks),
    };
    this.time = new DelayTime(SHORTEST_FRAMES, sampleRate);
    this.tape = new TapeTime(SHORTEST_FRAMES, sampleRate);
    this.highPass = 1 - exp2((TURN * HIGH_PASS_HZ) / sampleRate);
    this.arrive();
  }

  set(setting: EchoSetting, value: number): void {
    this.glides[setting].goTo(value);
    if (this.isAsleep) this.arrive();
  }

  /** @param frames between two echoes, rounded to a whole number of them */
  setTime(frames: number): void {
    const whole = Math.min(this.size - SHORTEST_FRAMES, Math.max(SHORTEST_FRAMES, Math.round(frames)));
    this.time.goTo(whole);
    this.tape.goTo(whole);
    if (this.isAsleep) this.arriveTime();
  }

  /** How it comes to another time: like a tape, whose pitch bends, or by fading. */
  setTape(isTape: boolean): void {
    this.wantsTape = isTape;
    if (this.isAsleep) this.arriveTime();
  }

  private arriveTime(): void {
    this.time.arrive();
    this.tape.arrive();
    this.isTape = this.wantsTape;
  }

  private lookAtTime(): void {
    const { time, tape } = this;
    if (this.isTape) {
      tape.look();
      // Fading goes on from where the head stands.
      if (!tape.isMoving) time.arrive();
      this.isTape = this.wantsTape || tape.isMoving;
    } else if (this.wantsTape && !time.isFading) {
      tape.arrive(time.frames);
      this.isTape = true;
    } else time.look();
  }

  private arrive(): void {
    for (const setting of ECHO_SETTINGS) this.glides[setting].arrive();
    const { feedback, tone, width } = this.glides;
    this.feedback = MOST_FEEDBACK * feedback.value;
    this.damp = this.dampOf(tone.value);
    this.loud = sinTurns((1 + width.value) / 8);
    this.soft = sinTurns((1 - width.value) / 8);
    this.feedbackStep = this.loudStep = this.softStep = 0;
  }

  private dampOf(tone: number): number {
    return 1 - exp2((TURN * DARKEST_HZ * exp2(TONE_OCTAVES * tone)) / this.sampleRate);
  }

  /**
   * Adds the echoes of `send` to left and right. It wakes up at the very sample that is sent.
   * @param frame the engine's first of these
   */
  process(send: Float64Array, left: Float64Array, right: Float64Array, frames: number, frame: number): void {
    for (let from = 0; from < frames;) {
      if (this.isAsleep) {
        while (from < frames && send[from] === 0) from++;
        if (from === frames) return;
        this.isAsleep = false;
      }
      const gone = (frame + from) % LOOK_FRAMES;
      if (gone === 0) this.look();
      if (this.isAsleep) continue;
      const run = Math.min(frames - from, LOOK_FRAMES - gone);
      this.render(send, left, right, from, run);
      from += run;
    }
  }

  private look(): void {
    // Once round and nothing was in it: so there is nothing in the lines.
    if (this.quiet > (this.isTape ? this.tape : this.time).longest) return this.clear();
    this.lookAtTime();
    this.settle();
    const { feedback, tone, width } = this.glides;
    feedback.look();
    if (tone.look()) this.damp = this.dampOf(tone.value);
    width.look();
    this.feedbackStep = (MOST_FEEDBACK * feedback.value - this.feedback) / LOOK_FRAMES;
    this.loudStep = (sinTurns((1 + width.value) / 8) - this.loud) / LOOK_FRAMES;
    this.softStep = (sinTurns((1 - width.value) / 8) - this.soft) / LOOK_FRAMES;
  }

  /** Forgets what is as good as nothing between two echoes: arithmetic on the smallest numbers there are is many times slower. */
  private settle(): void {
    for (let line = 0; line < 2; line++) {
      const held = this.held[line]!;
      for (let i = 0; i < held.length; i++) held[i] = flushed(held[i]!);
    }
  }

  private render(send: Float64Array, left: Float64Array, right: Float64Array, from: number, frames: number): void {
    const { size, damp, highPass, feedbackStep, loudStep, softStep } = this;
    this.lines ??= [new Float64Array(size), new Float64Array(size)];
    const first = this.lines[0];
    const second = this.lines[1];
    if (this.isTape && this.tape.isMoving) this.readBent(this.lines, frames);
    else this.readFaded(this.lines, frames);
    const outFirst = taps[0];
    const outSecond = taps[1];
    const held = this.held[0];
    const heldSecond = this.held[1];
    let { at, feedback, loud, soft, quiet } = this;
    let low = held[LOW]!;
    let bass = held[BASS]!;
    let lowSecond = heldSecond[LOW]!;
    let bassSecond = heldSecond[BASS]!;
    for (let i = from; i < from + frames; i++) {
      const a = outFirst[i - from]!;
      const b = outSecond[i - from]!;
      left[i]! += a * loud + b * soft;
      right[i]! += a * soft + b * loud;
      low += (a - low) * damp;
      bass += (low - bass) * highPass;
      lowSecond += (b - lowSecond) * damp;
      bassSecond += (lowSecond - bassSecond) * highPass;
      const x = send[i]! + feedback * (lowSecond - bassSecond);
      const y = feedback * (low - bass);
      first[at] = x;
      second[at] = y;
      if (Math.abs(x) > QUIET || Math.abs(y) > QUIET) quiet = 0;
      else quiet++;
      feedback += feedbackStep;
      loud += loudStep;
      soft += softStep;
      if (++at === size) at = 0;
    }
    held[LOW] = low;
    held[BASS] = bass;
    heldSecond[LOW] = lowSecond;
    heldSecond[BASS] = bassSecond;
    this.at = at;
    this.feedback = feedback;
    this.loud = loud;
    this.soft = soft;
    this.quiet = quiet;
  }

  /** What comes out of the lines, while one time fades into another. */
  private readFaded(lines: readonly [Float64Array, Float64Array], frames: number): void {
    const { size, time, at } = this;
    const { fadeStep } = time;
    let { fade } = time;
    const first = lines[0];
    const second = lines[1];
    const outFirst = taps[0];
    const outSecond = taps[1];
    let near = (at + size - time.frames) % size;
    let far = (at + size - time.before) % size;
    for (let i = 0; i < frames; i++) {
      let a = first[near]!;
      let b = second[near]!;
      if (fade < 1) {
        a = fade * a + (1 - fade) * first[far]!;
        b = fade * b + (1 - fade) * second[far]!;
        fade += fadeStep;
      }
      outFirst[i] = a;
      outSecond[i] = b;
      if (++near === size) near = 0;
      if (++far === size) far = 0;
    }
    time.fade = fade;
  }

  /** What comes out of the lines while the head moves: between samples, by the cubic through the four around (Catmull and Rom, 1974). */
  private readBent(lines: readonly [Float64Array, Float64Array], frames: number): void {
    const { size, at } = this;
    this.tape.fill(delays, frames);
    for (let line = 0; line < 2; line++) {
      const samples = lines[line]!;
      const out = taps[line]!;
      for (let i = 0; i < frames; i++) {
        const place = at + size + i - delays[i]!;
        const whole = Math.floor(place);
        const t = place - whole;
        const before = samples[(whole - 1) % size]!;
        const here = samples[whole % size]!;
        const next = samples[(whole + 1) % size]!;
        const after = samples[(whole + 2) % size]!;
        const slope = (next - before) / 2;
        const slopeNext = (after - here) / 2;
        const rise = next - here;
        out[i] = here + t * (slope + t * (3 * rise - 2 * slope - slopeNext + t * (slope + slopeNext - 2 * rise)));
      }
    }
  }

  private clear(): void {
    for (const line of this.lines ?? []) line.fill(0);
    for (const held of this.held) held.fill(0);
    this.quiet = 0;
    this.isAsleep = true;
    this.arriveTime();
    this.arrive();
  }
}
