/** Width of a character of Barlow Condensed as a share of its size: the mean of words of English (measured). */
const CHARACTER = 0.46;

/**
 * Size in px at which a name fits a width, between the least that can be read and the most that there is room for in height.
 * @example fitted('Tambourine', 64, { least: 11, most: 17 }) // 13.9
 */
export function fitted(name: string, width: number, { least, most }: { least: number; most: number }): number {
  return Math.min(most, Math.max(least, width / (CHARACTER * Math.max(1, name.length))));
}

/** The same for a name in a container (CSS `container-type: inline-size`) less `padding` px: it grows with it up to `most`. */
export function fittedToContainer(
  name: string,
  { padding, least, most }: { padding: number; least: number; most: string },
): string {
  return `clamp(${least}px, calc((100cqi - ${padding}px) / ${(CHARACTER * Math.max(1, name.length)).toFixed(2)}), ${most})`;
}
