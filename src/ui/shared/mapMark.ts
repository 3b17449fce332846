import { targetKey, type Target } from '@/core/midi/target';

/**
 * Marks what works a function, so that a control of a controller can be given to it by touching it (see `useMapTouch`). To be spread
 * over a View or a Pressable.
 */
export function mapMark(target: Target | undefined): object {
  return target ? { dataSet: { map: targetKey(target) } } : {};
}
