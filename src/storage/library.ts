import { nanoid } from '@reduxjs/toolkit';
import type { BeatSet, OpenSet } from '@/core/document/set';
import { nextName } from '@/core/edit/slots';
import {
  BIN_DAYS,
  factsOf,
  isUntouched,
  withVersion,
  type KeptVersion,
  type LibrarySet,
} from '@/core/library/librarySet';
import { readLibrarySet } from '@/core/library/librarySchema';
import type { ReadSet } from '@/core/document/readSet';
import { isPlain } from '@/core/plain';
import { setIdentified } from '@/store/aboutSlice';
import type { Store } from '@/store/store';
import type { SetPieces } from './pieces';
import { LIBRARY_PREFIX, VERSION_PREFIX, type Storage } from './records';
import type { Companion } from './saver';
import { findSet, readStored, textOf } from './storedSet';

const DAY_MS = 24 * 3600 * 1000;

/** A tab that does not save the set changes nothing in the library either: it would not know what the other does. */
export class OtherTabKeeps extends Error {
  constructor() {
    super('Another tab keeps the sets. Take over in this one first.');
  }
}

/**
 * All sets of this device. The open one lies in pieces of its own; each other one as a version of itself, and the library says which.
 * A set is put into the library in the same write that puts another in its place: no moment is without it.
 */
