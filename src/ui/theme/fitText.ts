import { grown } from './type';

/** Width of a character of Barlow Condensed as a share of its size, by eye; e2e/layouts.spec.ts looks whether names are whole. */
const CHARACTER = 0.46;

/**
 * Size and line height at which a name fits a width, between the least that can be read and the most that there is room for
 * in height. A name that is longer still goes on in another line. All of it is told in px of a phone, and grows with the room.
 * @example fitted('Tambourine', 64, { least: 11, most: 17 }) // grown(13.9) and grown(17)
 */
export function fitted(
  name: string,
  width: number,
  { least, most }: { least: number; most: number },
): { fontSize: number; lineHeight: number } {
  const fontSize = Math.min(most, Math.max(least, width / (CHARACTER * Math.max(1, name.length))));
  return { fontSize: grown(fontSize), lineHeight: grown(Math.round(fontSize * 1.2)) };
}

/** The same for a name in a container (CSS `container-type: inline-size`) less `padding` px: it grows with it up to `most`. */
export function fittedToContainer(
  name: string,
  { padding, least, most }: { padding: number; least: number; most: string },
): string {
  return `clamp(${least}px, calc((100cqi - ${padding}px) / ${(CHARACTER * Math.max(1, name.length)).toFixed(2)}), ${most})`;
}
