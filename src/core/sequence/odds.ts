import { hash } from '../math';

const SEED = 0x0dd5;

/**
 * Whether a hit of some likelihood sounds at a moment of the song. Nothing is drawn or remembered: the same moment always
 * answers the same, so that a performance replays as it was.
 * @param odds 0..1
 * @param songTick counted from the launch of its pattern
 */
export function isLucky(odds: number, track: number, pad: number, songTick: number): boolean {
  if (odds >= 1) return true;
  const draw = hash(SEED + track, pad, Math.round(songTick)) >>> 8;
  return draw / 0x1000000 < odds;
}
