import type { AsyncStorage } from '@react-native-async-storage/async-storage';
import type { OpenSet } from '@/core/document/set';
import { noticed } from '@/store/sessionSlice';
import { readSettings, settingsLoaded } from '@/store/settingsSlice';
import type { Store } from '@/store/store';
import { demoSet } from '@/core/document/demo';
import { readSet, writeSet } from '@/core/document/readSet';
import { setLoaded } from '@/store/openSlice';

export const SET_KEY = 'set';
export const SETTINGS_KEY = 'settings';
/** Records that could not be read lie under this and the time at which they were set aside. */
export const DAMAGED_PREFIX = 'damaged set ';
/** Sets of another tab that this tab's saving would have replaced. */
export const OTHER_PREFIX = 'set of another tab ';

/** At most this much of the playing is lost if the page dies. */
const SAVE_AFTER_MS = 400;

type Storage = Pick<AsyncStorage, 'getItem' | 'setItem' | 'setMany'>;

/** Says why storage refused, with what the player can do about it. */
function storageTrouble(error: unknown): string {
  const type = (error as { type?: string } | null)?.type;
  const reason = error instanceof Error && error.message ? `: ${error.message}` : '';
  return type === 'WebStorageError'
    ? `The browser has no room to save this set${reason}. Export it, or free some space.`
    : `This set could not be saved${reason}. Export it to be safe.`;
}

/**
 * Brings the stored set and settings into the store. A record that cannot be read is copied aside first, then said so,
 * and the demo opens: nothing is ever overwritten unread.
 * @returns whether it is safe to save over what is stored
 */
export async function restore(store: Store, storage: Storage, now: () => Date = () => new Date()): Promise<boolean> {
  try {
    store.dispatch(settingsLoaded(readSettings(await storage.getItem(SETTINGS_KEY))));
    const text = await storage.getItem(SET_KEY);
    if (text === null) return true;
    const read = readSet(text);
    if ('set' in read) {
      store.dispatch(setLoaded(read));
      return true;
    }
    const key = DAMAGED_PREFIX + now().toISOString();
    await storage.setItem(key, text);
    store.dispatch(setLoaded(demoSet()));
    store.dispatch(
      noticed(`Your stored set could not be opened. ${read.error} It is kept aside as “${key}”; the demo is open.`),
    );
    return true;
  } catch (error) {
    store.dispatch(
      noticed(
        `What is stored here could not be read or set aside, so nothing is saved over it. ${storageTrouble(error)}`,
      ),
    );
    return false;
  }
}

/** The open set, as it is stored. */
function openSet(store: Store): OpenSet {
  const { set, stage } = store.getState();
  return { set: set.present, stage };
}

/**
 * Saves the set and the settings soon after each change.
 * @param saved the set as it is stored
 * @returns what to call when the page is about to go away: saves at once
 */
export function autosave(store: Store, storage: Storage, saved: OpenSet): () => void {
  let { set: savedSet, stage: savedStage } = saved;
  let savedSettings = store.getState().settings;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let saving = Promise.resolve();
  let troubled = false;

  const save = () => {
    timer = null;
    const { settings } = store.getState();
    const { set, stage } = openSet(store);
    const entries: Record<string, string> = {};
    if (set !== savedSet || stage !== savedStage) entries[SET_KEY] = writeSet({ set, stage });
    if (settings !== savedSettings) entries[SETTINGS_KEY] = JSON.stringify(settings);
    if (Object.keys(entries).length === 0) return;
    savedSet = set;
    savedStage = stage;
    savedSettings = settings;
    saving = saving
      .then(() => storage.setMany(entries))
      .then(() => {
        troubled = false;
      })
      .catch((error: unknown) => {
        if (!troubled) store.dispatch(noticed(storageTrouble(error)));
        troubled = true;
      });
  };
  const saveSoon = () => {
    const { set, stage, settings } = store.getState();
    if (set.present === savedSet && stage === savedStage && settings === savedSettings) return;
    timer ??= setTimeout(save, SAVE_AFTER_MS);
  };
  saveSoon();
  store.subscribe(saveSoon);
  return () => {
    if (timer !== null) clearTimeout(timer);
    save();
  };
}

/**
 * Lets one tab at a time save: two would overwrite each other. A tab that has to wait says so; when its turn comes it
 * sets the other's last state aside before its own first save.
 * @param start called once when this tab may save, with the set as it is stored
 * @param locks the browser's lock manager, or undefined where there is none
 */
export async function whenAlone(
  store: Store,
  storage: Storage,
  locks: Pick<LockManager, 'request'> | undefined,
  start: (saved: OpenSet) => void,
): Promise<void> {
  const opened = openSet(store);
  if (!locks) return start(opened);
  const forever = () => new Promise<never>(() => undefined);
  const first = await new Promise<boolean>((answer) => {
    void locks.request('chaffinch set', { ifAvailable: true }, (lock) => {
      answer(lock !== null);
      return lock ? forever() : undefined;
    });
  });
  if (first) return start(opened);
  store.dispatch(
    noticed('Chaffinch is open in another tab, which saves its set. Changes here are saved once that tab is closed.'),
  );
  void locks.request('chaffinch set', async () => {
    const theirs = await storage.getItem(SET_KEY);
    if (store.getState().set.present === opened.set) {
      // Nothing was changed here: go on with what the other tab left.
      const read = readSet(theirs ?? '');
      if ('set' in read) store.dispatch(setLoaded(read));
      start(openSet(store));
      return forever();
    }
    if (theirs !== null) {
      await storage.setItem(OTHER_PREFIX + new Date().toISOString(), theirs);
      store.dispatch(noticed('The other tab is closed: its set is kept aside, and this one is saved from now on.'));
    }
    start(opened);
    return forever();
  });
}
