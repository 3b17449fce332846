import * as Note from '@tonaljs/note';
import fc from 'fast-check';
import { demoSet } from '../document/demo';
import { hitOn, type Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import { tracksOf } from '../document/set';
import { isInScale, noteIn, padsOfNotes, type Tones } from '../document/tones';
import { accompany, PARTS, type Accompanied } from './accompany';
import { harmonyOf, triadName } from './harmony';
import { withProposal } from './propose';

const BAR = 3840;
const KEYS: Tones = { voice: 'keys', root: 9, scale: 'minor', chromatic: false, octave: 0 };
const BASS: Tones = { ...KEYS, voice: 'bass' };
const FOUR = { beats: 4, unit: 4 };

/** Chords, or single notes, of a bar each, by the names of their notes. */
function song(tones: Tones, ...bars: string[]): Pattern {
  const find = padsOfNotes(tones);
  const hits = bars.flatMap((notes, bar) =>
    notes.split(' ').map((name, i): Hit => {
      const plain = {
        id: 100 * bar + 2 * i + 1,
        pad: 0,
        tick: bar * BAR,
        length: BAR - 240,
        velocity: 0.7,
        snap: null,
      };
      return hitOn(plain, find(Note.midi(name)!));
    }),
  );
  return { name: 'Song', length: bars.length * BAR, hits };
}
/** The progression of half of all records in A minor, its chords as they lie near to each other. */
const CHORDS = song(KEYS, 'A3 C4 E4', 'A3 C4 F4', 'G4 C4 E4', 'G4 B3 D4');
const ROOTS = song(BASS, 'A1', 'F2', 'C2', 'G2');
const empty = (length: number): Pattern => ({ name: 'New', length, hits: [] });
const ground = (tones: Tones, to: Accompanied['to'], length = 4 * BAR): Accompanied => ({ pattern: empty(length), tones, meter: FOUR, locked: [], to }); // prettier-ignore

test('the triads of A minor have the names of the textbook', () => {
  expect([0, 1, 2, 3, 4, 5, 6].map((degree) => triadName(KEYS, degree))).toEqual(['Am', 'Bdim', 'C', 'Dm', 'Em', 'F', 'G']); // prettier-ignore
});

test('chords are known in any inversion, and by their bass alone; what goes round is known in each round', () => {
  const names = (pattern: Pattern, tones: Tones, length: number) =>
    harmonyOf({ pattern, tones }, KEYS, length, BAR / 2).map(({ tick, length: ticks, degree }) => [triadName(KEYS, degree), tick / BAR, ticks / BAR]); // prettier-ignore
  const expected = [['Am', 0, 1], ['F', 1, 1], ['C', 2, 1], ['G', 3, 1]]; // prettier-ignore
  expect(names(CHORDS, KEYS, 4 * BAR)).toEqual(expected);
  expect(names(ROOTS, BASS, 4 * BAR)).toEqual(expected);
  expect(names(CHORDS, KEYS, 6 * BAR).slice(4)).toEqual([['Am', 4, 1], ['F', 5, 1]]); // prettier-ignore
});

test('seventh chords go by their roots, also in their first inversion: A C E F is F with its seventh, A C E G is A minor with its own', () => {
  const pattern = song(KEYS, 'A3 C4 E4 F4', 'A3 C4 E4 G4', 'C4 E4 G4 A4', 'B3 D4 F4 G4');
  const names = harmonyOf({ pattern, tones: KEYS }, KEYS, 4 * BAR, BAR / 2).map(({ degree }) =>
    triadName(KEYS, degree),
  );
  expect(names).toEqual(['F', 'Am', 'G']);
});

test('the chords of the demo, held or as stabs, are those that it was written in', () => {
  const { tones, patterns } = tracksOf(demoSet().set).find(({ name }) => name === 'Lamps')!;
  for (const name of ['Glow', 'Stabs']) {
    const pattern = patterns.find((one) => one?.name === name)!;
    const harmony = harmonyOf({ pattern, tones: tones! }, tones!, pattern.length, BAR / 2);
    expect([name, ...harmony.map(({ degree }) => triadName(tones!, degree))]).toEqual([name, 'Am', 'F', 'Dm', 'Em']);
  }
});

test('a bass has the root at every change, one note at a time, all of the scale and on the pads', () => {
  const noteOf = noteIn(BASS);
  for (let seed = 1; seed <= 40; seed++) {
    const { hits, words } = accompany('bass', ground(BASS, { pattern: CHORDS, tones: KEYS }), seed);
    expect(words).toMatch(/^Am F C G: .+\.$/);
    const at = (tick: number) => hits.filter((hit) => hit.tick === tick).map((hit) => Note.pitchClass(Note.fromMidi(noteOf(hit)))); // prettier-ignore
    expect([0, 1, 2, 3].map((bar) => at(bar * BAR).join())).toEqual(['A', 'F', 'C', 'G']);
    for (const [i, hit] of hits.entries()) {
      expect([isInScale(BASS, noteOf(hit)), hit.pitch]).toEqual([true, undefined]);
      expect(hit.tick + hit.length).toBeLessThanOrEqual(hits[i + 1]?.tick ?? 4 * BAR);
    }
  }
});

test('chords for a bass are its triads, each near to the one before', () => {
  const noteOf = noteIn(KEYS);
  for (let seed = 1; seed <= 40; seed++) {
    const { hits, words } = accompany('chords', ground(KEYS, { pattern: ROOTS, tones: BASS }), seed);
    expect(words).toMatch(/^Am F C G: triads, .+\.$/);
    const chord = (bar: number) => {
      const first = hits.find(({ tick }) => tick >= bar * BAR)!.tick;
      return hits.filter(({ tick }) => tick === first).map(noteOf);
    };
    const classes = [0, 1, 2, 3].map((bar) => chord(bar).map((note) => Note.pitchClass(Note.fromMidi(note))).sort().join('')); // prettier-ignore
    expect(classes).toEqual(['ACE', 'ACF', 'CEG', 'BDG']);
    for (const bar of [1, 2, 3]) {
      const [before, now] = [chord(bar - 1), chord(bar)];
      for (const note of now) expect(Math.min(...before.map((other) => Math.abs(other - note)))).toBeLessThanOrEqual(4);
    }
  }
});

test('whatever is played, a part fits into its pattern, is the same for the same seed, and leaves what is locked', () => {
  const anyHit = fc.record({ pad: fc.nat(15), tick: fc.integer({ min: 0, max: 2 * BAR }), length: fc.integer({ min: 1, max: 2 * BAR }) }); // prettier-ignore
  fc.assert(
    fc.property(fc.array(anyHit, { maxLength: 20 }), fc.constantFrom(...PARTS), fc.integer({ min: 1, max: 9 }), fc.nat(1e6), (some, part, beats, seed) => {
      const to = { tones: KEYS, pattern: { ...empty(2 * BAR), hits: some.map((hit, i): Hit => ({ ...hit, id: 2 * i + 1, velocity: 1, snap: null })) } }; // prettier-ignore
      const own = song(BASS, 'A1 C2');
      const asked = { ...ground(BASS, to), pattern: { ...own, length: beats * 960 }, locked: [2] };
      const offered = accompany(part, asked, seed);
      expect(accompany(part, asked, seed)).toEqual(offered);
      for (const { tick, length, pad } of offered.hits) {
        expect(tick >= 0 && length > 0 && tick + length <= beats * 960 && pad !== 2).toBe(true);
      }
      let id = 1001;
      const after = withProposal(asked.pattern, offered, () => (id += 2));
      expect(after.hits.filter(({ pad }) => pad === 2)).toEqual(own.hits.filter(({ pad }) => pad === 2));
    }),
  );
}); // prettier-ignore
