/** Softest velocity that a pad gives: a ghost note, but heard. */
const SOFTEST = 0.22;
/** Share of the half width around the centre that is full velocity. */
const HARD_RADIUS = 0.18;

/** What of a pointer event makes the velocity. */
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

/** To a hundredth: no hand and no ear tells finer. */
function round(velocity: number): number {
  return Math.round(velocity * 100) / 100;
}
