/** When what is launched takes over. */
export const DROPS = ['now', 'beat', 'bar', 'loop', 'bars2', 'bars4'] as const;
export type Drop = (typeof DROPS)[number];

/** How patterns are launched. */
export interface Launching {
  dropOn: Drop;
  /** What holds for as long as the override is held. */
  override: Drop;
  /** Patterns go on in the phase of what they replace, and do not begin at their top. */
  inPlace: boolean;
}

export const FIRST_LAUNCHING: Launching = { dropOn: 'bar', override: 'now', inPlace: false };
