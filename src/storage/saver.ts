import type { AsyncStorage } from '@react-native-async-storage/async-storage';
import type { OpenSet } from '@/core/document/set';
import { writeSet } from '@/core/document/readSet';
import { saveTroubled } from '@/store/sessionSlice';
import type { Settings } from '@/store/settingsSlice';
import type { RootState, Store } from '@/store/store';
import { SET_KEY, SETTINGS_KEY, storageTrouble } from './records';

/** At most this much of the playing is lost if the page dies. */
const SAVE_AFTER_MS = 400;
/** Pauses after attempts that failed, ms; the last one again and again. */
const RETRY_MS = [1000, 2000, 5000, 10_000, 30_000];

/** What of the state is saved, and under which keys. A part that is null counts as never saved. */
export interface Saved {
  set: OpenSet['set'] | null;
  stage: OpenSet['stage'] | null;
  settings: Settings | null;
}
type Records = (now: Saved, saved: Saved) => Record<string, string>;

/** What the tab that owns the set saves: the set with its stage, and the settings. */
export const ownRecords: Records = (now, saved) => ({
  ...((now.set !== saved.set || now.stage !== saved.stage) && { [SET_KEY]: writeSet(now as OpenSet) }),
  ...(now.settings !== saved.settings && { [SETTINGS_KEY]: JSON.stringify(now.settings) }),
});

/** What another tab saves: its set, once it was edited, under a key of its own. */
export function asideRecords(key: string): Records {
  return (now, saved): Record<string, string> => (now.set === saved.set ? {} : { [key]: writeSet(now as OpenSet) });
}

interface Options {
  records?: Records;
  /** Called after each write that has succeeded. */
  onSaved?: () => void;
}

/**
 * Saves the set and the settings soon after each change. What could not be saved is tried again, with growing pauses, until it is;
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
  private readonly records: Records;
  private readonly onSaved: () => void;
  private readonly unsubscribe: () => void;

  /** @param saved the set as it is stored; null for what is not stored */
  constructor(
    private readonly store: Store,
    private readonly storage: Pick<AsyncStorage, 'setMany'>,
    saved: Pick<Saved, 'set' | 'stage'>,
    { records = ownRecords, onSaved = () => undefined }: Options = {},
  ) {
    this.records = records;
    this.onSaved = onSaved;
    this.saved = { ...saved, settings: store.getState().settings };
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
   * @returns when the browser has answered, whether all is saved
   */
  async saveNow(): Promise<boolean> {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const now = savedOf(this.store.getState());
    const { saved } = this;
    const entries = this.records(now, saved);
    this.saved = now;
    if (Object.keys(entries).length === 0) return true;
    const write = ++this.writes;
    try {
      await this.storage.setMany(entries);
      this.answers = Math.max(this.answers, write);
      if (write === this.writes) this.succeeded();
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
    this.saved = { set: null, stage: null, settings: null };
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
    const { set, stage, settings } = this.store.getState();
    const { saved } = this;
    if (set.present === saved.set && stage === saved.stage && settings === saved.settings) return;
    // While it fails, its own pauses decide when it is tried again.
    if (this.failures === 0) this.saveIn(SAVE_AFTER_MS);
  }

  private saveIn(ms: number): void {
    this.timer ??= setTimeout(() => void this.saveNow(), ms);
  }
}

function savedOf({ set, stage, settings }: RootState): Saved {
  return { set: set.present, stage, settings };
}
