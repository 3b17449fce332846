import { writeSet } from '@/core/document/readSet';
import type { Store } from '@/store/store';
import type { OpenSet } from '@/core/document/set';
import { emptySet } from '@/core/document/create';
import { autosave, DAMAGED_PREFIX, OTHER_PREFIX, restore, SET_KEY, SETTINGS_KEY, whenAlone } from './persistence';
import { selectSet } from '@/store/selectors';
import { themeSet } from '@/store/settingsSlice';
import { createStore } from '@/store/store';
import { demoSet } from '@/core/document/demo';
import { tempoSet } from '@/store/timeSlice';
import { setOpened } from '@/store/openSlice';

class Memory {
  readonly map = new Map<string, string>();
  full = false;
  getItem = (key: string) => Promise.resolve(this.map.get(key) ?? null);
  setItem = (key: string, value: string) => this.setMany({ [key]: value });
  setMany = (entries: Record<string, string>) => {
    // What the storage library throws when the browser has no more room.
    if (this.full) return Promise.reject(Object.assign(new Error(''), { type: 'WebStorageError' }));
    for (const [key, value] of Object.entries(entries)) this.map.set(key, value);
    return Promise.resolve();
  };
}

const settled = () => new Promise<void>((done) => setImmediate(done));
const notices = (store: ReturnType<typeof createStore>) => {
  const { notice } = store.getState().session;
  return notice ? [notice.text] : [];
};

/** 200 ways in which a stored set can be wrong, from a seed. */
function malformed(): string[] {
  const good = writeSet(demoSet());
  let seed = 42;
  const random = (below: number) => ((seed = (Math.imul(seed, 1103515245) + 12345) >>> 0) >>> 8) % below;
  const wrong: unknown[] = [null, true, 'x', -1, 1e308, {}, [], [[]], '\u0000', { length: 1e9 }];
  const out: string[] = [];
  for (let i = 0; i < 60; i++) out.push(good.slice(0, random(good.length)));
  for (let i = 0; i < 100; i++) {
    const set = JSON.parse(good) as Record<string, unknown>;
    const track = (set.tracks as Record<string, Record<string, unknown>>)[0]!;
    const pattern = (track.patterns as Record<string, unknown>[])[0]!;
    const hit = (pattern.hits as Record<string, unknown>[])[random(50)]!;
    const owner = [set, track, pattern, hit][i % 4]!;
    const keys = Object.keys(owner);
    const key = keys[random(keys.length)]!;
    // A value of a kind that no field of a set can have.
    owner[key] = key === 'snap' || key === 'name' ? 7 : wrong[random(3)] === null ? undefined : 'x'.repeat(200);
    if (owner[key] === undefined) delete owner[key];
    out.push(JSON.stringify(set));
  }
  for (let i = 0; i < 20; i++) out.push(JSON.stringify({ ...stored(demoSet()), schema: 3 + random(1000) }));
  for (let i = 0; i < 10; i++) {
    const set = stored(demoSet());
    const hits = set.tracks[0]!.patterns[0]!.hits;
    set.tracks[0]!.patterns[0]!.hits = Array.from({ length: 20001 + random(5000) }, () => hits[0]!);
    out.push(JSON.stringify(set));
  }
  for (let i = 0; i < 10; i++) out.push('['.repeat(1000 + random(90000)));
  return out;
}

const stored = ({ set, stage }: OpenSet) => ({ ...set, stage });
const openSet = (store: Store): OpenSet => ({ set: store.getState().set.present, stage: store.getState().stage });

