import type { PatternPlace } from '@/core/document/pattern';

/** Gestures remembered: far more than fingers there are. */
const GESTURES_KEPT = 64;

/** A gesture stays with the pattern on which it began, whatever is launched or shown while the finger draws. */
export class GesturePlaces {
  private readonly places = new Map<string, PatternPlace>();

  /**
   * Where an edit belongs.
   * @param gesture its name, the same from its first event to its last; undefined for an edit that is done at once
   * @param shown the pattern that is shown now
   */
  placeOf(gesture: string | undefined, shown: PatternPlace): PatternPlace {
    if (gesture === undefined) return shown;
    const begun = this.places.get(gesture);
    if (begun) return begun;
    if (this.places.size >= GESTURES_KEPT) this.places.delete(this.places.keys().next().value!);
    this.places.set(gesture, shown);
    return shown;
  }
}
