/** Softest velocity that a pad gives: a ghost note, but heard. */
const SOFTEST = 0.22;
/** Share of the half width around the centre that is full velocity. */
const HARD_RADIUS = 0.18;

/** The properties of a pointer event that determine the velocity. */
export interface Strike {
  /** Where on the pad: 0..1 from its left and top. */
  x: number;
  y: number;
  /** `PointerEvent.pressure`, 0..1. */
  pressure: number;
}

/**
 * Whether a reported pressure was measured. W3C Pointer Events: a device that cannot measure reports 0.5 while a button or
 * finger is down; many touch screens report a constant 0 or 1 instead.
 */
export function isMeasured(pressure: number): boolean {
  return pressure > 0 && pressure < 1 && pressure !== 0.5;
}

/**
 * Velocity (0..1) of a strike: from the pressure where the device measures it, else from where the finger lands, hard in
 * the centre and soft at the edge.
 */
export function strikeVelocity({ x, y, pressure }: Strike): number {
  if (isMeasured(pressure)) return round(SOFTEST + (1 - SOFTEST) * pressure);
  const distance = Math.max(Math.abs(2 * x - 1), Math.abs(2 * y - 1));
  const soft = Math.min(1, Math.max(0, (distance - HARD_RADIUS) / (1 - HARD_RADIUS)));
  return round(1 - (1 - SOFTEST) * soft);
}

/** Share of the pad's height by which a finger moves from its strike to the hardest or the softest. */
const PRESS_TRAVEL = 0.6;

/**
 * Velocity (0..1) while a finger stays on a pad: its pressure where the device measures it, else up from where it
 * struck is harder and down is softer.
 * @param struck velocity of the strike
 * @param up how far the finger has moved up since, as a share of the pad's height
 */
export function heldVelocity(struck: number, up: number, pressure: number): number {
  if (isMeasured(pressure)) return round(SOFTEST + (1 - SOFTEST) * pressure);
  return round(Math.min(1, Math.max(SOFTEST, struck + ((1 - SOFTEST) * up) / PRESS_TRAVEL)));
}

/** A finger that moves by less than this share of the pad's height means nothing by it. */
const PRESS_SLACK = 0.08;

/**
 * Pressure (0..1) of a finger that stays on a pad beyond that of its strike: measured where the device does, else as far up as it has moved.
 * @param struck `PointerEvent.pressure` of the strike
 * @param up as in `heldVelocity`
 */
export function heldPressure(struck: number, up: number, pressure: number): number {
  const more = isMeasured(pressure)
    ? (pressure - struck) / Math.max(0.05, 1 - struck)
    : (up - PRESS_SLACK) / PRESS_TRAVEL;
  return round(Math.min(1, Math.max(0, more)));
}

/** A finger that slides sideways by less than this share of the pad's height means nothing by it; and so much further it is as far as it goes. */
const ASIDE_SLACK = 0.15;
const ASIDE_TRAVEL = 0.6;

/**
 * How far a finger that stays on a pad has slid to the right, -1..1; below 0: to the left.
 * @param across as a share of the pad's height
 */
export function heldAside(across: number): number {
  const far = Math.min(1, Math.max(0, (Math.abs(across) - ASIDE_SLACK) / ASIDE_TRAVEL));
  return round(Math.sign(across) * far) + 0;
}

/** Pixels that a finger slides sideways to the next rate of note repeat. */
const SLIDE_PX = 26;

/** Steps to faster rates (below 0: slower) for a finger that has slid so many px to the right. Less than one step counts as 0. */
export function slideSteps(px: number): number {
  return Math.trunc(px / SLIDE_PX) + 0;
}

/** Rounded to hundredths, which is finer than can be played or heard. */
function round(velocity: number): number {
  return Math.round(velocity * 100) / 100;
}
