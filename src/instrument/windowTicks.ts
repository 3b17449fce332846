import { ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { selectSet } from '@/store/selectors';
import type { RootState } from '@/store/store';

/** At which song ticks a loop window that was moved takes over: every so many, 0 for at once. */
export function windowTicks(state: RootState): number {
  const { meter } = selectSet(state);
  const { windowOn } = state.settings;
  return windowOn === 'bar' ? ticksPerBar(meter) : windowOn === 'beat' ? ticksPerBeat(meter) : 0;
}
