import type { HeldControl } from '../document/moves';
import { decayPerFrame, decibels, exp2, sinTurns, tanHalfTurns } from '../math';
import { OscillatorVoice } from './oscillatorVoice';
import { MOST_OSCILLATORS, type Tone, type ToneTurns } from './tone';
import { ToneEnvelope } from './toneEnvelope';
import { ToneFilter } from './toneFilter';
import type { Touch } from './touch';

/** Frames between two looks at what moves a note, counted from its start: how a render is cut changes nothing. */
const CONTROL_FRAMES = 32;
/** Octaves by which *bright* at its ends opens and closes the filter. */
const BRIGHT_OPENS = 3;
/** What a key that is pressed with all force adds: octaves of cutoff, dB (more where there is no filter to be opened), share of the way to full motion. */
const PRESSED = { opens: 1.5, louder: 2, louderAlone: 5, moves: 0.7 };
/** Share of the way to a new loudness from one look to the next: 5 ms to most of it. */
const LOUDER = 0.25;
/** And to where its key is moved: 10 ms to most of it. */
const FEELS = 0.12;
/** So near to it, it is there. */
const THERE = 1e-4;
/** Highest cutoff as a share of the sample rate: above it the tangent runs away. */
const HIGHEST = 0.45;
const MIDDLE_C = 60;

/** What is rendered between two looks: the middle, and what is at the sides. */
const middle = new Float64Array(CONTROL_FRAMES);
const sides = new Float64Array(CONTROL_FRAMES);

/** Whether anything of it is heard at the sides. */
export function isWide({ oscillators, moved }: Tone, { width, motion }: ToneTurns): boolean {
  if (moved?.sides && motion > 0) return true;
  for (let i = 0; width > 0 && i < oscillators.length; i++) if (oscillators[i]!.pan) return true;
  return false;
}

/** One note from its start to silence: it is held until `letGo`. */
export class ToneVoice {
  sounding = false;

  private readonly oscillators: readonly OscillatorVoice[];
  private readonly envelope: ToneEnvelope;
  private readonly filter = new ToneFilter();
  private readonly sidesFilter = new ToneFilter();
  private tone!: Tone;
  private turns!: ToneTurns;
  private count = 0;
  private isWide = false;
  private untilControl = 0;
  /** The engine's frame at the next look, by which all notes move together; and the look's number. */
  private frame = 0;
  private looks = 0;

  /** MIDI note, with its fraction; octaves that it still has to glide, and how many with each look; what waves bend it by. */
  private note = 0;
  private glide = 0;
  private glideStep = 0;
  private bent = 1;
  /** Cycles a sample that the oscillators are tuned to. */
  private tuned = 0;
  /** What the stroke opens of the filter, octaves, and what it falls by from look to look. */
  private open = 0;
  private openDecay = 1;
  private cutoff = 0;
  /** As loud as velocity has it, now and soon. */
  private loud = 0;
  private loudSoon = 0;
  /** How hard its key is pressed, now and soon, 0..1. */
  private pressure = 0;
  private pressureSoon = 0;
  /** How much brighter its key has it than the player's own strip, now and soon, -2..2. */
  private brighter = 0;
  private brighterSoon = 0;
  private isBrightening = false;
  /** The tone's motion with what pressure adds. */
  private motion = 0;
  /** Where the slow wave is, -1..1; and how far it has the whole at one side, which moves with each sample. */
  private wave = 0;
  private sway = 0;
  private swayStep = 0;

  constructor(private readonly sampleRate: number) {
    this.oscillators = Array.from({ length: MOST_OSCILLATORS }, () => new OscillatorVoice(sampleRate));
    this.envelope = new ToneEnvelope(sampleRate);
  }

