import { openDB, type IDBPDatabase } from 'idb';

const TABLE = 'entries';
/** A database that is not open by then is asked for again, ms: the slowest disks take a second or two. */
const OPENS_BY_MS = 10_000;

/** Called when the browser has closed a database by itself: what was stored there may be gone. */
const lossListeners = new Set<() => void>();

/** Asks to be told when the connection to stored data was lost, as when site data are cleared. */
export function onStorageLost(listener: () => void): void {
  lossListeners.add(listener);
}

/**
 * Stands in for AsyncStorage's own module of this name on the web (`metro.config.js`), with the same database and the same methods.
 * The original keeps a connection that the browser has closed and fails from then on until the page is loaded anew; and it leaves
 * it to the browser when a write is committed, which a page that goes away does not live to see.
 */
export default class IndexedDBStorage {
  private connection: Promise<IDBPDatabase> | null = null;

  constructor(private readonly name: string) {}

  getValues = (keys: readonly string[]): Promise<{ key: string; value: string | null }[]> =>
    this.within('readonly', (store) =>
      Promise.all(keys.map(async (key) => ({ key, value: ((await store.get(key)) as string | undefined) ?? null }))),
    );

  setValues = async (entries: readonly { key: string; value: string }[]): Promise<void> => {
    await this.within('readwrite', (store) => Promise.all(entries.map(({ key, value }) => store.put!(value, key))));
  };

  removeValues = async (keys: readonly string[]): Promise<void> => {
    await this.within('readwrite', (store) => Promise.all(keys.map((key) => store.delete!(key))));
  };

  clearStorage = async (): Promise<void> => {
    await this.within('readwrite', (store) => store.clear!());
  };

  getKeys = (): Promise<string[]> => this.within('readonly', async (store) => (await store.getAllKeys()) as string[]);

  /**
   * Runs one transaction to its end. All its requests are made at once, and it is committed at once.
   * @throws Error with the browser's reason, its name first: "QuotaExceededError: ..."
   */
  private async within<T>(mode: IDBTransactionMode, run: (store: Store) => Promise<T>): Promise<T> {
    try {
      const transaction = await this.begin(mode);
      const asked = run(transaction.store as unknown as Store);
      if (mode === 'readwrite') transaction.commit();
      const [result] = await Promise.all([asked, transaction.done]);
      return result;
    } catch (error) {
      // Closed in the middle of it, a browser may tell of nothing but this.
      if (error instanceof Error && error.name === 'AbortError') this.lost(this.connection);
      throw error instanceof Error ? new Error(`${error.name}: ${error.message}`) : new Error(String(error));
    }
  }

  /** A connection that was lost unnoticed is opened once more. */
  private async begin(mode: IDBTransactionMode) {
    try {
      return (await this.open()).transaction(TABLE, mode);
    } catch {
      this.lost(this.connection);
      return (await this.open()).transaction(TABLE, mode);
    }
  }

  private open(): Promise<IDBPDatabase> {
    if (this.connection) return this.connection;
    const opening: Promise<IDBPDatabase> = inTime(
      openDB(this.name, 1, {
        upgrade: (database) => void database.createObjectStore(TABLE),
        // Another tab, or the browser, wants the database gone or changed: nothing here stands in its way.
        blocking: (_, __, event) => {
          (event.target as IDBDatabase).close();
          this.lost(opening);
        },
        terminated: () => this.lost(opening),
      }),
    );
    this.connection = opening;
    opening.catch(() => this.forget(opening));
    return opening;
  }

  private lost(connection: Promise<IDBPDatabase> | null): void {
    this.forget(connection);
    lossListeners.forEach((tell) => tell());
  }

  private forget(connection = this.connection): void {
    if (this.connection === connection) this.connection = null;
  }
}

/**
 * A database that is asked for while site data are cleared may never be opened, and all that waits for it would wait for ever: it
 * is asked for again.
 */
function inTime(opening: Promise<IDBPDatabase>): Promise<IDBPDatabase> {
  return new Promise((opened, failed) => {
    const timer = setTimeout(() => {
      failed(new DOMException('The database was not opened.', 'TimeoutError'));
      // It is not needed any more.
      opening.then((late) => late.close()).catch(() => undefined);
    }, OPENS_BY_MS);
    opening.then(opened, failed).finally(() => clearTimeout(timer));
  });
}

/** What is used of idb's object store, whichever mode it is in. */
type Store = {
  get: (key: string) => Promise<unknown>;
  getAllKeys: () => Promise<unknown[]>;
  put?: (value: string, key: string) => Promise<unknown>;
  delete?: (key: string) => Promise<void>;
  clear?: () => Promise<void>;
};
