import fc from 'fast-check';
import { emptySet } from '@/core/document/create';
import { demoSet } from '@/core/document/demo';
import { readPlainSet } from '@/core/document/readSet';
import type { OpenSet } from '@/core/document/set';
import { factsOf, isUntouched, MOST_AUTO } from '@/core/library/librarySet';
import { setNoted, setRenamed } from '@/store/aboutSlice';
import { setOpened, trackRestored, versionRestored } from '@/store/openSlice';
import { createStore } from '@/store/store';
import { tempoSet } from '@/store/timeSlice';
import { trackRemoved } from '@/store/tracksSlice';
import { undone } from '@/store/undoable';
import { Library } from './library';
import { Memory, settled } from './memory.testing';
import { SET_KEY, VERSION_PREFIX } from './records';
import { findSet, readStored } from './storedSet';
import { enter, StoringApp as App } from './storingApp.testing';

const DAY = 24 * 3600 * 1000;

const rename = (name: string) => setRenamed(name);

let memory: Memory;
beforeEach(() => (memory = new Memory()));

describe('the sets of a device', () => {
  test('what came with the app and was not changed is no set of theirs; what was made of it is', async () => {
    const app = await App.on(memory);
    app.store.dispatch(setOpened(emptySet()));
    app.store.dispatch(setOpened(demoSet()));
    expect(await app.library.list()).toEqual([]);
    app.store.dispatch(rename('Curb Cut'));
    expect((await app.library.list()).map(({ name, versions }) => [name, versions])).toEqual([['Curb Cut', []]]);
  });

  test('a set that another takes the place of is there, as it was, before the other is stored', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    app.store.dispatch(tempoSet(77));
    await app.close();
    const first = app.open;
    app.store.dispatch(setOpened(emptySet()));
    // A page that dies here has the first one open still.
    const died = readStored((await findSet(memory, SET_KEY))!) as OpenSet;
    expect(died.set.tempo).toBe(77);
    const again = await app.reload();
    expect(again.open.set.name).toBe('New set');
    await again.openFrom('First');
    expect(again.open).toEqual(first);
  });

  test('is stored in the very write that stores the other one in its place', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    await app.close();
    const writes: string[][] = [];
    const { setMany } = memory;
    memory.setMany = (entries) => {
      writes.push(Object.keys(entries));
      return setMany(entries);
    };
    app.store.dispatch(setOpened(emptySet()));
    await app.close();
    const write = writes.find((keys) => keys.includes(SET_KEY))!;
    expect(write.some((key) => key.startsWith(VERSION_PREFIX))).toBe(true);
    expect(write.some((key) => key.startsWith('library '))).toBe(true);
  });

  test('a storage that is full for a while loses none of them', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    await app.close();
    memory.full = true;
    app.store.dispatch(setOpened(emptySet()));
    app.store.dispatch(rename('Second'));
    await app.close();
    memory.full = false;
    const again = await app.reload();
    expect(again.open.set.name).toBe('Second');
    await again.openFrom('First');
    expect(again.open.set.name).toBe('First');
  });

  test('what was changed before a reload is there, though nothing was changed after it', async () => {
    let app = await App.on(memory);
    app.store.dispatch(rename('First'));
    app.store.dispatch(setOpened(emptySet()));
    await app.openFrom('First');
    app.store.dispatch(tempoSet(77));
    app = await app.reload();
    app.store.dispatch(setOpened(emptySet()));
    await app.openFrom('First');
    expect(app.open.set.tempo).toBe(77);
  });

  test('whatever is opened, changed, undone, reloaded and killed: each set is there as it was last', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.nat(9999), { minLength: 5, maxLength: 30 }), async (acts) => {
        memory = new Memory();
        let app = await App.on(memory);
        /** What each set that was changed was last, by its id. */
        const model = new Map<string, OpenSet['set']>();
        const note = () => app.open.set.id !== undefined && model.set(app.open.set.id, app.open.set);
        for (const n of acts) {
          const kinds = [
            () => app.store.dispatch(tempoSet(60 + (n % 200))),
            () => app.store.dispatch(rename(`Name ${n % 5}`)),
            () => app.store.dispatch(setOpened(n % 2 === 0 ? emptySet() : demoSet())),
            async () => {
              const sets = await app.library.list();
              const set = sets[n % Math.max(1, sets.length)];
              const read = set?.latest && set.id !== app.open.set.id ? await app.library.open(set) : null;
              if (read && 'set' in read) app.store.dispatch(setOpened(read));
            },
            () => app.store.dispatch(undone()),
            async () => (app = await app.reload()),
            // Killed: what was saved before is what there is.
            async () => {
              await app.close();
              app = await App.on(memory);
            },
            async () => (await app.library.list())[0] && app.library.duplicate((await app.library.list())[0]!),
          ];
          await kinds[n % kinds.length]!();
          if (n % 3 === 0) await settled();
          note();
        }
        app = await app.reload();
        const open = app.open.set;
        for (const [id, set] of model) {
          if (id === open.id) {
            expect(open).toEqual(set);
            continue;
          }
          const kept = (await app.library.list()).find((one) => one.id === id);
          // What is as it came with the app is no set of theirs.
          if (!kept) {
            expect(isUntouched(set)).toBe(true);
            continue;
          }
          const read = (await app.library.open(kept)) as OpenSet;
          expect(read.set).toEqual(set);
        }
      }),
      { numRuns: Number(process.env.LIBRARIES ?? 15) },
    );
  });

  test('undoing the change of set goes on with the same one, and keeps what was made of the other', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    const { id } = app.open.set;
    app.store.dispatch(setOpened(emptySet()));
    app.store.dispatch(undone());
    expect([app.open.set.id, app.open.set.name]).toEqual([id, 'First']);
    expect((await app.library.list()).map(({ name }) => name)).toEqual(['First']);
  });

  test('a duplicate remembers what it came from, also of the open set; names stay apart', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    await app.library.duplicate(await app.named('First'));
    await app.library.duplicate(await app.named('First 2'));
    const { id } = await app.named('First');
    expect((await app.named('First 2')).from).toEqual({ id, name: 'First' });
    await app.openFrom('First 3');
    expect(app.open.set.from!.name).toBe('First 2');
    expect(app.open.set.tracks).toEqual(demoSet().set.tracks);
  });

  test('the open set is duplicated before anything was changed in it, too', async () => {
    const app = await App.on(memory);
    await app.library.duplicate({ ...factsOf(app.open), id: '', at: '', latest: null, versions: [] });
    expect((await app.named('Rink Night 2')).from).toEqual({ id: app.open.set.id, name: 'Rink Night' });
    await app.openFrom('Rink Night 2');
    expect(app.open.set.tracks).toEqual(demoSet().set.tracks);
  });

  test('one that is not open is renamed and noted, and opens so', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    app.store.dispatch(setOpened(emptySet()));
    await app.library.change(await app.named('First'), { name: 'Renamed' });
    await app.library.change(await app.named('Renamed'), { note: 'for the rink' });
    const again = await app.reload();
    await again.openFrom('Renamed');
    expect([again.open.set.name, again.open.set.note]).toEqual(['Renamed', 'for the rink']);
    again.store.dispatch(setNoted(''));
    expect('note' in again.open.set).toBe(false);
  });

  test('lies in the bin for thirty days, and is brought back, or opened and so brought back', async () => {
    let app = await App.on(memory);
    app.store.dispatch(rename('First'));
    app.store.dispatch(setOpened(emptySet()));
    const { id } = await app.named('First');
    await app.library.remove(id);
    app.clock += 29 * DAY;
    app = await app.reload();
    expect((await app.named('First')).binned).toBeDefined();
    await app.library.bringBack(id);
    expect((await app.named('First')).binned).toBeUndefined();
    await app.library.remove(id);
    await app.openFrom('First');
    expect((await app.named('First')).binned).toBeUndefined();
    app.store.dispatch(setOpened(emptySet()));
    await app.library.remove(id);
    app.clock += 31 * DAY;
    await app.close();
    const later = new Library(createStore(), memory, () => new Date(app.clock));
    later.own({ versionEntries: () => ({}) } as never);
    expect((await later.list()).some((set) => set.id === id)).toBe(false);
    await settled();
    expect(memory.map.has(`library ${id}`)).toBe(false);
  });

  test('a tab that does not save the set shows the sets, and changes none', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    await app.close();
    const follower = new Library(createStore(), memory);
    const [set] = await follower.list();
    expect(set!.name).toBe('First');
    await expect(follower.change(set!, { name: 'Stolen' })).rejects.toThrow('Another tab keeps the sets');
    await expect(follower.keepVersion('x')).rejects.toThrow('Another tab keeps the sets');
  });

  test('versions of the library outlive runs that let go of theirs', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    await app.library.keepVersion('before the bridge');
    await app.tabs.versions!.keepOnly(new Set());
    const [version] = (await app.named('First')).versions;
    expect(await app.library.openVersion(version!.key)).toMatchObject({ set: { name: 'First' } });
  });
});

