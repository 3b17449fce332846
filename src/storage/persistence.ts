import type { OpenSet } from '@/core/document/set';
import { noticed } from '@/store/sessionSlice';
import { readSettings, settingsLoaded, started } from '@/store/settingsSlice';
import type { Store } from '@/store/store';
import { demoSet } from '@/core/document/demo';
import { readSet, writeSet } from '@/core/document/readSet';
import { setLoaded } from '@/store/openSlice';
import { DAMAGED_PREFIX, OTHER_PREFIX, SET_KEY, setAside, SETTINGS_KEY, storageTrouble, type Storage } from './records';

/**
 * Brings the stored set and settings into the store. A record that cannot be read is copied aside first, then said so,
 * and the demo opens: nothing is ever overwritten unread. A set that comes so late that another was begun meanwhile is put aside.
 * @returns whether it is safe to save over what is stored
 */
export async function restore(store: Store, storage: Storage, now: () => Date = () => new Date()): Promise<boolean> {
  const before = store.getState().set.present;
  try {
    store.dispatch(settingsLoaded(readSettings(await storage.getItem(SETTINGS_KEY))));
    const text = await storage.getItem(SET_KEY);
    if (store.getState().set.present !== before) {
      if (text !== null) {
        await setAside(storage, OTHER_PREFIX, text, now());
        store.dispatch(noticed('Your stored set came late: it is kept, see “Set aside” in the Set menu.'));
      }
      // What is open counts as stored from now on.
      await storage.setItem(SET_KEY, writeSet(openSet(store)));
      return true;
    }
    if (text === null) return true;
    // Whoever has a set has begun, even if the settings were lost.
    if (!store.getState().settings.started) store.dispatch(started());
    const read = readSet(text);
    if ('set' in read) {
      store.dispatch(setLoaded(read));
      return true;
    }
    await setAside(storage, DAMAGED_PREFIX, text, now());
    store.dispatch(setLoaded(demoSet()));
    store.dispatch(
      noticed(
        `Your stored set could not be opened. ${read.error} It is kept, see “Set aside” in the Set menu; the demo is open.`,
      ),
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
      await setAside(storage, OTHER_PREFIX, theirs, new Date());
      store.dispatch(
        noticed(
          'The other tab is closed: its set is kept, see “Set aside” in the Set menu. This one is saved from now on.',
        ),
      );
    }
    start(opened);
    return forever();
  });
}
