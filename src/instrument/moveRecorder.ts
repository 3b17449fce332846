import { drawnOver, movePoints, thinnedOut } from '@/core/edit/editMoves';
import { movedKey, movedRange, type Moved, type MovePoint } from '@/core/document/moves';
import type { PatternPlace } from '@/core/document/pattern';
import { patternAt } from '@/core/document/set';
import { selectSet } from '@/store/selectors';
import type { Store } from '@/store/store';
import { edited, pressRecorded } from '@/store/patternsSlice';

/** Points are dropped where the course changes by less than this share of its range. */
const TOLERANCE = 0.01;

/** `over`: a ride takes the place of the control's whole course; `key`: it is of the stroke that was recorded last, from nothing to nothing. */
type Way = 'over' | 'key';

/** A hand on a control while recording. */
interface Ride {
  place: PatternPlace;
  way: Way | undefined;
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
   */
  note(place: PatternPlace, moved: Moved, point: MovePoint, way?: Way): void {
    const pattern = patternAt(selectSet(this.store.getState()), place);
    if (!pattern) return;
    const key = `${place.track} ${place.slot} ${movedKey(moved)}`;
    let ride = this.rides.get(key);
    if (!ride) {
      if (this.rides.size === 0) this.gesture = `ride ${++gestures}`;
      const before = way === 'over' ? [] : movePoints(pattern, moved);
      ride = { place, way, before, ridden: way === 'key' ? [{ tick: point.tick, value: 0 }] : [] };
    }
    const last = ride.ridden[ride.ridden.length - 1];
    // The loop has come round: what was ridden before is there to be ridden over.
    if (last && point.tick < last.tick) ride = { ...ride, before: movePoints(pattern, moved), ridden: [] };
    ride.ridden.push(point);
    this.rides.set(key, ride);
    const { min, max, stepped } = movedRange(moved);
    const points = drawnOver(ride.before, thinnedOut(ride.ridden, stepped ? 0 : (max - min) * TOLERANCE));
    const edit = { kind: 'moves', moved, points } as const;
    const { gesture } = this;
    this.store.dispatch(way === 'key' ? pressRecorded({ place, edit }) : edited({ place, edit, gesture }));
  }

  /** The hands have let go of a control of a track, or of all. */
  end(track?: number, moved?: Moved): void {
    if (track === undefined || moved === undefined) return this.rides.clear();
    const ended = ` ${movedKey(moved)}`;
    for (const [key, { place, way, ridden }] of [...this.rides]) {
      if (!key.startsWith(`${track} `) || !key.endsWith(ended)) continue;
      if (way === 'key') this.note(place, moved, { tick: ridden[ridden.length - 1]!.tick, value: 0 }, way);
      this.rides.delete(key);
    }
  }
}
