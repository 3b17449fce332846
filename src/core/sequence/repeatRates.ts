import type { SoundName } from '../document/kits';
import { gridTicks, type GridName, REPEAT_RATES } from '../quantize/grid';

/** The range of repeat rates that suits each kind of sound (common practice). */
const RANGES: Partial<Record<SoundName, readonly [slowest: GridName, fastest: GridName]>> = {
  kick: ['1/4', '1/16T'],
  crash: ['1/4', '1/16'],
  ride: ['1/4', '1/32'],
  clap: ['1/4', '1/32'],
  lowTom: ['1/4', '1/32'],
  midTom: ['1/4', '1/32'],
  highTom: ['1/4', '1/32T'],
  closedHat: ['1/8D', '1/64T'],
  pedalHat: ['1/4', '1/32'],
  openHat: ['1/4', '1/16T'],
};
const ANY: readonly [GridName, GridName] = ['1/4', '1/64'];

/** The rates that suit a sound: places in REPEAT_RATES of the slowest and the fastest. */
export function repeatRange(sound: SoundName | undefined): [slowest: number, fastest: number] {
  const [slowest, fastest] = (sound && RANGES[sound]) ?? ANY;
  return [REPEAT_RATES.indexOf(slowest), REPEAT_RATES.indexOf(fastest)];
}

/**
 * The rate of a sound when the player has chosen one for all, and slides some steps from it.
 * @param steps to faster rates; below 0 to slower ones
 * @returns ticks, kept within the sound's own range
 */
export function repeatTicks(sound: SoundName | undefined, chosen: GridName, steps: number): number {
  const [slowest, fastest] = repeatRange(sound);
  const wanted = REPEAT_RATES.indexOf(chosen);
  // A rate that the player chose outside the range widens it.
  const from = Math.min(slowest, wanted);
  const to = Math.max(fastest, wanted);
  return gridTicks(REPEAT_RATES[Math.min(to, Math.max(from, wanted + steps))]!);
}
