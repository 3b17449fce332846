import { MIX_RANGES, type MixControl } from '../../document/mix';
import { addBus, gains } from '../voiceLoops';
import { Channel } from './channel';
import type { MixBus } from './mixBus';

/** So long a level takes from nothing to full. */
export const RAMP_SECONDS = 0.01;

/** One way into the mix: a level, which moves in a ramp, and what its channel does before that. */
export class Strip {
  /** 0..1, as the player has set it. */
  level = 1;
  /** Where the level's ramp is. */
  gain = 1;
  /** Made when it is first told something: most have nothing to do. */
  private channel: Channel | null = null;
  /** The frame after the last one at which something was in it while its channel had nothing to do. */
  private soundedTo = NaN;
  private readonly rampStep: number;

  constructor(private readonly sampleRate: number) {
    this.rampStep = 1 / (RAMP_SECONDS * sampleRate);
  }

  /** Whether something is in its channel, or rings on there. */
  get isAwake(): boolean {
    return this.channel !== null && this.channel.isAwake;
  }

  /** dB by which its compressor makes it softer now. */
  get reduction(): number {
    return this.channel === null ? 0 : this.channel.reduction;
  }

  /** @param frame the engine's, at which it is told so */
  set(control: MixControl, value: number, frame: number): void {
    if (control === 'level') {
      this.level = value;
      return;
    }
    if (!this.channel && value === MIX_RANGES[control].neutral) return;
    this.channel ??= new Channel(this.sampleRate);
    // What sounds through it must not jump.
    if (this.soundedTo === frame) this.channel.wake();
    this.channel.set(control, value);
  }

  /** A stroke sounds that its channel makes room for. @param velocity 0..1 */
  strike(velocity: number, frame: number): void {
    this.channel?.strike(velocity, frame);
  }

  /** Whether no stroke has it down. */
  isUpAt(frame: number): boolean {
    return this.channel === null || this.channel.isUpAt(frame);
  }

  /** Takes a bus through its channel, in place. */
  treat(bus: MixBus, frames: number, frame: number): void {
    if (this.channel?.isWanted) this.channel.process(bus, frames, frame);
    else if (bus.left[frames - 1] !== 0 || bus.right[frames - 1] !== 0) this.soundedTo = frame + frames;
  }

  /** Adds a bus to another one by its level, which moves to `target` in a ramp. */
  mixInto(from: MixBus, to: MixBus, target: number, frames: number): void {
    if (from.hasEcho) to.hasEcho = true;
    if (this.gain === target) {
      gains[0] = target;
      addBus(from, to, frames);
      if (from.hasEcho) for (let i = 0; i < frames; i++) to.echo[i]! += from.echo[i]! * target;
      return;
    }
    const { rampStep } = this;
    let { gain } = this;
    for (let i = 0; i < frames; i++) {
      gain = nextGain(gain, target, rampStep);
      to.left[i]! += from.left[i]! * gain;
      to.right[i]! += from.right[i]! * gain;
      to.send[i]! += from.send[i]! * gain;
      if (from.hasEcho) to.echo[i]! += from.echo[i]! * gain;
    }
    this.gain = gain;
  }

  /** Brings a bus to its level, in place. */
  bring(bus: MixBus, target: number, frames: number): void {
    if (this.gain === 1 && target === 1) return;
    const { rampStep } = this;
    let { gain } = this;
    for (let i = 0; i < frames; i++) {
      gain = nextGain(gain, target, rampStep);
      bus.left[i]! *= gain;
      bus.right[i]! *= gain;
    }
    this.gain = gain;
  }
}

function nextGain(gain: number, target: number, step: number): number {
  if (gain < target) return Math.min(target, gain + step);
  return gain > target ? Math.max(target, gain - step) : gain;
}
