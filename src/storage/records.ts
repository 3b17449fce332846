import type { AsyncStorage } from '@react-native-async-storage/async-storage';

/** What the app stores, by key. */
export const SET_KEY = 'set';
export const SETTINGS_KEY = 'settings';
/** Records that could not be read lie under this and the time at which they were set aside. */
export const DAMAGED_PREFIX = 'damaged set ';
/** Sets of another tab, or of another time, that saving would have replaced. */
export const OTHER_PREFIX = 'set of another tab ';

export type Storage = Pick<AsyncStorage, 'getItem' | 'setItem' | 'setMany' | 'removeItem' | 'getAllKeys'>;

/** Says why storage refused, with what the player can do about it. */
export function storageTrouble(error: unknown): string {
  const words = (error instanceof Error ? error.message : String(error ?? '')).replace(/\.$/, '');
  const reason = words ? ` (${words})` : '';
  if (/quota|disk|space/i.test(`${words} ${(error as Error | null)?.name}`)) {
    return `The browser has no room to save this set${reason}. Free some space, or export the set; it is tried again by itself.`;
  }
  if (/clos|connection|InvalidState/i.test(words)) {
    return `The browser has closed its storage${reason}. Export the set to be safe; it is tried again by itself.`;
  }
  return `This set could not be saved${reason}. Export it to be safe; it is tried again by itself.`;
}

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
    const text = await storage.getItem(key);
    if (text === null) continue;
    out.push({ key, at: key.slice(prefix.length).split(' ')[0]!, text });
  }
  return out.sort((a, b) => b.at.localeCompare(a.at));
}
