import { writeSet } from '@/core/document/readSet';
import type { Store } from '@/store/store';
import type { OpenSet } from '@/core/document/set';
import { emptySet } from '@/core/document/create';
import { restore } from './persistence';
import { listAside } from './aside';
import { SetPieces } from './pieces';
import { DAMAGED_PREFIX, OTHER_PREFIX, SET_KEY, SETTINGS_KEY } from './records';
import { Saver } from './saver';
import { selectSet } from '@/store/selectors';
import { themeSet } from '@/store/settingsSlice';
import { createStore } from '@/store/store';
import { Memory, settled } from './memory.testing';
import { demoSet } from '@/core/document/demo';
import { unmixed } from '@/core/document/unmixed.testing';
import { tempoSet } from '@/store/timeSlice';

/** Lets so many ms pass, and what they set off be done. */
async function passed(ms: number): Promise<void> {
  jest.advanceTimersByTime(ms);
  await settled();
  await settled();
}
const notices = (store: ReturnType<typeof createStore>) => {
  const { notice } = store.getState().session;
  return notice ? [notice.text] : [];
};

/** 200 ways in which a stored set can be wrong, from a seed. */
function malformed(): string[] {
  // Every field of it is needed.
  const good = writeSet(unmixed(demoSet()));
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
    expect(await restore(store, new Memory())).not.toBeNull();
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
      expect({ i, safe: safe !== null, kept: aside === text, name: selectSet(store.getState()).name }).toEqual({
        i,
        safe: true,
        kept: true,
        name: 'Rink Night',
      });
      expect(notices(store)).toEqual([expect.stringContaining('could not be opened')]);
    }
  }, 60_000);

  test('a damaged set makes one copy, however often the app is opened', async () => {
    const memory = new Memory();
    memory.map.set(SET_KEY, '{');
    for (let day = 1; day <= 3; day++) await restore(createStore(), memory, () => new Date(day * 1000));
    expect(await listAside(memory)).toEqual([
      { key: `${DAMAGED_PREFIX}1970-01-01T00:00:01.000Z`, at: '1970-01-01T00:00:01.000Z', text: '{' },
    ]);
  });

  test('a set that comes when another was begun is put aside, and what was begun stays', async () => {
    const memory = new Memory();
    const text = JSON.stringify({ ...stored(emptySet()), name: 'Late' });
    let answer!: (value: string) => void;
    memory.getItem = (key) => (key === SET_KEY ? new Promise((done) => (answer = done)) : Promise.resolve(null));
    const store = createStore();
    const opening = restore(store, memory);
    await settled();
    store.dispatch(tempoSet(99));
    answer(text);
    expect(await opening).not.toBeNull();
    expect(selectSet(store.getState()).tempo).toBe(99);
    const [aside, open] = [...memory.map];
    expect(aside).toEqual([expect.stringContaining(OTHER_PREFIX), text]);
    expect(open![0]).toBe(SET_KEY);
    expect(JSON.parse(open![1])).toMatchObject({ tempo: 99 }); // without another change, too
  });

  test('a damaged set that cannot be set aside is not saved over', async () => {
    const memory = new Memory();
    memory.map.set(SET_KEY, '{');
    memory.full = true;
    const store = createStore();
    expect(await restore(store, memory)).toBeNull();
    expect(notices(store)).toEqual([expect.stringContaining('nothing is saved over it')]);
  });
});

