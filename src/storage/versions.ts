import { nanoid } from '@reduxjs/toolkit';
import type { BeatSet } from '@/core/document/set';
import type { SetPieces } from './pieces';
import { LIBRARY_PREFIX, VERSION_PREFIX, type Storage } from './records';
import { allNamed, sweepPieces } from './storedSet';

/** In a record of the library, be it readable or not. */
const VERSION_KEY = new RegExp(`${VERSION_PREFIX}[\\w-]{21}`, 'g');

/** The set as it was at some moments. A version shares its pieces with the set and with other versions. */
export class Versions {
  private latest: { set: BeatSet; key: string } | null = null;
  private readonly ready: Promise<void>;

  /** @param pieces of the open set */
  constructor(
    private readonly storage: Storage,
    private readonly pieces: SetPieces,
  ) {
    this.ready = this.prepare();
  }

  /**
   * Keeps a set as it is.
   * @returns the key under which it is stored, of an earlier version if nothing has changed
   */
  async keep(set: BeatSet): Promise<string> {
    await this.ready;
    if (this.latest?.set === set) return this.latest.key;
    const key = VERSION_PREFIX + nanoid();
    await this.storage.setMany(this.pieces.versionEntries(key, { set }));
    this.latest = { set, key };
    return key;
  }

  /** What was stored is gone: the next one is stored anew. */
  lost(): void {
    this.latest = null;
  }

  /**
   * Removes all versions but these and those of the library. Their pieces go when the app is opened again.
   * @param used what else refers to versions
   */
  async keepOnly(used: ReadonlySet<string>): Promise<void> {
    const keys = (await this.storage.getAllKeys()).filter((key) => key.startsWith(VERSION_PREFIX) && !used.has(key));
    // Read after the keys were: what is kept meanwhile is not among them.
    const ofSets = keys.length > 0 ? await this.ofLibrary() : new Set<string>();
    const gone = keys.filter((key) => !ofSets.has(key));
    if (gone.length === 0) return;
    if (this.latest && !used.has(this.latest.key)) this.latest = null;
    await this.storage.removeMany(gone);
  }

  private async ofLibrary(): Promise<Set<string>> {
    const keys = (await this.storage.getAllKeys()).filter((key) => key.startsWith(LIBRARY_PREFIX));
    const texts = Object.values(await this.storage.getMany(keys));
    return new Set(texts.flatMap((text) => text?.match(VERSION_KEY) ?? []));
  }

  /** Finds what the versions hold, and removes what nobody does. Without that nothing is removed: another time, then. */
  private async prepare(): Promise<void> {
    try {
      const keys = (await this.storage.getAllKeys()).filter((key) => key.startsWith(VERSION_PREFIX));
      const records = Object.values(await this.storage.getMany(keys));
      this.pieces.hold(await allNamed(this.storage, records));
      await sweepPieces(this.storage);
    } catch {
      // The set is saved all the same.
    }
  }
}
