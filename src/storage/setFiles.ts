import { saveAs } from 'file-saver';
import { readSet, writeSet } from '@/core/document/readSet';
import type { OpenSet } from '@/core/document/set';
import { noticed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { safeFileName } from './exportFiles';

/** A set as it leaves this device, where it has no place yet: it gets a new id wherever it is opened. */
function asCarried({ set: { id: _, ...set }, stage }: OpenSet): OpenSet {
  return { set, stage };
}

/** A set as text that a person can read and compare line by line; the app reads it like a stored one. */
function setFileText(open: OpenSet): string {
  return `${JSON.stringify(JSON.parse(writeSet(asCarried(open))), null, 1)}\n`;
}

/** The set that is open. */
export function openSetOf(store: Store): OpenSet {
  const { set, stage } = store.getState();
  return { set: set.present, stage };
}

/** Saves a whole set as a file. */
export function exportSet(store: Store, open = openSetOf(store)): void {
  saveSetFile(open.set.name, setFileText(open));
  store.dispatch(noticed(`Saved ${setFileName(open.set.name)}.`));
}

/** Saves a text that is a set, or once was one, as a file. */
export function saveSetFile(name: string, text: string): void {
  saveAs(new Blob([text], { type: 'application/json' }), setFileName(name));
}

function setFileName(name: string): string {
  return `${safeFileName(name)}.chaffinch.json`;
}

/** Saves a whole set as a bundle for another device. */
export async function exportBundle(store: Store, open = openSetOf(store)): Promise<void> {
  const { name } = open.set;
  try {
    const { makeBundle } = await loadBundles();
    saveAs(await makeBundle(asCarried(open)), `${safeFileName(name)}.chaffinch.zip`);
    store.dispatch(noticed(`Saved ${safeFileName(name)}.chaffinch.zip.`));
  } catch (error) {
    store.dispatch(noticed(`The bundle could not be made: ${error instanceof Error ? error.message : String(error)}.`));
  }
}

/** Zips are seldom met: their code comes when it is wanted. */
const loadBundles = () => import('./bundle');

/**
 * Lets the player choose a file and opens the set in it.
 * @param open puts the set in the place of the one that is open
 */
export function openSetFile(store: Store, open: (set: OpenSet) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = '.json,.zip,application/json,application/zip';
  input.addEventListener('change', () => {
    const file = input.files?.[0];
    if (file) void bringIn(store, file, open);
  });
  input.click();
}

/** Opens the set in a file, a bundle or a text; a file that is none is left with a sentence that says what is wrong. */
export async function bringIn(store: Store, file: File, open: (set: OpenSet) => void): Promise<void> {
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    // As a zip begins.
    const isBundle = bytes[0] === 0x50 && bytes[1] === 0x4b;
    const read = isBundle ? await (await loadBundles()).readBundle(bytes) : readSet(new TextDecoder().decode(bytes));
    if ('error' in read) return void store.dispatch(noticed(`“${file.name}” could not be opened. ${read.error}`));
    open(read);
    store.dispatch(noticed(`“${read.set.name}” is open.`, true));
  } catch (error) {
    store.dispatch(noticed(`“${file.name}” could not be read: ${String(error)}.`));
  }
}
