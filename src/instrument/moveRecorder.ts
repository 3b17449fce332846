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
  place: PatternPlace;
  pad: number;
  control: Control;
  /** The breakpoints before this time round the loop. */
  before: readonly MovePoint[];
  ridden: MovePoint[];
  gesture: string;
}

let rides = 0;

/** Writes what hands do on the controls into the pattern's Moves: each ride, as far as it goes, takes the place of what was there. */
export class MoveRecorder {
  private ride: Ride | null = null;

  constructor(private readonly store: Store) {}

  /** @param point the value of the hand, and the tick of the pattern at which the loop is */
  note(place: PatternPlace, pad: number, control: Control, point: MovePoint): void {
    const pattern = patternAt(selectSet(this.store.getState()), place);
    if (!pattern) return;
    let { ride } = this;
    if (!ride || !isSamePlace(ride.place, place) || ride.pad !== pad || ride.control !== control) {
      ride = { place, pad, control, before: movePoints(pattern, pad, control), ridden: [], gesture: `ride ${++rides}` };
    }
    const last = ride.ridden[ride.ridden.length - 1];
    // The loop has come round: what was ridden before is there to be ridden over.
    if (last && point.tick < last.tick) ride = { ...ride, before: movePoints(pattern, pad, control), ridden: [] };
    ride.ridden.push(point);
    this.ride = ride;
    const { min, max, stepped } = CONTROL_RANGES[control];
    const points = drawnOver(ride.before, thinnedOut(ride.ridden, stepped ? 0 : (max - min) * TOLERANCE));
    const edit = { kind: 'moves', pad, control, points } as const;
    this.store.dispatch(edited({ place, edit, gesture: ride.gesture }));
  }

  /** The hand has let go. */
  end(): void {
    this.ride = null;
  }
}

function isSamePlace(a: PatternPlace, b: PatternPlace): boolean {
  return a.track === b.track && a.slot === b.slot;
}
