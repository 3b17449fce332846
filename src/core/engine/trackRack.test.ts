import { SILENT } from '../launch/launchState';
import { BEAT, hits, pattern, playing } from './rig.testing';

test('each change of what goes round is told with the tick from which it does', () => {
  const rig = playing([0, 0, 1]).tell(pattern({ slot: 1, length: 960, hits: hits([0, 1, 2]) }));
  rig.runTo(BEAT * 1.5).tell({ type: 'launch', track: 0, slot: 1, on: 3840, inPlace: false });
  rig.runTo(BEAT * 6.5).tell({ type: 'launch', track: 0, slot: SILENT, on: 0, inPlace: false });
  rig.runTo(BEAT * 8);
  expect(rig.of('loop').slice(-2)).toMatchObject([
    { track: 0, slot: 1, launchTick: 3840, start: 0, span: 960, tick: 3840, frame: 4 * BEAT },
    { track: 0, slot: SILENT, tick: expect.closeTo(6.5 * 960, 1), frame: 6.5 * BEAT },
  ]);
  expect(rig.of('sounded').map((e) => [e.frame / BEAT, e.id])).toEqual([[0, 1], [4, 2], [5, 2], [6, 2]]); // prettier-ignore
});

test('a track that is removed plays nothing, and the one that gets its id knows none of its patterns', () => {
  const rig = playing([0, 0, 1], [1920, 0, 2]).runTo(BEAT);
  rig.tell({ type: 'removeTrack', track: 0 }).runTo(BEAT * 3);
  rig.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false }).runTo(BEAT * 9);
  expect(rig.of('sounded').map((e) => e.id)).toEqual([1]);
});
