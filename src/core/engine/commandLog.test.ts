import { at } from '../protocol/commands';
import { CommandLog } from './commandLog';
import { hits, pattern } from './rig.testing';

const STOP = at(100, { type: 'stop' });

test('nothing is kept until somebody asks, and each command is handed over once', () => {
  const log = new CommandLog();
  log.note(STOP);
  expect([log.length, log.drain()]).toEqual([0, []]);
  log.keep(true);
  log.note(STOP);
  log.keep(true); // asked again, what was kept stays
  expect(log.length).toBe(1);
  expect(log.drain()).toEqual([STOP]);
  expect(log.drain()).toEqual([]);
  log.note(STOP);
  log.keep(false);
  expect(log.length).toBe(0);
});

test('patterns, edits and Moves are named by their revision and carry nothing', () => {
  const log = new CommandLog();
  log.keep(true);
  log.note(at(0, pattern({ revision: 7, hits: hits([0, 0, 1]) })));
  log.note(at(0, { type: 'patternEdit', track: 0, slot: 0, revision: 8, removed: Float64Array.of(1), hits: hits([9, 0, 2]) })); // prettier-ignore
  log.note(at(0, { type: 'moves', track: 0, slot: 0, revision: 9, points: Float64Array.of(0, 1, 2, 3) }));
  const empty = new Float64Array(0);
  expect(log.drain()).toMatchObject([
    { type: 'pattern', revision: 7, hits: empty, feels: null },
    { type: 'patternEdit', revision: 8, hits: empty, removed: empty },
    { type: 'moves', revision: 9, points: empty },
  ]);
});
