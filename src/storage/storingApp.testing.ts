import type { Hit } from '@/core/document/hit';
import type { OpenSet } from '@/core/document/set';
import { setOpened } from '@/store/openSlice';
import { stepEntered } from '@/store/patternsSlice';
import { createStore } from '@/store/store';
import { Library } from './library';
import { Memory, settled } from './memory.testing';
import { restore } from './persistence';
import { StoredHistory } from './storedHistory';
import { Tabs } from './tabs';

/** The app as far as it stores, on a browser's storage; its clock stands until it is moved. */
export class StoringApp {
  readonly store = createStore();
  clock = new Date('2026-03-01T20:00:00Z').getTime();
  readonly library: Library;
  readonly tabs: Tabs;

  private constructor(readonly memory: Memory) {
    const history = new StoredHistory(this.store, memory);
    this.library = new Library(this.store, memory, () => new Date(this.clock));
    const browser = { storage: memory, locks: undefined, channel: { postMessage: () => undefined, onmessage: null } };
    this.tabs = new Tabs(this.store, browser, [this.library, history]);
    this.begun = this.tabs.begin(() => restore(this.store, memory, undefined, history));
  }

  private readonly begun: Promise<void>;

  static async on(memory: Memory): Promise<StoringApp> {
    const app = new StoringApp(memory);
    await app.begun;
    await app.library.list();
    return app;
  }

  /** The page goes: what it writes as it goes is written. */
  async close(): Promise<void> {
    this.tabs.saveNow();
    await settled();
  }

  /** The page is loaded anew. */
  async reload(): Promise<StoringApp> {
    await this.close();
    const app = await StoringApp.on(this.memory);
    app.clock = this.clock;
    return app;
  }

  get open(): OpenSet {
    const { set, stage } = this.store.getState();
    return { set: set.present, stage };
  }

  async openFrom(name: string): Promise<void> {
    const set = (await this.library.list()).find((one) => one.name === name)!;
    const read = await this.library.open(set);
    if ('error' in read) throw new Error(read.error);
    this.store.dispatch(setOpened(read));
  }

  async named(name: string) {
    return (await this.library.list()).find((one) => one.name === name)!;
  }
}

const hit = (id: number, tick: number): Hit => ({ id, pad: id % 16, tick, length: 60, velocity: 0.5, snap: null });

/** A hit that a hand enters into the first pattern. */
export const enter = (id: number) => stepEntered({ place: { track: 0, slot: 0 }, hit: hit(id, (id * 37) % 3840) });