  /**
   * @param note MIDI note, the stroke's own pitch in it
   * @param frame of the engine at which it begins
   * @param pressure with which it begins, 0..1
   * @param bright -1..1, added to that of `turns`
   */
  start(tone: Tone, turns: ToneTurns, note: number, touch: Touch, frame: number, pressure = 0, bright = 0): void {
    const { velocity, gain, filter, longer, hold } = touch;
    this.tone = tone;
    this.turns = turns;
    this.sounding = true;
    this.isWide = isWide(tone, turns);
    this.note = note;
    this.glide = 0;
    this.bent = 1;
    this.frame = frame;
    this.looks = 0;
    this.untilControl = 0;
    this.wave = this.sway = this.swayStep = 0;
    this.loud = this.loudSoon = gain;
    this.pressure = this.pressureSoon = pressure;
    this.turn('bright', bright);
    this.brighter = this.brighterSoon;
    this.isBrightening = false;
    this.feel();
    const { attack, release, width } = turns;
    const shorter = exp2(((MIDDLE_C - note) / 12) * tone.shortens);
    this.envelope.start({ attack, hold, decay: tone.decay * longer * shorter, sustain: tone.sustain, release: release * longer }, 0); // prettier-ignore
    const oscillator = { velocity, bright: turns.bright + this.brighter, width, longer: longer * shorter };
    this.count = Math.min(MOST_OSCILLATORS, tone.oscillators.length);
    for (let i = 0; i < this.count; i++) this.oscillators[i]!.start(tone.oscillators[i]!, oscillator);
    this.tuned = 0;
    this.startFilter(velocity, filter);
  }

  private startFilter(velocity: number, ratio: number): void {
    const { filter } = this.tone;
    if (!filter) return;
    const { cutoff, follows, opens, closes, q, steep } = filter;
    this.cutoff = (cutoff * ratio * exp2(BRIGHT_OPENS * this.turns.bright)) / this.sampleRate;
    this.cutoff *= exp2((follows * (this.note - MIDDLE_C)) / 12);
    this.open = opens * velocity;
    this.openDecay = decayPerFrame(closes, this.sampleRate / CONTROL_FRAMES);
    const g = this.tangent();
    this.filter.start(g, q, steep);
    this.sidesFilter.start(g, q, steep);
  }

  /** A control of its key is moved there: pressure 0..1, bright -1..1. */
  turn(control: HeldControl, value: number): void {
    if (control === 'pressure') this.pressureSoon = value;
    // Together with the strip no further than that goes.
    else this.brighterSoon = Math.min(1, Math.max(-1, this.turns.bright + value)) - this.turns.bright;
  }

  /** From the next look on its pitch is so many times that at which it was struck. */
  bend(ratio: number): void {
    this.bent = ratio;
  }

  /**
   * It goes to another note without beginning anew: its waves, its envelope and its filter go on as they are.
   * @param gain of the new stroke; NaN: as loud as it was struck
   */
  slur(note: number, gain: number): void {
    const { glide } = this.turns;
    const follows = this.tone.filter?.follows ?? 0;
    const looks = Math.ceil((glide * this.sampleRate) / CONTROL_FRAMES);
    if (looks > 0) {
      this.glide += (this.note - note) / 12;
      this.glideStep = this.glide / looks;
    }
    this.cutoff *= exp2((follows * (note - this.note)) / 12);
    if (!Number.isNaN(gain)) this.loudSoon = gain;
    this.note = note;
  }

  /** The key goes up: the note dies away. */
  letGo(): void {
    this.envelope.letGo();
  }

  /** Adds the next `frames` samples to two sounds from their start. @returns how many of them until it is over */
  render(outMiddle: Float64Array, outSides: Float64Array, frames: number): number {
    for (let from = 0; from < frames;) {
      if (this.untilControl === 0) this.control();
      if (!this.sounding) return from;
      const run = Math.min(frames - from, this.untilControl);
      middle.fill(0);
      sides.fill(0);
      for (let i = 0; i < this.count; i++) this.oscillators[i]!.render(middle, sides, run);
      if (this.isWide) this.swaySides(run);
      if (this.tone.filter) {
        this.filter.process(middle, run);
        if (this.isWide) this.sidesFilter.process(sides, run);
      }
      this.envelope.process(middle, sides, run, outMiddle, outSides, from);
      this.untilControl -= run;
      from += run;
    }
    return frames;
  }

