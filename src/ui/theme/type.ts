/**
 * A size of type, the height of its line, or the size of what holds it, that grows with the room (`type` of room.ts).
 * @param px on a phone
 */
export function grown(px: number): number {
  // A style of the page, which React Native's types know as a number alone.
  return `calc(${px}px * var(--type))` as unknown as number;
}

/** A least width: no word in it is cut, and what stands beside it goes to the next row if need be. Another style of the page alone. */
export const ALL_OF_ITS_WORDS = 'max-content' as unknown as number;
