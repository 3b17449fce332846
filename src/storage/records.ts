import type { AsyncStorage } from '@react-native-async-storage/async-storage';

/** What the app stores, by key. */
export const SET_KEY = 'set';
export const SETTINGS_KEY = 'settings';
export const DEVICES_KEY = 'devices';
export const SHELF_KEY = 'shelf';
/** Records that could not be read lie under this and the time at which they were set aside. */
export const DAMAGED_PREFIX = 'damaged set ';
/** Sets of another tab, or of another time, that saving would have replaced. */
export const OTHER_PREFIX = 'set of another tab ';

/** Sets as they were, for what refers to them. */
export const VERSION_PREFIX = 'version ';
/** Captured runs, and the pieces of their logs. */
export const RUN_PREFIX = 'run ';
export const LOG_PREFIX = 'log ';
/** What was put right in runs. */
export const FIXES_PREFIX = 'fixes ';

/** Samples: what is known of each, and the pieces of its audio. */
export const SAMPLE_PREFIX = 'sample ';
export const AUDIO_PREFIX = 'audio ';

/** The sets of this device: what the list shows of each, and which versions of it there are. */
export const LIBRARY_PREFIX = 'library ';
/** What can be undone and redone of the open set: which steps, and each of them. */
export const HISTORY_KEY = 'history';
export const STEP_PREFIX = 'step ';

const NAME_NONE = [RUN_PREFIX, LOG_PREFIX, FIXES_PREFIX, LIBRARY_PREFIX, STEP_PREFIX, HISTORY_KEY, SAMPLE_PREFIX, AUDIO_PREFIX]; // prettier-ignore

/** Whether a record is of a kind that names no pieces of a set. */
export function namesNoPieces(key: string): boolean {
  return NAME_NONE.some((prefix) => key.startsWith(prefix));
}

export type Storage = Pick<
  AsyncStorage,
  'getItem' | 'getMany' | 'setItem' | 'setMany' | 'removeItem' | 'removeMany' | 'getAllKeys'
>;

/** Whether the storage has refused for want of room. */
export function isOutOfRoom(error: unknown): boolean {
  return /quota|disk|space/i.test(`${error instanceof Error ? `${error.message} ${error.name}` : String(error)}`);
}

/** Says why storage refused, with what the player can do about it. */
export function storageTrouble(error: unknown): string {
  const words = (error instanceof Error ? error.message : String(error ?? '')).replace(/\.$/, '');
  const reason = words ? ` (${words})` : '';
  if (isOutOfRoom(error)) {
    return `The browser has no room to save this set${reason}. Delete runs or sets that you need no more, or carry this one away as a bundle; saving is tried again by itself.`;
  }
  if (/clos|connection|InvalidState/i.test(words)) {
    return `The browser has closed its storage${reason}. Export the set to be safe; it is tried again by itself.`;
  }
  return `This set could not be saved${reason}. Export it to be safe; it is tried again by itself.`;
}
