import { isPlain } from './plain';

/**
 * Whether two values say the same once they are stored: fields that are absent and fields of undefined are alike.
 * @example alike({ a: [1], b: undefined }, { a: [1] }) // true
 */
export function alike(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((part, i) => alike(part, b[i]));
  if (!isPlain(a) || !isPlain(b)) return false;
  for (const key in a) if (!alike(a[key], b[key])) return false;
  for (const key in b) if (a[key] === undefined && b[key] !== undefined) return false;
  return true;
}
