/** A part of a document of which nothing is known yet. */
export type Plain = Record<string, unknown>;

/** Whether a value is an object with fields, and no list. */
export function isPlain(value: unknown): value is Plain {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