describe('saving', () => {
  beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate'] }));
  afterEach(() => jest.useRealTimers());

  test('soon after a change, once for many, and at once when the page goes', async () => {
    const memory = new Memory();
    const store = createStore();
    const saver = new Saver(store, memory, new SetPieces(SET_KEY), openSet(store));
    store.dispatch(tempoSet(90));
    store.dispatch(tempoSet(91));
    expect(memory.map.size).toBe(0);
    jest.advanceTimersByTime(1000);
    await settled();
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 91 });
    store.dispatch(tempoSet(92));
    store.dispatch(themeSet('light'));
    saver.saveNow();
    await settled();
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 92 });
    expect(JSON.parse(memory.map.get(SETTINGS_KEY)!)).toMatchObject({ theme: 'light' });
  });

  test('what could not be saved is said, and tried again with growing pauses until it is saved, without another change', async () => {
    const memory = new Memory();
    memory.full = true;
    const store = createStore();
    const saver = new Saver(store, memory, new SetPieces(SET_KEY), openSet(store));
    const attempts = jest.spyOn(memory, 'setMany');
    store.dispatch(tempoSet(90));
    await passed(400);
    expect(store.getState().session.saveTrouble).toContain('no room');
    expect(saver.isTroubled).toBe(true);
    store.dispatch(tempoSet(91)); // more changes do not hurry it
    const times: number[] = [];
    for (let second = 1; second <= 60; second++) {
      const before = attempts.mock.calls.length;
      await passed(1000);
      if (attempts.mock.calls.length > before) times.push(second);
    }
    expect(times).toEqual([1, 3, 8, 18, 48]);
    memory.full = false;
    await passed(30_000);
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 91 });
    expect(store.getState().session.saveTrouble).toBeNull();
    expect(saver.isTroubled).toBe(false);
    store.dispatch(tempoSet(92));
    await passed(400); // and it is as quick as before
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 92 });
  });

  test('the reason is the one that the browser gave', async () => {
    const reasons: [message: string, words: RegExp][] = [
      // Messages of Chromium's DOMExceptions.
      ['The quota has been exceeded.', /no room/],
      ['Encountered full disk while opening backing store for indexedDB.open.', /no room/],
      ['The database connection is closing.', /closed its storage/],
      ['An internal error was encountered in the Indexed Database server.', /could not be saved \(An internal error/],
    ];
    for (const [message, words] of reasons) {
      const memory = new Memory();
      memory.full = true;
      memory.refusal = new Error(message);
      const store = createStore();
      const saver = new Saver(store, memory, new SetPieces(SET_KEY), openSet(store));
      store.dispatch(tempoSet(90));
      saver.saveNow();
      await settled();
      expect(store.getState().session.saveTrouble).toMatch(words);
    }
  });

  /** Names of DOMExceptions that a database may refuse a write with (W3C Indexed Database API 3.0; Web IDL, table of names). */
  const KINDS = [
    ...[
      'QuotaExceededError',
      'UnknownError',
      'InvalidStateError',
      'AbortError',
      'TransactionInactiveError',
      'DataError',
    ],
    ...['ReadOnlyError', 'TimeoutError', 'NotFoundError', 'VersionError', 'ConstraintError', 'DataCloneError'],
    ...['InvalidAccessError', 'NotAllowedError', 'SecurityError', 'OperationError', 'NotReadableError'],
    ...['NoModificationAllowedError', 'NetworkError', 'EncodingError'],
  ];

  test('thirty writes fail in twenty ways, with edits between: each reason is said, and in the end all is saved', async () => {
    expect(new Set(KINDS).size).toBe(20);
    const memory = new Memory();
    const store = createStore();
    const saver = new Saver(store, memory, new SetPieces(SET_KEY), openSet(store));
    memory.full = true;
    for (let i = 0; i < 30; i++) {
      const name = KINDS[i % KINDS.length]!;
      memory.refusal = new Error(`${name}: refused`);
      if (i % 3 === 0) store.dispatch(tempoSet(60 + i));
      if (i % 7 === 0) store.dispatch(themeSet(i % 2 === 0 ? 'light' : 'dark'));
      // Whoever leaves the page asks for it at once; else it is tried by itself.
      if (i % 5 === 0) await saver.saveNow();
      else await passed(30_000);
      expect(store.getState().session.saveTrouble).toContain(name);
      expect(saver.isTroubled).toBe(true);
    }
    memory.full = false;
    await passed(30_000);
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 87 });
    expect(JSON.parse(memory.map.get(SETTINGS_KEY)!)).toMatchObject({ theme: 'light' });
    expect(store.getState().session.saveTrouble).toBeNull();
  });

  test('what was stored and is gone is written again, without another edit', async () => {
    const memory = new Memory();
    const store = createStore();
    const saver = new Saver(store, memory, new SetPieces(SET_KEY), openSet(store));
    store.dispatch(tempoSet(90));
    await passed(400);
    memory.map.clear();
    saver.saveAgain();
    await passed(400);
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 90 });
    expect(memory.map.has(SETTINGS_KEY)).toBe(true);
  });

  test('of two writes the first fails and the second brings something else: both are there in the end', async () => {
    const memory = new Memory();
    const store = createStore();
    const saver = new Saver(store, memory, new SetPieces(SET_KEY), openSet(store));
    store.dispatch(themeSet('light'));
    memory.full = true;
    saver.saveNow();
    memory.full = false;
    store.dispatch(tempoSet(77));
    saver.saveNow();
    await passed(0); // both are answered
    await passed(1000);
    expect(JSON.parse(memory.map.get(SET_KEY)!)).toMatchObject({ tempo: 77 });
    expect(JSON.parse(memory.map.get(SETTINGS_KEY)!)).toMatchObject({ theme: 'light' });
    expect(store.getState().session.saveTrouble).toBeNull();
  });
});
