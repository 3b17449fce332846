import { nanoid } from '@reduxjs/toolkit';
import { saveAs } from 'file-saver';
import { counted } from '@/core/counted';
import { MAX_NAME } from '@/core/document/limits';
import { readSet, writeSet } from '@/core/document/readSet';
import { samplesOfKit, samplesOfSet } from '@/core/document/samplesOf';
import { sampleOf } from '@/core/document/sound';
import type { OpenSet } from '@/core/document/set';
import type { Sample } from '@/core/sample/levels';
import type { Shelved } from '@/core/shelf/shelved';
import { midiArrived, noticed, sampleFound } from '@/store/sessionSlice';
import { shelved } from '@/store/shelfSlice';
import type { Store } from '@/store/store';
import { safeFileName } from './exportFiles';
import { pickFile } from './pickFile';
import { isOutOfRoom } from './records';
import { samples } from './storage';

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
  const without = samplesOfSet(open.set).length > 0 ? ' Its recordings are not in it: a bundle has them.' : '';
  store.dispatch(noticed(`Saved ${setFileName(open.set.name)}.${without}`));
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
    const { audio, missing } = await recordingsOf(samplesOfSet(open.set));
    saveAs(await makeBundle(asCarried(open), audio), `${safeFileName(name)}.chaffinch.zip`);
    store.dispatch(noticed(`Saved ${safeFileName(name)}.chaffinch.zip.${missing}`));
  } catch (error) {
    store.dispatch(noticed(`The bundle could not be made: ${error instanceof Error ? error.message : String(error)}.`));
  }
}

/** Recordings for a file, and what is to be said of those that are not on this device. */
async function recordingsOf(ids: readonly string[]): Promise<{ audio: Sample[]; missing: string }> {
  const audio = await samples.loadAll(ids);
  const missing = ids.length - audio.length;
  return {
    audio,
    missing: missing > 0 ? ` ${counted(missing, 'recording')} of it could not be found on this device.` : '',
  };
}

/**
 * Keeps the recordings of a bundle.
 * @returns what is to be said of those that could not be kept
 */
async function keepRecordings(store: Store, brought: readonly Sample[], named: readonly string[]): Promise<string> {
  let problem = '';
  let lost = 0;
  for (const id of named) if (!brought.some((sample) => sample.id === id) && !(await samples.has(id))) lost++;
  for (const sample of brought) {
    try {
      const { sample: id } = await samples.keep(sample);
      if (id === sample.id) store.dispatch(sampleFound(id));
      else lost++;
    } catch (error) {
      lost++;
      problem = isOutOfRoom(error) ? ': the browser has no room for it' : `: ${String(error)}`;
    }
  }
  return lost > 0
    ? ` ${counted(lost, 'recording')} could not be kept${problem}; the pads that play it are silent.`
    : '';
}

/** Files from elsewhere are seldom met: the code that reads them comes when it is wanted. */
const loadBundles = () => import('./bundle');
const loadMidi = () => import('@/core/formats/readMidi');

/** Kinds of files that can be brought in. */
const KINDS = '.json,.zip,.mid,.midi,application/json,application/zip,audio/midi,audio/x-midi';

/**
 * Lets the player choose a file and brings in what is in it.
 * @param open puts a set in the place of the one that is open
 */
export function chooseFile(store: Store, open: (set: OpenSet) => void): void {
  pickFile(KINDS, (file) => void bringIn(store, file, open));
}

/**
 * Brings in a file: opens the set in a bundle or a text; shows what is in a MIDI file, to be taken or left. A file that is none of them
 * is left with a sentence that says what is wrong.
 */
export async function bringIn(store: Store, file: File, open: (set: OpenSet) => void): Promise<void> {
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const kind = String.fromCharCode(...bytes.subarray(0, 4));
    if (kind === 'MThd') return await bringMidi(store, file.name, bytes);
    const isBundle = kind.startsWith('PK');
    const read = isBundle ? await (await loadBundles()).readBundle(bytes) : readSet(new TextDecoder().decode(bytes));
    if ('error' in read) return void store.dispatch(noticed(`“${file.name}” could not be opened. ${read.error}`));
    const brought = 'samples' in read ? (read.samples ?? []) : [];
    if ('shelved' in read) return keepKit(store, read.shelved, await keepRecordings(store, brought, samplesOfShelved(read.shelved))); // prettier-ignore
    const lost = isBundle ? await keepRecordings(store, brought, samplesOfSet(read.set)) : '';
    open(read);
    store.dispatch(noticed(`“${read.set.name}” is open.${lost}`, true));
  } catch (error) {
    store.dispatch(noticed(`“${file.name}” could not be read: ${String(error)}.`));
  }
}

/** What comes gets a place of its own: nothing that lies on the shelf is replaced. */
function keepKit(store: Store, kit: Shelved, lost: string): void {
  store.dispatch(shelved({ ...kit, id: nanoid() }));
  store.dispatch(noticed(`“${kit.name}” lies on the shelf now.${lost}`));
}

function samplesOfShelved({ kit, sound }: Shelved): string[] {
  const own = sound && sampleOf(sound.source);
  return kit ? samplesOfKit(kit) : own ? [own] : [];
}

/** Saves a kit or a sound as a file for another device. */
export async function exportKit(store: Store, kit: Shelved): Promise<void> {
  const file = `${safeFileName(kit.name)}.chaffinch-kit.zip`;
  try {
    const { audio, missing } = await recordingsOf(samplesOfShelved(kit));
    saveAs(await (await loadBundles()).makeKitFile(kit, audio), file);
    store.dispatch(noticed(`Saved ${file}.${missing}`));
  } catch (error) {
    store.dispatch(noticed(`The kit could not be saved: ${error instanceof Error ? error.message : String(error)}.`));
  }
}

async function bringMidi(store: Store, fileName: string, bytes: Uint8Array): Promise<void> {
  const song = (await loadMidi()).readMidi(bytes);
  if ('error' in song) return void store.dispatch(noticed(`“${fileName}” could not be opened. ${song.error}`));
  if (song.parts.length === 0) return void store.dispatch(noticed(`“${fileName}” holds no notes.`));
  const name = song.name || fileName.replace(/\.midi?$/i, '').slice(0, MAX_NAME) || 'MIDI file';
  return void store.dispatch(midiArrived({ name, song }));
}
