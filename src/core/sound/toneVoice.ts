import { decayPerFrame, exp2, sinTurns, tanHalfTurns } from '../math';
import type { Touch } from './touch';

/** How an instrument that plays notes sounds. */
export interface Tone {
  /** A saw with a sine an octave below, through a low-pass whose envelope closes; or phase modulation: two pairs of sines. */
  source: 'saw' | 'phaseModulation';
  /** Seconds to full level. */
  attack: number;
  /** Seconds to -60 dB of what lies above `sustain`. */
  decay: number;
  /** Level of a note that is held, 0..1. */
  sustain: number;
  /** Seconds to -60 dB after it is let go. */
  release: number;
  /** Of the low-pass: Hz at rest, octaves that it opens at full velocity, seconds to -60 dB of that, resonance. */
  cutoff: number;
  opens: number;
  closes: number;
  q: number;
}

/** Below this (-90 dB) a note is over. */
const SILENCE = 3.2e-5;
/** Frames between two looks at the filter and at the end, counted from the note's start: how a render is cut changes nothing. */
const CONTROL_FRAMES = 16;
/** Depth of the phase modulation in turns at full velocity, and seconds to -60 dB of it. */
const DEPTH = 0.28;
const DEPTH_SECONDS = 1.1;
const TINE_RATIO = 14;
const TINE_DEPTH = 0.055;
const TINE_SECONDS = 0.16;

/** One note from its start to silence: it is held until `letGo`. */
export class ToneVoice {
  sounding = false;

  private source: Tone['source'] = 'saw';
  /** Turns a sample as it was struck, and as it is bent. */
  private struckStep = 0;
  private step = 0;
  private phase = 0;
  private gain = 0;
  private attack = 0;
  private attackStep = 0;
  private above = 0;
  private aboveDecay = 0;
  /** Frames before the decay begins, once it is at full level. */
  private holdLeft = 0;
  private sustain = 0;
  private tail = 1;
  private tailDecay = 1;
  private releaseDecay = 1;

  private depth = 0;
  private depthDecay = 1;
  private tine = 0;
  private tineDecay = 1;

  private open = 0;
  private openDecay = 1;
  private cutoff = 0;
  private damping = 0;
  private untilControl = 0;
  private g = 0;
  private scale = 0;
  private band = 0;
  private low = 0;

  constructor(private readonly sampleRate: number) {}

  /** @param hz of the note; the touch's pitch is in it */
  start(tone: Tone, hz: number, { velocity, gain, filter, longer, hold }: Touch): void {
    const { sampleRate } = this;
    this.sounding = true;
    this.source = tone.source;
    this.step = this.struckStep = Math.min(0.45, hz / sampleRate);
    this.holdLeft = Math.round(hold * sampleRate);
    this.phase = 0;
    this.gain = gain;
    this.attack = 0;
    this.attackStep = 1 / Math.max(1, Math.round(tone.attack * sampleRate));
    this.sustain = tone.sustain;
    this.above = 1 - tone.sustain;
    this.aboveDecay = decayPerFrame(tone.decay * longer, sampleRate);
    this.tail = 1;
    this.tailDecay = 1;
    this.releaseDecay = decayPerFrame(tone.release * longer, sampleRate);
    this.depth = DEPTH * velocity;
    this.depthDecay = decayPerFrame(DEPTH_SECONDS, sampleRate);
    this.tine = TINE_DEPTH * velocity * velocity;
    this.tineDecay = decayPerFrame(TINE_SECONDS, sampleRate);
    this.open = tone.opens * velocity;
    this.openDecay = exp2((-9.965784284662087 * CONTROL_FRAMES) / (tone.closes * sampleRate));
    this.cutoff = (tone.cutoff * filter) / sampleRate;
    this.damping = 1 / tone.q;
    this.band = 0;
    this.low = 0;
    this.untilControl = 0;
  }

  /** From the next sample on its pitch is so many times that at which it was struck. */
  bend(ratio: number): void {
    this.step = Math.min(0.45, this.struckStep * ratio);
  }

  /** The key goes up: the note dies away. */
  letGo(): void {
    this.tailDecay = this.releaseDecay;
  }

  /** Adds the next `frames` samples to `out` from its start. @returns how many of them until it is over */
  render(out: Float64Array, frames: number): number {
    for (let from = 0; from < frames;) {
      if (this.untilControl === 0) this.control();
      if (!this.sounding) return from;
      const to = Math.min(frames, from + this.untilControl);
      if (this.source === 'saw') this.renderSaw(out, from, to);
      else this.renderPhaseModulation(out, from, to);
      this.untilControl -= to - from;
      from = to;
    }
    return frames;
  }

  private control(): void {
    this.untilControl = CONTROL_FRAMES;
    if (this.tail < SILENCE || (this.sustain === 0 && this.above < SILENCE)) this.sounding = false;
    this.g = tanHalfTurns(Math.min(0.45, this.cutoff * exp2(this.open)));
    this.scale = 1 / (1 + this.g * (this.g + this.damping));
    this.open *= this.openDecay;
  }

  /** A saw whose step is rounded over two samples (PolyBLEP, Välimäki and Huovilainen 2007), and its sub-octave. */
  private renderSaw(out: Float64Array, from: number, to: number): void {
    const { step, g, scale, damping } = this;
    let { phase, band, low } = this;
    for (let i = from; i < to; i++) {
      // Two octaves' worth of phase, so that the sub-octave never jumps.
      phase += step / 2;
      if (phase >= 1) phase -= 1;
      const p = phase * 2 - (phase >= 0.5 ? 1 : 0);
      let saw = 2 * p - 1;
      if (p < step) {
        const x = p / step - 1;
        saw += x * x;
      } else if (p > 1 - step) {
        const x = (p - 1) / step + 1;
        saw -= x * x;
      }
      const x = 0.6 * saw + 0.7 * sinTurns(phase);
      // State-variable low-pass, trapezoidal (Zavalishin, The Art of VA Filter Design).
      const high = (x - low - (damping + g) * band) * scale;
      const b = band + g * high;
      const l = low + g * b;
      band = b + g * high;
      low = l + g * b;
      out[i]! += l * this.level();
    }
    this.phase = phase;
    this.band = band;
    this.low = low;
  }

  /** A sine whose phase is modulated by itself (a struck reed), and one modulated by a high, short sine (its tine). */
  private renderPhaseModulation(out: Float64Array, from: number, to: number): void {
    const { step, depthDecay, tineDecay } = this;
    let { phase, depth, tine } = this;
    for (let i = from; i < to; i++) {
      phase += step;
      if (phase >= 1) phase -= 1;
      const sine = sinTurns(phase);
      const struck = phase * TINE_RATIO;
      out[i]! +=
        (0.8 * sinTurns(phase + depth * sine) + 0.2 * sinTurns(phase + tine * sinTurns(struck))) * this.level();
      depth *= depthDecay;
      tine *= tineDecay;
    }
    this.phase = phase;
    this.depth = depth;
    this.tine = tine;
  }

  /** The envelope's next value. */
  private level(): number {
    if (this.attack < 1) this.attack = Math.min(1, this.attack + this.attackStep);
    const level = this.attack * (this.sustain + this.above) * this.tail * this.gain;
    if (this.attack === 1) {
      if (this.holdLeft > 0) this.holdLeft--;
      else this.above *= this.aboveDecay;
    }
    this.tail *= this.tailDecay;
    return level;
  }
}
