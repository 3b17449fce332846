import { Channel } from './channel';
import { MixBus } from './mixBus';
import type { MixControl } from '../../document/mix';
import { MAX_STRETCH } from '../stretch';

export const RATE = 48000;

export interface Sides {
  left: Float64Array;
  right: Float64Array;
}

/** Something is set at a frame. */
export type Turn = [frame: number, control: Exclude<MixControl, 'level'>, value: number];

const bus = new MixBus();

/** A sound as it comes out of a channel, with what that sends. @param block frames at once */
export function through(
  { left, right }: Sides,
  turns: readonly Turn[],
  block = MAX_STRETCH,
): Sides & { room: Float64Array; echo: Float64Array; channel: Channel } {
  const channel = new Channel(RATE);
  const out = { left: left.slice(), right: right.slice(), room: left.map(() => 0), echo: left.map(() => 0) };
  const waiting = [...turns];
  for (let at = 0; at < left.length;) {
    while (waiting.length > 0 && waiting[0]![0] <= at) channel.set(waiting[0]![1], waiting.shift()![2]);
    const frames = Math.min(block, left.length - at, (waiting[0]?.[0] ?? Infinity) - at);
    bus.clear(frames);
    bus.left.set(left.subarray(at, at + frames));
    bus.right.set(right.subarray(at, at + frames));
    if (channel.isWanted) channel.process(bus, frames, at);
    out.left.set(bus.left.subarray(0, frames), at);
    out.right.set(bus.right.subarray(0, frames), at);
    out.room.set(bus.send.subarray(0, frames), at);
    out.echo.set(bus.echo.subarray(0, frames), at);
    at += frames;
  }
  return { ...out, channel };
}

export function sine(hz: number, frames: number, level = 1): Sides {
  const left = Float64Array.from({ length: frames }, (_, i) => level * Math.sin((2 * Math.PI * hz * i) / RATE));
  return { left, right: left.slice() };
}

/** dB of a stretch of a sine at one frequency. */
export function levelAt(sound: Float64Array, hz: number, from = 0, to = sound.length): number {
  let re = 0;
  let im = 0;
  for (let i = from; i < to; i++) {
    re += sound[i]! * Math.cos((2 * Math.PI * hz * i) / RATE);
    im += sound[i]! * Math.sin((2 * Math.PI * hz * i) / RATE);
  }
  return 20 * Math.log10((2 * Math.hypot(re, im)) / (to - from));
}

/** The largest step from one sample to the next. */
export function largestStep(sound: Float64Array, from = 1, to = sound.length): number {
  let most = 0;
  for (let i = from; i < to; i++) most = Math.max(most, Math.abs(sound[i]! - sound[i - 1]!));
  return most;
}
