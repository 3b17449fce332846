import { Rig, SR } from './rig.testing';

test('so many clicks at 100 to the minute, each told, and none after the last', () => {
  const rig = new Rig()
    .runTo(777)
    .tell({ type: 'latencyCheck', clicks: 4 })
    .runTo(5 * SR);
  expect(rig.of('checked').map((e) => [e.click, e.frame])).toEqual(
    [0, 1, 2, 3].map((click) => [click, 777 + click * 28800]),
  );
});

test('no clicks are asked for: those that were going on end', () => {
  const rig = new Rig().tell({ type: 'latencyCheck', clicks: 8 }).runTo(0.7 * SR);
  rig.tell({ type: 'latencyCheck', clicks: 0 }).runTo(3 * SR);
  expect(rig.of('checked')).toHaveLength(2);
});
