import { demoSet } from '../document/demo';
import { patternAt } from '../document/set';
import { loopStrokes } from '../sequence/loopStrokes';
import { roundTicks } from '../launch/plans';
import { playPattern, playSection, playTracks, type PlayedThrough } from './playThrough';
import { readScore } from './readScore';
import { trackStrokes } from './score';

/** Of Node, which the core's own library knows nothing of. */
declare function structuredClone<T>(value: T): T;

const RATE = 48000;
const scoreOf = ({ performed, run }: PlayedThrough) => readScore({ ...performed, log: structuredClone([...performed.log]) }, run); // prettier-ignore

test('a pattern is played once: each of its strokes at its tick, and no other', () => {
  const open = demoSet();
  for (const track of Object.values(open.set.tracks)) {
    track.patterns.forEach((pattern, slot) => {
      if (!pattern) return;
      const score = scoreOf(playPattern(open, { track: track.id, slot }, RATE));
      const strokes = score.tracks.flatMap((one) => trackStrokes(one).map(({ pad, tick }) => [one.id, pad, Math.round(tick)])); // prettier-ignore
      const wanted = loopStrokes(patternAt(open.set, { track: track.id, slot })!, track).map(({ pad, tick }) => [track.id, pad, Math.round(tick)]); // prettier-ignore
      const sorted = (list: number[][]) => [...list].sort((a, b) => a[2]! - b[2]! || a[1]! - b[1]!);
      expect(sorted(strokes)).toEqual(sorted(wanted));
      expect(score.length).toBeCloseTo(pattern.length, 0);
    });
  }
});

test('a section is played as many rounds as it has, under its name', () => {
  const open = demoSet();
  for (const section of open.set.sections) {
    const score = scoreOf(playSection(open, section.id, RATE));
    expect(score.length).toBeCloseTo(roundTicks(open.set, section) * section.rounds, 0);
    expect(score.marks[0]).toMatchObject({ name: section.name, tick: 0 });
    const playing = section.parts.filter(({ plays }) => plays !== null).map(({ track }) => track);
    expect(score.tracks.filter(({ blocks }) => blocks.length > 0).map(({ id }) => id)).toEqual(playing);
  }
});

test('all tracks play from the top what they are on, for as long as is asked for', () => {
  const open = demoSet();
  const score = scoreOf(playTracks(open, 3840 * 3, RATE));
  expect(score.length).toBeCloseTo(3840 * 3, 0);
  expect(score.tracks.every(({ blocks }) => blocks.length > 0)).toBe(true);
});
