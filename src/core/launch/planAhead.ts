import { LaunchState, SILENT } from './launchState';
import { LIFT, type Launcher } from './launcher';

/** What plays on a track between two song ticks: a slot, or SILENT. */
export interface Stretch {
  from: number;
  to: number;
  slot: number;
}

/** More changes than any plan of a few bars has. */
const MOST_CHANGES = 1000;

/**
 * What will play on each track between two song ticks if nobody touches anything more: the launcher itself, run ahead on a
 * copy of its state.
 */
export function planAhead(launcher: Launcher, from: number, to: number): Stretch[][] {
  const state = new LaunchState();
  state.copyFrom(launcher.live);
  const lines: Stretch[][] = Array.from(state.slot, (slot) => [{ from, to, slot }]);
  const note = (tick: number) => {
    lines.forEach((line, t) => {
      const last = line[line.length - 1]!;
      if (last.slot === state.slot[t]) return;
      last.to = tick;
      line.push({ from: tick, to, slot: state.slot[t]! });
    });
  };
  let returns = launcher.lift === LIFT.RETURNING ? launcher.liftTick : Infinity;
  for (let i = 0; i < MOST_CHANGES; i++) {
    const due = Math.min(state.due, returns, launcher.fadeTo);
    if (due >= to) break;
    if (due === launcher.fadeTo) {
      state.slot.fill(SILENT);
      note(due);
      break;
    }
    if (due === returns) {
      launcher.lookAhead(state, due);
      returns = Infinity;
    } else launcher.runState(state, due);
    note(Math.max(from, due));
  }
  return lines.map((line) => line.filter((stretch) => stretch.to > stretch.from));
}
