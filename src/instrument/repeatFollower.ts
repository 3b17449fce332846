import { lanesOf } from '@/core/document/lanes';
import { PADS } from '@/core/document/limits';
import type { Track } from '@/core/document/track';
import type { Instruction } from '@/core/protocol/commands';
import type { GridName } from '@/core/quantize/grid';
import { repeatTicks } from '@/core/sequence/repeatRates';
import { selectTrack } from '@/store/selectors';
import type { RootState } from '@/store/store';

/** What the rates of note repeat depend on. */
interface Told {
  on: boolean;
  latch: boolean;
  rate: GridName;
  track: number;
  sounds: ReturnType<typeof lanesOf>;
}

/** Tells the engine how note repeat is set: on, latched, and the rate of each pad, which a finger can slide. */
export class RepeatFollower {
  private told: Told | null = null;
  private readonly slides = new Array<number>(PADS).fill(0);

  constructor(private readonly send: (instructions: readonly Instruction[]) => void) {}

  follow(state: RootState): void {
    const { on, latch } = state.session.repeat;
    const track = selectTrack(state);
    const now: Told = { on, latch, rate: state.settings.repeatRate, track: track.id, sounds: lanesOf(track) };
    const { told } = this;
    if (told && (Object.keys(now) as (keyof Told)[]).every((key) => now[key] === told[key])) return;
    this.told = now;
    const rates = Array.from({ length: PADS }, (_, pad) => this.rateOf(track, now.rate, pad));
    this.send([...rates, { type: 'noteRepeat', on, latch }]);
  }

  /** The finger on a held pad has slid so many steps to faster rates (below 0: slower). */
  slide(state: RootState, pad: number, steps: number): void {
    if (this.slides[pad] === steps) return;
    this.slides[pad] = steps;
    this.send([this.rateOf(selectTrack(state), state.settings.repeatRate, pad)]);
  }

  private rateOf(track: Track, chosen: GridName, pad: number): Instruction<'repeatRate'> {
    const ticks = repeatTicks(lanesOf(track)[pad]!, chosen, this.slides[pad]!);
    return { type: 'repeatRate', track: track.id, pad, ticks };
  }
}
