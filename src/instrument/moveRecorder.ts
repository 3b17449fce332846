import { drawnOver, movePoints, thinnedOut } from '@/core/edit/editMoves';
import { movedRange, type Moved, type MovePoint } from '@/core/document/moves';
import type { PatternPlace } from '@/core/document/pattern';
import { patternAt } from '@/core/document/set';
import { selectSet } from '@/store/selectors';
import type { Store } from '@/store/store';
import { edited, pressRecorded } from '@/store/patternsSlice';

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
  note(place: PatternPlace, moved: Moved, point: MovePoint, isOver = false): void {
    const pattern = patternAt(selectSet(this.store.getState()), place);
    if (!pattern) return;
    const key = `${place.track} ${place.slot} ${movedKey(moved)}`;
    let ride = this.rides.get(key);
    if (!ride) {
      if (this.rides.size === 0) this.gesture = `ride ${++gestures}`;
      ride = { before: isOver ? [] : movePoints(pattern, moved), ridden: [] };
    }
    const last = ride.ridden[ride.ridden.length - 1];
    // The loop has come round: what was ridden before is there to be ridden over.
    if (last && point.tick < last.tick) ride = { before: movePoints(pattern, moved), ridden: [] };
    ride.ridden.push(point);
    this.rides.set(key, ride);
    const { min, max, stepped } = movedRange(moved);
    const points = drawnOver(ride.before, thinnedOut(ride.ridden, stepped ? 0 : (max - min) * TOLERANCE));
    const edit = { kind: 'moves', moved, points } as const;
    const { gesture } = this;
    this.store.dispatch(
      moved.control === 'pressure' ? pressRecorded({ place, edit }) : edited({ place, edit, gesture }),
    );
  }

  /** The hands have let go of a control of a track, or of all. */
  end(track?: number, moved?: Moved): void {
    if (track === undefined || moved === undefined) return this.rides.clear();
    const ended = ` ${movedKey(moved)}`;
    for (const key of this.rides.keys()) if (key.startsWith(`${track} `) && key.endsWith(ended)) this.rides.delete(key);
  }
}

/** Names what is moved. */
export function movedKey(moved: Moved): string {
  return `${'pad' in moved ? moved.pad : moved.on} ${moved.control}`;
}
