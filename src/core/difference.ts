/** Where two lists differ, by their indices: from `start` to before `oldEnd` in the old one, to before `end` in the new one. */
export interface Difference {
  start: number;
  oldEnd: number;
  end: number;
}

/**
 * Where two lists differ: from the first part that is not the same to the last. Parts are the same when they are one object or
 * one value.
 * @example difference([1, 2, 3, 4], [1, 5, 6, 3, 4]) // { start: 1, oldEnd: 2, end: 3 }
 */
export function difference(old: readonly unknown[], now: readonly unknown[]): Difference {
  const shorter = Math.min(old.length, now.length);
  let start = 0;
  while (start < shorter && old[start] === now[start]) start++;
  let same = 0;
  while (same < shorter - start && old[old.length - 1 - same] === now[now.length - 1 - same]) same++;
  return { start, oldEnd: old.length - same, end: now.length - same };
}
