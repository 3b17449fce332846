import { runFacts } from './runFacts';

test('a run in a line: its length, tempo, launches and hits', () => {
  const run = { from: 48000, to: 48000 * 762, sampleRate: 48000, tempo: { least: 108, most: 116.2 }, launches: 214, hits: 1906 };
  expect(runFacts(run)).toBe('12:41 · 108–116 BPM · 214 launches · 1,906 hits');
  expect(runFacts({ ...run, to: 48000 * 8, tempo: { least: 112, most: 112 }, launches: 0, hits: 1 })).toBe('0:07 · 112 BPM · 1 hit');
}); // prettier-ignore
