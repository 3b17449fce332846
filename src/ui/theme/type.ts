/**
 * A size of type, or the height of its line, that grows with the room: as it is on phones and tablets, larger on a desk
 * (`--type` in `public/index.html`).
 * @param px on a phone
 */
export function grown(px: number): number {
  // A style of the page, which React Native's types know as a number alone.
  return `calc(${px}px * var(--type))` as unknown as number;
}
