import fc from 'fast-check';
import { alike } from '../alike';
import { emptySet } from '../document/create';
import { demoSet } from '../document/demo';
import { readSet, writeSet } from '../document/readSet';
import { tracksOf, type BeatSet } from '../document/set';
import { compareSets, isNoChange } from './compareSets';
import { factsOf, isUntouched } from './librarySet';
import { restored, withTrackOf, withTracks } from './restore';

const { set, stage } = demoSet();

/** The demo with one of its tracks changed. */
function withTrack(id: number, change: Partial<BeatSet['tracks'][number]>): BeatSet {
  return { ...set, tracks: { ...set.tracks, [id]: { ...set.tracks[id]!, ...change } } };
}

function without(id: number): BeatSet {
  const { [id]: _, ...tracks } = set.tracks;
  return { ...set, tracks, order: set.order.filter((other) => other !== id) };
}

const first = set.tracks[0]!.patterns[0]!;
const withFirst = (change: Partial<typeof first>) => withTrack(0, { patterns: [{ ...first, ...change }, ...set.tracks[0]!.patterns.slice(1)] }); // prettier-ignore

describe('what is different between two versions', () => {
  test('nothing is, where they say the same', () => {
    expect(isNoChange(compareSets(set, demoSet().set))).toBe(true);
    expect(isNoChange(compareSets(set, { ...set, trace: undefined } as unknown as BeatSet))).toBe(true);
  });

  test('is said of the set', () => {
    const after = { ...set, name: 'Curb', tempo: 92.5, meter: { beats: 3, unit: 4 }, sections: set.sections.slice(1) };
    expect(compareSets(set, after).words).toEqual([
      'name “Rink Night” to “Curb”',
      'tempo 112 to 92.5',
      'meter 4/4 to 3/4',
      `${set.sections.length} sections to ${set.sections.length - 1}`,
    ]);
  });

  test('is said of tracks: added, gone, changed', () => {
    expect(compareSets(set, without(2)).tracks).toMatchObject([{ id: 2, kind: 'removed' }]);
    expect(compareSets(without(2), set).tracks).toMatchObject([{ id: 2, kind: 'added' }]);
    const [track] = compareSets(set, withTrack(1, { name: 'Bells', level: 0.5 })).tracks;
    expect(track!.words).toEqual([
      `name “${set.tracks[1]!.name}” to “Bells”`,
      `level ${Math.round(set.tracks[1]!.level * 100)} % to 50 %`,
    ]);
    expect(compareSets(set, { ...set, mix: { ...set.mix, level: 0.5 } }).words).toEqual([
      'groups, echo, room or the whole mix',
    ]);
    for (const change of [{ channel: { low: 3 } }, { padsTo: [{ pad: 0, group: 0 }] }]) expect(compareSets(set, withTrack(1, change)).tracks[0]!.words).toEqual(['channel of the mix']); // prettier-ignore
    expect(compareSets(set, { ...set, order: [...set.order].reverse() }).words).toEqual(['order of the tracks']);
  });

  test('is said of patterns by their hits, whatever their order', () => {
    const words = (change: Partial<typeof first>) => compareSets(set, withFirst(change)).tracks[0]?.patterns[0]?.words;
    const { hits } = first;
    expect(words({ hits: [...hits].reverse() })).toEqual([]);
    expect(words({ hits: hits.slice(3) })).toEqual(['3 hits fewer']);
    expect(words({ hits: [...hits, { ...hits[0]!, id: 99_999 }] })).toEqual(['1 hit more']);
    expect(words({ hits: hits.map((hit, i) => (i < 2 ? { ...hit, velocity: 0.123 } : hit)) })).toEqual(['2 hits changed']); // prettier-ignore
    expect(words({ length: first.length / 2, moves: [] })).toEqual(['length of the loop', 'Moves']);
  });
});