describe('versions', () => {
  test('one is kept by itself each time a set is opened and changed, as it was when it was opened', async () => {
    let app = await App.on(memory);
    app.store.dispatch(rename('First'));
    for (const tempo of [80, 90, 100]) {
      app = await app.reload();
      app.store.dispatch(tempoSet(tempo));
      app.store.dispatch(tempoSet(tempo + 1));
    }
    const { versions } = await app.named('First');
    const kept = await Promise.all(versions.map(({ key }) => app.library.openVersion(key)));
    await app.close();
    const stored = await Promise.all(versions.map(({ key }) => app.library.openVersion(key)));
    expect(stored.map((read) => 'set' in read && read.set.tempo)).toEqual([91, 81, 112]);
    expect(versions.every(({ auto }) => auto)).toBe(true);
    expect(kept).toHaveLength(3);
  });

  test('of a set that nothing was changed in yet is a version of that very set', async () => {
    const app = await App.on(memory);
    await app.library.keepVersion('as it came');
    app.store.dispatch(setNoted('changed'));
    await app.close();
    const sets = await app.library.list();
    expect(sets.map(({ id, versions }) => [id, versions.length])).toEqual([[app.open.set.id, 1]]);
  });

  test('so many of those stay; those of the player all do', async () => {
    let app = await App.on(memory);
    app.store.dispatch(rename('First'));
    await app.library.keepVersion('mine');
    for (let i = 0; i < MOST_AUTO + 3; i++) {
      app = await app.reload();
      app.store.dispatch(tempoSet(60 + i));
    }
    const { versions } = await app.named('First');
    expect(versions.filter(({ auto }) => auto)).toHaveLength(MOST_AUTO);
    expect(versions.filter(({ note }) => note === 'mine')).toHaveLength(1);
  });

  test('all or one track is as it was, by one step of undo', async () => {
    const app = await App.on(memory);
    app.store.dispatch(rename('First'));
    await app.library.keepVersion('full');
    const version = (await app.library.openVersion((await app.named('First')).versions[0]!.key)) as OpenSet;
    const whole = app.open.set;
    app.store.dispatch(trackRemoved({ track: 1 }));
    app.store.dispatch(enter(90_001));
    app.store.dispatch(tempoSet(66));
    const before = app.open.set;
    app.store.dispatch(trackRestored({ version: version.set, track: 1 }));
    expect(app.open.set.tracks[1]).toEqual(whole.tracks[1]);
    expect([app.open.set.tempo, app.open.set.tracks[0]]).toEqual([66, before.tracks[0]]);
    expect(readPlainSet(JSON.parse(JSON.stringify({ ...app.open.set, stage: app.open.stage })))).toHaveProperty('set');
    app.store.dispatch(undone());
    expect(app.open.set).toEqual(before);
    app.store.dispatch(versionRestored(version.set));
    expect(app.open.set).toEqual(whole);
    // What is alike stays the very pattern that plays.
    expect(app.open.set.tracks[2]!.patterns[0]).toBe(before.tracks[2]!.patterns[0]);
    app.store.dispatch(undone());
    expect(app.open.set).toEqual(before);
  });
});
