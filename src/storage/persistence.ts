import type { OpenSet } from '@/core/document/set';
import { devicesLoaded, readDevices } from '@/store/devicesSlice';
import { readShelf, shelfLoaded } from '@/store/shelfSlice';
import { noticed } from '@/store/sessionSlice';
import { readSettings, settingsLoaded, started } from '@/store/settingsSlice';
import { historyRestored } from '@/store/undoable';
import type { Store } from '@/store/store';
import { demoSet } from '@/core/document/demo';
import { writeSet } from '@/core/document/readSet';
import { setLoaded } from '@/store/openSlice';
import { setAside } from './aside';
import { SetPieces } from './pieces';
import {
  DAMAGED_PREFIX,
  DEVICES_KEY,
  SHELF_KEY,
  OTHER_PREFIX,
  SET_KEY,
  SETTINGS_KEY,
  storageTrouble,
  type Storage,
} from './records';
import { StoredHistory } from './storedHistory';
import { findSet, readStored, textOf } from './storedSet';

/**
 * Brings the stored set, settings and controllers into the store. A record that cannot be read is copied aside first, then said so,
 * and the demo opens: nothing is ever overwritten unread. A set that comes so late that another was begun meanwhile is put aside.
 * @returns the pieces of the set that is stored; null if it is not safe to save over it
 */
export async function restore(
  store: Store,
  storage: Storage,
  now: () => Date = () => new Date(),
  history = new StoredHistory(store, storage),
): Promise<SetPieces | null> {
  const before = store.getState().set.present;
  try {
    store.dispatch(settingsLoaded(readSettings(await storage.getItem(SETTINGS_KEY))));
    store.dispatch(devicesLoaded(readDevices(await storage.getItem(DEVICES_KEY))));
    store.dispatch(shelfLoaded(readShelf(await storage.getItem(SHELF_KEY))));
    const found = await findSet(storage, SET_KEY);
    const read = found && readStored(found);
    const steps = found && read && 'set' in read ? await history.read(found.record, read.set) : null;
    if (store.getState().set.present !== before) {
      if (found) {
        await setAside(storage, OTHER_PREFIX, textOf(found), now());
        store.dispatch(noticed('Your stored set came late: it is kept, see Sets.'));
      }
      // What is open counts as stored from now on.
      await storage.setItem(SET_KEY, writeSet(openSet(store)));
      return new SetPieces(SET_KEY);
    }
    if (!found) return new SetPieces(SET_KEY);
    // Whoever has a set has begun, even if the settings were lost.
    if (!store.getState().settings.started) store.dispatch(started());
    if (read && 'set' in read) {
      store.dispatch(setLoaded(read));
      store.dispatch(historyRestored(steps!));
      return SetPieces.ofStored(SET_KEY, read, found.keys);
    }
    await setAside(storage, DAMAGED_PREFIX, textOf(found), now());
    store.dispatch(setLoaded(demoSet()));
    store.dispatch(
      noticed(`Your stored set could not be opened. ${read!.error} It is kept, see Sets; the demo is open.`),
    );
    return new SetPieces(SET_KEY);
  } catch (error) {
    store.dispatch(
      noticed(
        `What is stored here could not be read or set aside, so nothing is saved over it. ${storageTrouble(error)}`,
      ),
    );
    return null;
  }
}

/** The open set, as it is stored. */
function openSet(store: Store): OpenSet {
  const { set, stage } = store.getState();
  return { set: set.present, stage };
}
