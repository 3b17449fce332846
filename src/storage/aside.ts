import { DAMAGED_PREFIX, OTHER_PREFIX, type Storage } from './records';
import { findSet, textOf } from './storedSet';

/** A copy of a set that was put aside, since it could not be read or something else was to be saved in its place. */
export interface SetAside {
  key: string;
  /** When, as ISO 8601. */
  at: string;
  text: string;
}

/** Puts a record aside; one that lies there already is not copied again. */
export async function setAside(storage: Storage, prefix: string, text: string, now: Date): Promise<void> {
  const aside = await listAside(storage);
  if (aside.some((other) => other.text === text)) return;
  let key = prefix + now.toISOString();
  // Several in one millisecond, as when a browser opens all its tabs again.
  for (let i = 2; aside.some((other) => other.key === key); i++) key = `${prefix}${now.toISOString()} ${i}`;
  await storage.setItem(key, text);
}

/** All that was put aside, the newest first. */
export async function listAside(storage: Storage): Promise<SetAside[]> {
  const out: SetAside[] = [];
  for (const key of await storage.getAllKeys()) {
    const prefix = [DAMAGED_PREFIX, OTHER_PREFIX].find((p) => key.startsWith(p));
    if (prefix === undefined) continue;
    const found = await findSet(storage, key);
    if (found) out.push({ key, at: key.slice(prefix.length).split(' ')[0]!, text: textOf(found) });
  }
  return out.sort((a, b) => b.at.localeCompare(a.at));
}
