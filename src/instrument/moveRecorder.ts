import { drawnOver, movePoints, thinnedOut } from '@/core/edit/editMoves';
import { CONTROL_RANGES, type Control, type MovePoint } from '@/core/document/moves';
import type { PatternPlace } from '@/core/document/pattern';
import { patternAt } from '@/core/document/set';
import { selectSet } from '@/store/selectors';
import type { Store } from '@/store/store';
import { edited } from '@/store/patternsSlice';

/** Points are dropped where the course changes by less than this share of its range. */
const TOLERANCE = 0.01;

/** A hand on a control while recording. */
interface Ride {
  /** The breakpoints before this time round the loop. */
  before: readonly MovePoint[];
  ridden: MovePoint[];
}

let gestures = 0;

/**
 * Writes what hands do on the controls into the pattern's Moves: each ride, as far as it goes, takes the place of what was there.
 * Several controls can be ridden at a time; together they are one step of undo.
 */
export class MoveRecorder {
  private readonly rides = new Map<string, Ride>();
  private gesture = '';

  constructor(private readonly store: Store) {}

  /**
   * @param point the value of the hand, and the tick of the pattern at which the loop is
   * @param isOver a ride that begins takes the place of the control's whole course
   */
  note(place: PatternPlace, pad: number, control: Control, point: MovePoint, isOver = false): void {
    const pattern = patternAt(selectSet(this.store.getState()), place);
    if (!pattern) return;
    const key = rideKey(place, pad, control);
    let ride = this.rides.get(key);
    if (!ride) {
      if (this.rides.size === 0) this.gesture = `ride ${++gestures}`;
      ride = { before: isOver ? [] : movePoints(pattern, pad, control), ridden: [] };
    }
    const last = ride.ridden[ride.ridden.length - 1];
    // The loop has come round: what was ridden before is there to be ridden over.
    if (last && point.tick < last.tick) ride = { before: movePoints(pattern, pad, control), ridden: [] };
    ride.ridden.push(point);
    this.rides.set(key, ride);
    const { min, max, stepped } = CONTROL_RANGES[control];
    const points = drawnOver(ride.before, thinnedOut(ride.ridden, stepped ? 0 : (max - min) * TOLERANCE));
    const edit = { kind: 'moves', pad, control, points } as const;
    this.store.dispatch(edited({ place, edit, gesture: this.gesture }));
  }

  /** The hands have let go of a control of a track, or of all. */
  end(track?: number, pad?: number, control?: Control): void {
    if (track === undefined) return this.rides.clear();
    const ended = ` ${pad} ${control}`;
    for (const key of this.rides.keys()) if (key.startsWith(`${track} `) && key.endsWith(ended)) this.rides.delete(key);
  }
}

function rideKey({ track, slot }: PatternPlace, pad: number, control: Control): string {
  return `${track} ${slot} ${pad} ${control}`;
}
