import { hits, BEAT, pattern, playing } from './rig.testing';

const sounded = (rig: ReturnType<typeof playing>) => rig.of('sounded').map((e) => [e.frame / BEAT, e.id]);

test('what changed in a pattern: hits removed by their ids, altered ones in place of those of their id, new ones added', () => {
  const rig = playing([0, 0, 1], [960, 0, 2], [1920, 0, 3]).runTo(BEAT * 3.5);
  rig.tell({ type: 'patternEdit', track: 0, slot: 0, revision: 1, removed: Float64Array.of(1, 2), hits: hits([1440, 0, 2], [2880, 0, 4]) }); // prettier-ignore
  rig.runTo(BEAT * 7.5);
  expect(sounded(rig).slice(3)).toEqual([[5.5, 2], [6, 3], [7, 4]]); // prettier-ignore
});

test('a change to a pattern that does not play is there when it does', () => {
  const rig = playing().tell(pattern({ slot: 3 }));
  rig.tell({
    type: 'patternEdit',
    track: 0,
    slot: 3,
    revision: 1,
    removed: new Float64Array(0),
    hits: hits([960, 0, 9]),
  });
  rig.tell({ type: 'launch', track: 0, slot: 3, on: 0, inPlace: true }).runTo(BEAT * 2);
  expect(sounded(rig)).toEqual([[1, 9]]);
});

test('the page is told of another length at once, and not of the same one', () => {
  const rig = playing().runTo(BEAT);
  const before = rig.of('loop').length;
  rig.tell(pattern({ hits: hits([0, 0, 1]) })).runTo(BEAT * 1.5);
  expect(rig.of('loop')).toHaveLength(before);
  rig.tell(pattern({ length: 1920 })).runTo(BEAT * 2);
  expect(rig.of('loop').slice(before)).toMatchObject([{ track: 0, slot: 0, span: 1920, tick: 1440 }]);
});
