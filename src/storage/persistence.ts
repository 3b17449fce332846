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
