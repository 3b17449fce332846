import type { AsyncStorage } from '@react-native-async-storage/async-storage';
import type { OpenSet } from '@/core/document/set';
import { writeSet } from '@/core/document/readSet';
import { saveTroubled } from '@/store/sessionSlice';
import type { Settings } from '@/store/settingsSlice';
import type { Store } from '@/store/store';
import { SET_KEY, SETTINGS_KEY, storageTrouble } from './records';

/** At most this much of the playing is lost if the page dies. */
const SAVE_AFTER_MS = 400;
/** Pauses after attempts that failed, ms; the last one again and again. */
const RETRY_MS = [1000, 2000, 5000, 10_000, 30_000];

type Saved = OpenSet & { settings: Settings };

/**
 * Saves the set and the settings soon after each change. What could not be saved is tried again, with growing pauses, until it is;
 * meanwhile the session says why.
 */
export class Saver {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private failures = 0;
  /** Counts the writes, since the answer to an old one says nothing about a newer. */
  private writes = 0;
  private saved: Saved;

  /** @param saved the set as it is stored */
  constructor(
    private readonly store: Store,
    private readonly storage: Pick<AsyncStorage, 'setMany'>,
    saved: OpenSet,
  ) {
    this.saved = { ...saved, settings: store.getState().settings };
    this.follow();
    store.subscribe(() => this.follow());
  }

  /** Whether the last save failed, and leaving the page would lose what was made since. */
  get isTroubled(): boolean {
    return this.failures > 0;
  }

  /**
   * Writes at once, as when the page is about to go away: it waits for nothing, since a page that goes hears no answers. The
   * browser keeps the order of writes.
   */
  saveNow(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const now = this.now();
    const { saved } = this;
    const entries: Record<string, string> = {};
    if (now.set !== saved.set || now.stage !== saved.stage) entries[SET_KEY] = writeSet(now);
    if (now.settings !== saved.settings) entries[SETTINGS_KEY] = JSON.stringify(now.settings);
    if (Object.keys(entries).length === 0) return;
    this.saved = now;
    const write = ++this.writes;
    this.storage.setMany(entries).then(
      () => {
        if (write === this.writes) this.succeeded();
      },
      (error: unknown) => {
        // What this write was to bring is written again, whatever a newer one has brought.
        this.saved = saved;
        this.failed(error);
      },
    );
  }

  private succeeded(): void {
    if (this.failures > 0) this.store.dispatch(saveTroubled(null));
    this.failures = 0;
    this.follow();
  }

  private failed(error: unknown): void {
    const pause = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)]!;
    this.failures++;
    this.store.dispatch(saveTroubled(storageTrouble(error)));
    this.saveIn(pause);
  }

  private follow(): void {
    const { set, stage, settings } = this.now();
    const { saved } = this;
    if (set === saved.set && stage === saved.stage && settings === saved.settings) return;
    // While it fails, its own pauses decide when it is tried again.
    if (this.failures === 0) this.saveIn(SAVE_AFTER_MS);
  }

  private saveIn(ms: number): void {
    this.timer ??= setTimeout(() => this.saveNow(), ms);
  }

  private now(): Saved {
    const { set, stage, settings } = this.store.getState();
    return { set: set.present, stage, settings };
  }
}