export class Library implements Companion {
  /** All sets, as they are stored or about to be; null until they are read. */
  private sets: Map<string, LibrarySet> | null = null;
  private reading: Promise<void> | null = null;
  /** In which the open set is cut, in the tab that saves it. */
  private pieces: SetPieces | null = null;
  /** The set that is open, as it was opened and as it is now. */
  private opened: OpenSet;
  private last: OpenSet;
  private isIdentifying = false;
  /** Sets as which the library would open them again. */
  private readonly latest = new WeakSet<BeatSet>();
  /** Texts that are to be stored with the next save. */
  private readonly pending = new Map<string, string>();
  private sent: ReadonlyMap<string, string> = new Map();
  private turn: Promise<unknown> = Promise.resolve();
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly store: Store,
    private readonly storage: Storage,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.opened = this.last = this.present;
    store.subscribe(() => this.follow());
  }

  // --- beside the open set ----------------------------------------------------------------------------------

  own(pieces: SetPieces): void {
    this.pieces = pieces;
    this.opened = this.last = this.present;
    this.lost();
  }

  lose(): void {
    this.pieces = null;
    this.pending.clear();
  }

  /** What waits for the next save waits on; all else is what the storage says. */
  lost(): void {
    this.sets = null;
    this.whenRead(() => undefined);
  }

  entries(): Record<string, string> {
    this.sent = new Map(this.pending);
    return Object.fromEntries(this.sent);
  }

  written(): string[] {
    this.forget(this.sent);
    return [];
  }

  /** What the player does with the open set: another takes its place, or it is changed for the first time. */
  private follow(): void {
    const { last, present: now } = this;
    if (now.set === last.set && now.stage === last.stage) return;
    this.last = now;
    if (this.isIdentifying && last.set === this.opened.set) this.opened = now;
    if (!this.pieces || this.isIdentifying || now.set === last.set) return;
    if (now.set.id !== last.set.id) {
      this.leave(last);
      this.opened = now;
      this.whenRead(() => this.takeFromBin(now.set.id));
    } else if (last.set === this.opened.set) this.changedFirst(now);
  }

  /** The set that was open is a set of the library from now on. */
  private leave(left: OpenSet): void {
    const id = left.set.id ?? nanoid();
    const version = this.newVersion(left);
    this.whenRead((sets) => {
      const known = sets.get(id);
      // What was only looked at lies there already; what nothing was made of can be had again.
      if (known ? this.latest.has(left.set) : isUntouched(left.set)) return;
      this.latest.add(left.set);
      const { binned: _, ...kept } = known ?? { versions: [] };
      this.put({ ...kept, ...factsOf(left), id, at: this.now().toISOString(), latest: version.key }, version.entries);
    });
  }

  /** From now on it is one of the sets of this device; as it was opened, it is kept by itself. */
  private changedFirst(now: OpenSet): void {
    if (now.set.id === undefined) this.identify();
    const { opened, last } = this;
    const version = isUntouched(opened.set) ? null : this.newVersion(opened);
    const at = this.now().toISOString();
    this.whenRead((sets) => {
      const known = sets.get(last.set.id!);
      const { versions = [], latest = null } = known ?? {};
      const more = version ? withVersion(versions, { key: version.key, at: known?.at ?? at, auto: true }) : versions;
      // Its size is counted when it is left: a player's first stroke has no time for it.
      const facts = factsOf(last, known?.letters ?? 0);
      this.put({ ...facts, id: last.set.id!, at, latest, versions: more }, version?.entries);
    });
  }

  /** The open set gets an id; it is still the same set. */
  private identify(): void {
    this.isIdentifying = true;
    this.store.dispatch(setIdentified(nanoid()));
    this.isIdentifying = false;
  }

  private takeFromBin(id: string | undefined): void {
    const { binned, ...known } = (id !== undefined && this.sets!.get(id)) || {};
    if (binned !== undefined) this.put(known as LibrarySet);
  }

  // --- the sets ---------------------------------------------------------------------------------------------

  /** All sets but the open one, those in the bin too; what was changed last comes first. */
  async list(): Promise<LibrarySet[]> {
    if (!this.pieces) this.sets = null; // another tab may have changed them
    const sets = await this.read();
    return [...sets.values()].sort((a, b) => b.at.localeCompare(a.at));
  }

  /** Asks to be told when the sets are others. Returns what ends it. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** A set as it was when it was open last: to be opened, or what is wrong with it. */
  async open({ latest }: LibrarySet): Promise<ReadSet> {
    const read = latest === null ? { error: 'It was never stored as a whole.' } : await this.openVersion(latest);
    if ('set' in read) this.latest.add(read.set);
    return read;
  }

  /** A set as it was in one of its versions. */
  async openVersion(key: string): Promise<ReadSet> {
    if (this.pieces) await this.flush();
    const found = await findSet(this.storage, key);
    return found ? readStored(found) : { error: 'It is not stored any more.' };
  }

  /** The text of a set, to be exported; null if nothing of it is stored. */
  async text({ latest }: LibrarySet): Promise<string | null> {
    const found = latest === null ? null : await findSet(this.storage, latest);
    return found && textOf(found);
  }

  /** Keeps the open set as it is, with a note on what is different in it. */
  keepVersion(note: string): Promise<void> {
    return this.inTurn(async (sets) => {
      if (this.present.set.id === undefined) this.identify();
      const open = this.present;
      const id = open.set.id!;
      const at = this.now().toISOString();
      const version = this.newVersion(open);
      const { latest = null, versions = [] } = sets.get(id) ?? {};
      const kept: KeptVersion = { key: version.key, at, ...(note.trim() !== '' && { note: note.trim() }) };
      await this.write({ ...factsOf(open), id, at, latest, versions: withVersion(versions, kept) }, version.entries);
    });
  }

  /** The same set again under an id and a name of its own; it remembers what it came from. */
  duplicate(set: LibrarySet): Promise<void> {
    return this.inTurn(async (sets) => {
      const isOpen = this.isOpen(set);
      if (isOpen && this.present.set.id === undefined) this.identify();
      const from = { id: isOpen ? this.present.set.id! : set.id, name: set.name };
      const name = nextName(set.name, [this.present.set, ...sets.values()]);
      await this.writeAnew({ ...set, id: from.id }, { id: nanoid(), name, from }, []);
    });
  }

  /** Gives a set that is not open another name or note. */
  change(set: LibrarySet, change: { name?: string; note?: string }): Promise<void> {
    return this.inTurn(() => this.writeAnew(set, change, set.versions));
  }

  /**
   * Puts a set into the bin. It stays there for thirty days.
   * @returns false if it was no set of the library
   */
  remove(id: string): Promise<boolean> {
    return this.inTurn(async (sets) => {
      const set = sets.get(id);
      if (set) await this.write({ ...set, binned: this.now().toISOString() });
      return set !== undefined;
    });
  }

  bringBack(id: string): Promise<void> {
    return this.inTurn(async (sets) => {
      const { binned: _, ...set } = sets.get(id) ?? {};
      if ('id' in set) await this.write(set as LibrarySet);
    });
  }

  /** Removes a set and its versions for good. What only it holds goes with the next clearing of the storage. */
  removeForGood({ id }: LibrarySet): Promise<void> {
    return this.inTurn(async (sets) => {
      await this.storage.removeItem(LIBRARY_PREFIX + id);
      sets.delete(id);
      this.tell();
    });
  }

  /** A set that is not open, with some of its fields changed, under a new version: versions themselves never change. */
  private async writeAnew(set: LibrarySet, change: Partial<LibrarySet>, versions: KeptVersion[]): Promise<void> {
    const at = this.now().toISOString();
    const { binned: _, ...now } = { ...set, ...change, at, versions };
    const about = { id: now.id, name: now.name, note: now.note || undefined, from: now.from };
    const key = VERSION_PREFIX + nanoid();
    if (this.isOpen(set)) {
      const { set: open, stage } = this.present;
      const entries = this.pieces!.versionEntries(key, { set: { ...open, ...about }, stage });
      return this.write({ ...now, latest: key }, entries);
    }
    const plain: unknown = JSON.parse((set.latest && (await this.storage.getItem(set.latest))) ?? 'null');
    if (!isPlain(plain)) throw new Error('The set is not stored any more.');
    return this.write({ ...now, latest: key }, { [key]: JSON.stringify({ ...plain, ...about }) });
  }

  // --- storing ----------------------------------------------------------------------------------------------

  private newVersion(open: OpenSet): { key: string; entries: Record<string, string> } {
    const key = VERSION_PREFIX + nanoid();
    return { key, entries: this.pieces!.versionEntries(key, open) };
  }

  /** Stores with the next save. */
  private put(set: LibrarySet, entries: Record<string, string> = {}): void {
    this.sets!.set(set.id, set);
    for (const [key, text] of Object.entries(entries)) this.pending.set(key, text);
    this.pending.set(LIBRARY_PREFIX + set.id, JSON.stringify(set));
    this.tell();
  }

  /** Stores now. */
  private async write(set: LibrarySet, entries: Record<string, string> = {}): Promise<void> {
    const sets = await this.read();
    const key = LIBRARY_PREFIX + set.id;
    await this.storage.setMany({ ...entries, [key]: JSON.stringify(set) });
    this.pending.delete(key);
    sets.set(set.id, set);
    this.tell();
  }

  /** Acts at once if the sets are read, so that what it puts goes with the save that is due; else it sees to it itself. */
  private whenRead(act: (sets: Map<string, LibrarySet>) => void): void {
    if (this.sets) return act(this.sets);
    const { pieces } = this;
    this.read()
      .then((sets) => {
        if (this.pieces !== pieces) return undefined;
        act(sets);
        return this.flush();
      })
      // It goes with the next save, and the saver of the set says what the storage refuses.
      .catch(() => undefined);
  }

  /** Stores what waits for the next save. */
  private async flush(): Promise<void> {
    const waiting = new Map(this.pending);
    if (waiting.size > 0) await this.storage.setMany(Object.fromEntries(waiting));
    this.forget(waiting);
  }

  private forget(stored: ReadonlyMap<string, string>): void {
    for (const [key, text] of stored) if (this.pending.get(key) === text) this.pending.delete(key);
  }

  /**
   * Acts when all that was asked for before is done.
   * @throws OtherTabKeeps
   */
  private inTurn<T>(act: (sets: Map<string, LibrarySet>) => Promise<T>): Promise<T> {
    const done = this.turn.then(async () => {
      if (!this.pieces) throw new OtherTabKeeps();
      const sets = await this.read();
      await this.flush();
      return act(sets);
    });
    this.turn = done.catch(() => undefined);
    return done;
  }

  private async read(): Promise<Map<string, LibrarySet>> {
    if (this.sets) return this.sets;
    this.reading ??= this.readAll().finally(() => (this.reading = null));
    await this.reading;
    return this.sets!;
  }

  /** Reads all sets; those that have lain in the bin for long enough go for good. */
  private async readAll(): Promise<void> {
    const { storage } = this;
    const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(LIBRARY_PREFIX));
    const texts = Object.values(await storage.getMany(keys));
    const found = texts.flatMap((text) => readLibrarySet(text) ?? []);
    const since = this.now().getTime() - BIN_DAYS * DAY_MS;
    const gone = found.filter(({ binned }) => binned !== undefined && new Date(binned).getTime() < since);
    this.sets = new Map(found.filter((set) => !gone.includes(set)).map((set) => [set.id, set]));
    if (this.pieces && gone.length > 0) await storage.removeMany(gone.map(({ id }) => LIBRARY_PREFIX + id));
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }

  /** Whether a listed set is the open one, which has no id until it is changed. */
  private isOpen({ id }: LibrarySet): boolean {
    return id === (this.present.set.id ?? '');
  }

  private get present(): OpenSet {
    const { set, stage } = this.store.getState();
    return { set: set.present, stage };
  }
}