describe('opening', () => {
  test('the first time, the demo is there and nothing is said', async () => {
    const store = createStore();
    expect(await restore(store, new Memory())).toBe(true);
    expect(selectSet(store.getState()).name).toBe('Rink Night');
    expect(notices(store)).toEqual([]);
  });

  test('brings back set and settings', async () => {
    const memory = new Memory();
    memory.map.set(SET_KEY, JSON.stringify({ ...stored(emptySet()), tempo: 93.5 }));
    memory.map.set(SETTINGS_KEY, JSON.stringify({ theme: 'light' }));
    const store = createStore();
    await restore(store, memory);
    expect(selectSet(store.getState()).tempo).toBe(93.5);
    expect(store.getState().settings.theme).toBe('light');
    expect(store.getState().set.past).toEqual([]);
  });

  test('of 200 malformed sets none crashes it, none is lost, each gets a message', async () => {
    const cases = malformed();
    expect(cases).toHaveLength(200);
    for (const [i, text] of cases.entries()) {
      const memory = new Memory();
      memory.map.set(SET_KEY, text);
      const store = createStore();
      const safe = await restore(store, memory, () => new Date(i * 1000));
      const aside = memory.map.get(`${DAMAGED_PREFIX}${new Date(i * 1000).toISOString()}`);
      expect({ i, safe, kept: aside === text, name: selectSet(store.getState()).name }).toEqual({
        i,
        safe: true,
        kept: true,
        name: 'Rink Night',
      });
      expect(notices(store)).toEqual([expect.stringContaining('could not be opened')]);
    }
  }, 60_000);

  test('a damaged set that cannot be set aside is not saved over', async () => {
    const memory = new Memory();
    memory.map.set(SET_KEY, '{');
    memory.full = true;
    const store = createStore();
    expect(await restore(store, memory)).toBe(false);
    expect(notices(store)).toEqual([expect.stringContaining('nothing is saved over it')]);
  });
});

describe('saving', () => {
  beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate'] }));
  afterEach(() => jest.useRealTimers());

  test('soon after a change, once for many, and at once when the page goes', async () => {
    const memory = new Memory();
    const store = createStore();
    const saveNow = autosave(store, memory, openSet(store));
    store.dispatch(tempoSet(90));
    store.dispatch(tempoSet(91));
    expect(memory.map.size).toBe(0);
    jest.advanceTimersByTime(1000);
    await settled();
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 91 });
    store.dispatch(tempoSet(92));
    store.dispatch(themeSet('light'));
    saveNow();
    await settled();
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 92 });
    expect(JSON.parse(memory.map.get(SETTINGS_KEY)!)).toMatchObject({ theme: 'light' });
  });

  test('says once when there is no room, and saves again when there is', async () => {
    const memory = new Memory();
    memory.full = true;
    const store = createStore();
    const saveNow = autosave(store, memory, openSet(store));
    for (const tempo of [90, 91, 92]) {
      store.dispatch(tempoSet(tempo));
      saveNow();
      await settled();
      await settled();
    }
    expect(notices(store)).toEqual([expect.stringContaining('no room')]);
    memory.full = false;
    store.dispatch(tempoSet(93));
    saveNow();
    await settled();
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 93 });
  });
});

describe('two tabs', () => {
  /** The browser's lock manager, as the Web Locks API describes it, for one name. */
  class Locks {
    private queue: (() => void)[] = [];
    private taken = false;
    release = () => {
      this.taken = false;
      this.queue.shift()?.();
    };
    request = ((_name: string, ...rest: unknown[]) => {
      const callback = rest[rest.length - 1] as (lock: object | null) => unknown;
      const ifAvailable = (rest[0] as { ifAvailable?: boolean }).ifAvailable === true;
      if (this.taken && ifAvailable) return Promise.resolve(callback(null));
      const grant = () => {
        this.taken = true;
        void callback({});
      };
      if (this.taken) this.queue.push(grant);
      else grant();
      return new Promise(() => undefined);
    }) as LockManager['request'];
  }

  async function secondTab(change: boolean) {
    const locks = new Locks();
    const memory = new Memory();
    const [first, second] = [createStore(), createStore()];
    const starts: string[] = [];
    await whenAlone(first, memory, locks, () => starts.push('first'));
    await whenAlone(second, memory, locks, () => starts.push('second'));
    expect(starts).toEqual(['first']);
    expect(notices(second)).toEqual([expect.stringContaining('another tab')]);
    memory.map.set(SET_KEY, JSON.stringify({ ...stored(emptySet()), name: 'Theirs' }));
    if (change) second.dispatch(setOpened({ ...emptySet(), set: { ...emptySet().set, name: 'Mine' } }));
    locks.release();
    for (let i = 0; i < 4; i++) await settled();
    expect(starts).toEqual(['first', 'second']);
    return { memory, second };
  }

  test('a second tab that changed nothing goes on with what the first one left', async () => {
    const { second } = await secondTab(false);
    expect(selectSet(second.getState()).name).toBe('Theirs');
  });

  test('a second tab that changed something keeps both', async () => {
    const { memory, second } = await secondTab(true);
    expect(selectSet(second.getState()).name).toBe('Mine');
    const aside = [...memory.map.keys()].find((key) => key.startsWith(OTHER_PREFIX))!;
    expect(JSON.parse(memory.map.get(aside)!)).toMatchObject({ name: 'Theirs' });
  });
});
