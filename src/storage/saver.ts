import type { AsyncStorage } from '@react-native-async-storage/async-storage';
import type { OpenSet } from '@/core/document/set';
import { saveTroubled } from '@/store/sessionSlice';
import type { Devices } from '@/store/devicesSlice';
import type { Shelf } from '@/store/shelfSlice';
import type { Settings } from '@/store/settingsSlice';
import type { RootState, Store } from '@/store/store';
import type { SetPieces } from './pieces';
import { DEVICES_KEY, SETTINGS_KEY, SHELF_KEY, storageTrouble } from './records';

/** At most this much of the playing is lost if the page dies. */
const SAVE_AFTER_MS = 400;
/** Pauses after attempts that failed, ms; the last one again and again. */
const RETRY_MS = [1000, 2000, 5000, 10_000, 30_000];

/** What of the state is saved, and under which keys. A part that is null counts as never saved. */
export interface Saved {
  set: OpenSet['set'] | null;
  stage: OpenSet['stage'] | null;
  settings: Settings | null;
  devices: Devices | null;
  shelf: Shelf | null;
}

/** What is stored together with the open set, in one write. */
export interface Companion {
  /** This tab saves the set from now on, in these pieces. */
  own(pieces: SetPieces): void;
  /** Another tab does. */
  lose(): void;
  /** What was stored is gone: all is stored anew. */
  lost(): void;
  /**
   * Texts to store, by key. They are asked for again with the next save if this one fails.
   * @param record the text of the set's record
   * @param isLast the page may go: what would rather wait must be among them
   */
  entries(record: string, isLast: boolean): Record<string, string>;
  /** The storage has all that the last entries were. Returns keys to be removed. */
  written(): string[];
}

/** What a saver saves: all, under the key of the open set; or, kept aside, the set alone once it was made. */
type Share = 'all' | 'set';

interface Options {
  share?: Share;
  companions?: readonly Companion[];
  /** Called after each write that has succeeded. */
  onSaved?: () => void;
}

/**
 * Saves the set, the settings and the controllers soon after each change. What could not be saved is tried again, with growing pauses, until it is;
 * meanwhile the session says why.
 */
export class Saver {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private failures = 0;
  /** Counts the writes, since the answer to an old one says nothing about a newer. */
  private writes = 0;
  /** The number of the last write of which the browser has said that it succeeded. */
  private answers = 0;
  private saved: Saved;
  /** Companions may have kept something back until the page goes. */
  private waits = false;
  private readonly share: Share;
  private readonly companions: readonly Companion[];
  private readonly onSaved: () => void;
  private readonly unsubscribe: () => void;

  /**
   * @param pieces in which the set is stored
   * @param saved the set as it is stored; null for what is not stored
   */
  constructor(
    private readonly store: Store,
    private readonly storage: Pick<AsyncStorage, 'setMany' | 'removeMany'>,
    private readonly pieces: SetPieces,
    saved: Pick<Saved, 'set' | 'stage'>,
    { share = 'all', companions = [], onSaved = () => undefined }: Options = {},
  ) {
    this.share = share;
    this.companions = companions;
    this.onSaved = onSaved;
    const { settings, devices, shelf } = store.getState();
    this.saved = { ...saved, settings, devices, shelf };
    this.follow();
    this.unsubscribe = store.subscribe(() => this.follow());
  }

  /** Whether the last save failed, and leaving the page would lose what was made since. */
  get isTroubled(): boolean {
    return this.failures > 0;
  }

  /** Whether the set that is open is written, and the browser has said so. */
  get isUpToDate(): boolean {
    return this.store.getState().set.present === this.saved.set && this.answers === this.writes;
  }

  /**
   * Writes at once, as when the page is about to go away: it waits for nothing, since a page that goes hears no answers. The
   * browser keeps the order of writes.
   * @param isLast the page may go: nothing waits for a later save
   * @returns when the browser has answered, whether all is saved
   */
  async saveNow(isLast = false): Promise<boolean> {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const now = savedOf(this.store.getState());
    const { saved } = this;
    const bringsSet = this.bringsSet(now, saved) || (isLast && this.waits);
    const entries = { ...(bringsSet && this.setEntries(now as OpenSet, isLast)), ...this.playerEntries(now, saved) };
    this.saved = now;
    if (Object.keys(entries).length === 0) return true;
    const write = ++this.writes;
    try {
      await this.storage.setMany(entries);
      this.answers = Math.max(this.answers, write);
      if (write === this.writes) {
        if (bringsSet) this.removeOld();
        this.succeeded();
      }
      return true;
    } catch (error) {
      // What this write was to bring is written again, whatever a newer one has brought.
      this.saved = saved;
      this.failed(error);
      return false;
    }
  }

  /** What was stored is gone: all is written again. */
  saveAgain(): void {
    this.saved = { set: null, stage: null, settings: null, devices: null, shelf: null };
    this.pieces.lost();
    for (const companion of this.companions) companion.lost();
    this.follow();
  }

  /** Counts the set that is open now as stored. */
  isStored(): void {
    this.saved = savedOf(this.store.getState());
  }

  /** Saves no more. */
  end(): void {
    this.unsubscribe();
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    if (this.failures > 0) this.store.dispatch(saveTroubled(null));
    this.failures = 0;
    this.writes++; // the answers that are still to come concern nobody
  }

  private setEntries(set: OpenSet, isLast: boolean): Record<string, string> {
    const entries = this.pieces.entries(set);
    const record = entries[this.pieces.key]!;
    this.waits = this.companions.length > 0 && !isLast;
    return Object.assign(entries, ...this.companions.map((companion) => companion.entries(record, isLast)));
  }

  private bringsSet(now: Saved, saved: Saved): boolean {
    return now.set !== saved.set || (this.share === 'all' && now.stage !== saved.stage);
  }

  /** What belongs to the player, and not to a set. */
  private playerEntries({ settings, devices, shelf }: Saved, saved: Saved): Record<string, string> {
    if (this.share === 'set') return {};
    return {
      ...(settings !== saved.settings && { [SETTINGS_KEY]: JSON.stringify(settings) }),
      ...(devices !== saved.devices && { [DEVICES_KEY]: JSON.stringify(devices) }),
      ...(shelf !== saved.shelf && { [SHELF_KEY]: JSON.stringify(shelf) }),
    };
  }

  /** The pieces that made way are removed. Those that cannot be now are swept up when the app is opened again. */
  private removeOld(): void {
    const gone = [this.pieces, ...this.companions].flatMap((stored) => stored.written());
    if (gone.length > 0) this.storage.removeMany(gone).catch(() => undefined);
  }

  private succeeded(): void {
    if (this.failures > 0) this.store.dispatch(saveTroubled(null));
    this.failures = 0;
    this.onSaved();
    this.follow();
  }

  private failed(error: unknown): void {
    const pause = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)]!;
    this.failures++;
    this.store.dispatch(saveTroubled(storageTrouble(error)));
    this.saveIn(pause);
  }

  private follow(): void {
    const now = savedOf(this.store.getState());
    if ((Object.keys(now) as (keyof Saved)[]).every((part) => now[part] === this.saved[part])) return;
    // While it fails, its own pauses decide when it is tried again.
    if (this.failures === 0) this.saveIn(SAVE_AFTER_MS);
  }

  private saveIn(ms: number): void {
    this.timer ??= setTimeout(() => void this.saveNow(), ms);
  }
}

function savedOf({ set, stage, settings, devices, shelf }: RootState): Saved {
  return { set: set.present, stage, settings, devices, shelf };
}
