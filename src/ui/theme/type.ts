/**
 * A size of type, the height of its line, or the size of what holds it, that grows with the room (`type` of room.ts).
 * @param px on a phone
 */
export function grown(px: number): number {
  // A style of the page, which React Native's types know as a number alone.
  return `calc(${px}px * var(--type))` as unknown as number;
}