  /** The whole of it goes from side to side. */
  private swaySides(frames: number): void {
    if (!this.tone.moved?.sides) return;
    const { swayStep } = this;
    let { sway } = this;
    for (let i = 0; i < frames; i++) {
      sides[i]! += middle[i]! * sway;
      sway += swayStep;
    }
    this.sway = sway;
  }

  // --- what moves it ----------------------------------------------------------------------------------------

  private control(): void {
    this.untilControl = CONTROL_FRAMES;
    if (this.envelope.isOver) this.sounding = false;
    if (!this.sounding) return;
    this.feel();
    this.move();
    this.brighten();
    this.tune();
    this.loud += (this.loudSoon - this.loud) * LOUDER;
    const louder = this.tone.filter ? PRESSED.louder : PRESSED.louderAlone;
    const dB = (this.tone.moved?.dB ?? 0) * this.motion * 0.5 * (this.wave - 1) + louder * this.pressure;
    const level = this.loud * (dB === 0 ? 1 : decibels(dB));
    // From nothing in a line, as a wave that begins in the middle of its cycle would else click.
    this.envelope.moveTo(level, CONTROL_FRAMES);
    if (this.tone.filter) {
      this.open *= this.openDecay;
      const g = this.tangent();
      this.filter.moveTo(g, CONTROL_FRAMES);
      if (this.isWide) this.sidesFilter.moveTo(g, CONTROL_FRAMES);
    }
    this.looks++;
    this.frame += CONTROL_FRAMES;
  }

  /** How hard its key is pressed. */
  private feel(): void {
    const { motion } = this.turns;
    this.pressure = felt(this.pressure, this.pressureSoon);
    this.motion = motion + (1 - motion) * PRESSED.moves * this.pressure;
  }

  /** Its waves follow where its key has it; its filter does by `tangent`. */
  private brighten(): void {
    const before = this.brighter;
    if (before === this.brighterSoon && !this.isBrightening) return;
    this.brighter = felt(before, this.brighterSoon);
    this.isBrightening = this.brighter !== before;
    for (let i = 0; i < this.count; i++) this.oscillators[i]!.brighten(this.brighter - before, CONTROL_FRAMES);
  }

  /** Where the slow wave is by the engine's clock: so that all notes of a chord move as one. */
  private move(): void {
    const { moved } = this.tone;
    if (!moved) return;
    const { hz, sides: reach, after } = moved;
    const seconds = (this.looks * CONTROL_FRAMES) / this.sampleRate;
    const come = after > 0 ? Math.min(1, seconds / after) : 1;
    this.wave = come * sinTurns((hz * this.frame) / this.sampleRate);
    const sway = reach * this.motion * this.wave;
    if (this.looks === 0) this.sway = sway;
    this.swayStep = (sway - this.sway) / CONTROL_FRAMES;
  }

  private tune(): void {
    if (this.glide !== 0) {
      const rest = this.glide - this.glideStep;
      // Once the step would pass it, it is there.
      this.glide = rest * this.glide <= 0 ? 0 : rest;
    }
    const cents = this.tone.moved?.cents ?? 0;
    const octaves = this.glide + (cents * this.motion * this.wave) / 1200;
    const step = ((440 * this.bent) / this.sampleRate) * exp2((this.note - 69) / 12 + octaves);
    if (step === this.tuned) return;
    this.tuned = step;
    for (let i = 0; i < this.count; i++) {
      const { detune } = this.tone.oscillators[i]!;
      this.oscillators[i]!.tune(detune === 0 ? step : step * exp2((detune * this.turns.motion) / 1200));
    }
  }

  /** Of the filter's cutoff as it is to be. */
  private tangent(): number {
    const octaves = this.tone.moved?.octaves ?? 0;
    const pressed = PRESSED.opens * this.pressure + BRIGHT_OPENS * this.brighter;
    const up = this.open + octaves * this.motion * this.wave + pressed;
    return tanHalfTurns(Math.min(HIGHEST, this.cutoff * exp2(up)));
  }
}

/** What is on its way to a value at the next look. */
function felt(now: number, soon: number): number {
  const rest = soon - now;
  return Math.abs(rest) < THERE ? soon : now + rest * FEELS;
}
