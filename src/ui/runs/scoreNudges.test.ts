import { at } from '@/core/protocol/commands';
import { fixed, lineRange } from '@/core/score/fix';
import { readScore } from '@/core/score/readScore';
import { stepAt, trackStrokes } from '@/core/score/score';
import { copied, performed, play, SR } from '@/core/score/score.testing';
import { endFixes, lineFix } from './scoreNudges';

const run = performed([play(1000), at(4 * SR, { type: 'tempo', bpm: 131 })], 8 * SR);
const score = readScore(copied(run), run);
const [track] = score.tracks;
const stretch = { from: 3840, to: 7680 };

test('a line goes up by a step within the stretch, and stays as it is beside it', () => {
  const tempo = fixed(score, lineFix(score, track!, 'tempo', stretch, 1)!).tempo;
  for (const tick of [0, 3839, 7680, 11000]) expect(stepAt(tempo, tick)).toBeCloseTo(stepAt(score.tempo, tick), 6);
  for (const tick of [3840, 5000, 7679]) expect(stepAt(tempo, tick)).toBeCloseTo(stepAt(score.tempo, tick) + 1, 6);
  const levels = fixed(score, lineFix(score, track!, 'levels', stretch, -1)!).tracks[0]!.levels;
  const own = stepAt(track!.levels, 3840);
  expect([3839, 3840, 7680].map((tick) => stepAt(levels, tick) / stepAt(track!.levels, tick))).toEqual([1, expect.closeTo((own - 0.05) / own, 6), 1]); // prettier-ignore
});

test('a line of strokes moves each of them by as much', () => {
  const { min, max } = lineRange('velocity');
  const after = fixed(score, lineFix(score, track!, 'velocity', stretch, -1)!).tracks[0]!;
  const changes = trackStrokes(track!).map((stroke, i) => [stroke.tick >= 3840 && stroke.tick < 7680, stroke.velocity - trackStrokes(after)[i]!.velocity] as const); // prettier-ignore
  expect(changes.filter(([inside]) => inside).length).toBeGreaterThan(3);
  for (const [inside, by] of changes) expect(by).toBeCloseTo(inside ? (max - min) / 20 : 0, 6);
});

test('blocks end later or earlier; one that would be nothing stays', () => {
  const [block] = track!.blocks;
  const [fix] = endFixes([block!], -960);
  expect(fixed(score, fix!).tracks[0]!.blocks[0]!.length).toBeCloseTo(block!.length - 960, 6);
  expect(endFixes([block!], -block!.length)).toEqual([]);
});
