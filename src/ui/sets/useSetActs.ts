import { useStore } from 'react-redux';
import { counted } from '@/core/counted';
import { emptySet } from '@/core/document/create';
import { tracksOf } from '@/core/document/set';
import type { LibrarySet } from '@/core/library/librarySet';
import { withTracks } from '@/core/library/restore';
import { OtherTabKeeps } from '@/storage/library';
import { storageTrouble } from '@/storage/records';
import { exportBundle, exportSet, openSetOf, saveSetFile } from '@/storage/setFiles';
import { tracksBroughtIn } from '@/store/openSlice';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { useLibrary } from './LibraryContext';

/** What is done with sets of the library. What goes wrong is said. */
export function useSetActs() {
  const store = useStore() as Store;
  const library = useLibrary();
  const instrument = useInstrument();
  const say = (text: string, undo = false) => void store.dispatch(noticed(text, undo));
  const tried = (done: Promise<unknown>) => {
    done.catch((error: unknown) => say(error instanceof OtherTabKeeps ? error.message : storageTrouble(error)));
  };
  const isOpen = (set: LibrarySet) => set.id === (selectSet(store.getState()).id ?? '');
  const open = async (set: LibrarySet) => {
    const read = await library.open(set);
    if ('error' in read) return say(`“${set.name}” could not be opened. ${read.error}`);
    instrument.open(read);
    say(`“${set.name}” is open.`, true);
  };
  const addTracks = async (set: LibrarySet) => {
    const read = await library.open(set);
    if ('error' in read) return say(`“${set.name}” could not be read. ${read.error}`);
    const tracks = tracksOf(read.set);
    const { leftOut } = withTracks(selectSet(store.getState()), tracks);
    store.dispatch(tracksBroughtIn(tracks));
    const came = `${counted(tracks.length - leftOut, 'track')} of “${set.name}” came in`;
    return say(leftOut > 0 ? `${came}; for ${leftOut} there is no room.` : `${came}.`, true);
  };
  const carry = async (set: LibrarySet, asBundle: boolean) => {
    const read = isOpen(set) ? openSetOf(store) : await library.open(set);
    if (!('error' in read)) return asBundle ? exportBundle(store, read) : exportSet(store, read);
    // What cannot be opened can be carried away all the same, to be mended.
    const text = await library.text(set);
    if (text === null) return say(`“${set.name}” could not be carried away. ${read.error}`);
    return saveSetFile(set.name, text);
  };
  const remove = async (set: LibrarySet) => {
    if (isOpen(set)) instrument.open(emptySet());
    const lies = await library.remove(set.id);
    say(lies ? `“${set.name}” lies in the bin for thirty days.` : 'An empty set is open.', !lies);
  };
  return {
    tried,
    open: (set: LibrarySet) => tried(open(set)),
    addTracks: (set: LibrarySet) => tried(addTracks(set)),
    duplicate: (set: LibrarySet) => tried(library.duplicate(set).then(() => say(`“${set.name}” is duplicated.`))),
    remove: (set: LibrarySet) => tried(remove(set)),
    carry: (set: LibrarySet, asBundle: boolean) => tried(carry(set, asBundle)),
  };
}
