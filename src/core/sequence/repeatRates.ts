import type { Lane } from '../document/lanes';
import type { SoundKind } from '../document/soundKinds';
import { gridTicks, type GridName, REPEAT_RATES } from '../quantize/grid';

/** The range of repeat rates that suits each kind of sound (common practice). */
const RANGES: Partial<Record<SoundKind, readonly [slowest: GridName, fastest: GridName]>> = {
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

/** The rates that suit a kind of sound, slowest first. */
export function ratesOfKind(kind: SoundKind | undefined): readonly [slowest: GridName, fastest: GridName] {
  return (kind && RANGES[kind]) ?? ANY;
}

/** The rates that suit a lane, its own or those of its kind: places in REPEAT_RATES of the slowest and the fastest. */
export function repeatRange({ kind, repeat }: Pick<Lane, 'kind' | 'repeat'>): [slowest: number, fastest: number] {
  const [slowest, fastest] = repeat ? [repeat.slowest, repeat.fastest] : ratesOfKind(kind);
  return [REPEAT_RATES.indexOf(slowest), REPEAT_RATES.indexOf(fastest)];
}

/**
 * The rate of a lane when the player has chosen one for all, and slides some steps from it.
 * @param steps to faster rates; below 0 to slower ones
 * @returns ticks, kept within the sound's own range
 */
export function repeatTicks(lane: Pick<Lane, 'kind' | 'repeat'>, chosen: GridName, steps: number): number {
  const [slowest, fastest] = repeatRange(lane);
  const wanted = REPEAT_RATES.indexOf(chosen);
  // A rate that the player chose outside the range widens it.
  const from = Math.min(slowest, wanted);
  const to = Math.max(fastest, wanted);
  return gridTicks(REPEAT_RATES[Math.min(to, Math.max(from, wanted + steps))]!);
}
