/**
 * Has every number of a record held as a double, from the first on. V8 holds a field in which it has only seen whole numbers as an
 * integer, and gives the record another shape once a fraction comes: all code that was compiled for the first shape is then thrown
 * away, in the middle of playing. For the same reason what the audio thread reads is written out as one literal: what is copied by
 * spreading has one shape as long as that code is new, and another one later.
 */
export function doubles<T extends object>(record: T): T {
  for (const key of Object.keys(record) as (keyof T)[]) {
    const value = record[key];
    if (typeof value !== 'number') continue;
    record[key] = NaN as T[keyof T];
    record[key] = value;
  }
  return record;
}