describe('restoring', () => {
  /** A version of the demo: some tracks are gone, some patterns empty, and hits have other numbers. */
  const version = fc
    .record({ gone: fc.subarray(set.order.slice(1)), emptied: fc.nat(3), shift: fc.nat(40), slots: fc.constantFrom(1, 4, 16) })
    .map(({ gone, emptied, shift, slots }): BeatSet => {
      const order = set.order.filter((id) => !gone.includes(id));
      const tracks = order.map((id) => {
        const patterns = set.tracks[id]!.patterns.slice(0, slots).map(
          (pattern, slot) => (slot === emptied ? null : pattern) && { ...pattern!, hits: pattern!.hits.map((hit) => ({ ...hit, id: hit.id + shift })) },
        );
        return [id, { ...set.tracks[id]!, patterns }] as const;
      });
      return { ...set, order, tracks: Object.fromEntries(tracks), tempo: 60 + shift };
    }); // prettier-ignore

  /** Every document that can be made can be opened again. */
  const opens = (made: BeatSet) => {
    const tracks = Object.fromEntries(made.order.map((id) => [id, stage.tracks[id] ?? { slot: 0, stopped: true, mute: false, solo: false }])); // prettier-ignore
    expect(readSet(writeSet({ set: made, stage: { shown: made.order[0]!, tracks } }))).toHaveProperty('set');
  };

  test('all gives what the version was, and a set that opens again', () => {
    fc.assert(
      fc.property(version, version, (now, then) => {
        const made = restored({ ...now, id: 'mine' }, then);
        expect(made.id).toBe('mine');
        for (const id of then.order) {
          const { patterns, ...rest } = then.tracks[id]!;
          expect(made.tracks[id]).toMatchObject(rest);
          expect(alike(made.tracks[id]!.patterns.slice(0, patterns.length), patterns)).toBe(true);
          // Whatever slot is performed, it is there.
          expect(made.tracks[id]!.patterns.length).toBeGreaterThanOrEqual(now.tracks[id]?.patterns.length ?? 0);
        }
        expect(made.order).toEqual(then.order);
        opens(made);
      }),
    );
  });

  test('one track leaves all others as they are, and every hit has a number of its own', () => {
    fc.assert(
      fc.property(version, version, fc.constantFrom(...set.order), (now, then, id) => {
        const made = withTrackOf(now, then, id);
        if (!then.tracks[id]) return expect(made).toBeNull();
        for (const other of now.order) if (other !== id) expect(made!.tracks[other]).toBe(now.tracks[other]);
        const struck = (track: BeatSet['tracks'][number]) => track.patterns.map((pattern) => pattern?.hits.map(({ pad, tick }) => [pad, tick])); // prettier-ignore
        expect(struck(made!.tracks[id]!).slice(0, then.tracks[id].patterns.length)).toEqual(struck(then.tracks[id]));
        opens(made!);
      }),
    );
  });

  test('a track whose group has gone meanwhile goes to the whole mix', () => {
    const grouped = tracksOf(set).find(({ goesTo }) => goesTo !== undefined)!;
    const tracks = Object.fromEntries(tracksOf(set).map(({ goesTo: _, ...track }) => [track.id, track]));
    const now = { ...set, tracks, mix: { ...set.mix, groups: [] } };
    const made = withTrackOf(now, set, grouped.id)!;
    expect(made.tracks[grouped.id]!.goesTo).toBeUndefined();
    opens(made);
    opens(withTracks(now, [grouped]).set);
    expect(withTrackOf(set, set, grouped.id)!.tracks[grouped.id]!.goesTo).toBe(grouped.goesTo);
  });

  test('tracks come in beside what is there, as many as there is room for', () => {
    const tracks = tracksOf(set);
    const once = withTracks(set, tracks);
    expect(once.leftOut).toBe(0);
    expect(once.set.order).toHaveLength(2 * tracks.length);
    opens(once.set);
    const twice = withTracks(withTracks(once.set, tracks).set, [...tracks, ...tracks]);
    expect([twice.set.order.length, twice.leftOut]).toEqual([16, tracks.length]);
    opens(twice.set);
  });
});

test('what came with the app is known again, whatever its id; anything done to it is not', () => {
  for (const open of [demoSet(), emptySet()]) {
    expect(isUntouched({ ...open.set, id: 'any' })).toBe(true);
    expect(isUntouched({ ...open.set, tempo: 99 })).toBe(false);
  }
});

test('the list shows of a set what it is: four tracks, a kick on every beat of two bars in the first row', () => {
  const facts = factsOf(demoSet());
  expect([facts.name, facts.tempo, facts.tracks]).toEqual(['Rink Night', 112, 4]);
  // 32 cells over two bars are sixteenths: the demo has something on every beat (see the demo's own tests).
  expect([0, 4, 8, 12, 16, 20, 24, 28].every((at) => facts.picture.rows[0]!.cells[at] === 'x')).toBe(true);
});
