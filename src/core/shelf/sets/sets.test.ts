import { readSet, writeSet } from '../../document/readSet';
import { soundingHits } from '../../sequence/soundingHits';
import { lateTram } from './lateTram';
import { oneAtATime } from './oneAtATime';

test.each([lateTram, oneAtATime])('a demo that is stored opens as it was', (demo) => {
  expect(readSet(writeSet(demo()))).toEqual(demo());
});

test('Late Tram is slow: sixteenths swung by 60 %, a backbeat that is late, and room between the kicks', () => {
  const { set } = lateTram();
  expect(set.tempo).toBeLessThan(90);
  const sounding = soundingHits(set.tracks[0]!.patterns[0]!);
  const mean = (list: readonly number[]) => list.reduce((sum, x) => sum + x, 0) / list.length;
  const late = (pad: number, steps: readonly number[]) =>
    mean(sounding.filter((hit) => hit.pad === pad && steps.includes(Math.round(hit.tick / 240) % 16)).map(({ tick }) => tick - 240 * Math.round(tick / 240))); // prettier-ignore
  expect(late(2, [4, 12])).toBeGreaterThan(5);
  // Shaker and hats: the second sixteenth of an eighth at 60 % is 48 ticks late.
  expect(late(4, [7])).toBeGreaterThan(30);
});

test('One at a Time adds one sound, or one way of playing it, with each pattern; all lie on the grid', () => {
  const { patterns } = oneAtATime().set.tracks[0]!;
  const lessons = patterns.flatMap((pattern) => (pattern ? [soundingHits(pattern)] : []));
  const padsOf = (hits: (typeof lessons)[number]) => new Set(hits.map(({ pad }) => pad));
  expect(lessons.length).toBeGreaterThan(4);
  for (const [i, hits] of lessons.entries()) {
    expect(hits.every(({ tick }) => tick % 240 === 0)).toBe(true);
    if (i === 0) continue;
    const before = lessons[i - 1]!;
    for (const pad of padsOf(before)) expect(padsOf(hits).has(pad)).toBe(true);
    const changed = [...padsOf(hits)].filter((pad) => hits.filter((h) => h.pad === pad).length !== before.filter((h) => h.pad === pad).length); // prettier-ignore
    expect(changed).toHaveLength(1);
  }
});
