import { demoSet } from '@/core/document/demo';
import { FIRST_GROUP_CHANNEL, MIX_RANGES, WHOLE_CHANNEL } from '@/core/document/mix';
import { channelLevelSet, channelSent, channelTurned, echoSet, groupAdded, groupColoured, groupNamed, groupRemoved, padsSent, roomSet } from './mixSlice'; // prettier-ignore
import { unmixed } from '@/core/document/unmixed.testing';
import { setLoaded } from './openSlice';
import { selectSet } from './selectors';
import { createStore } from './store';
import { undone } from './undoable';

function mixed() {
  const store = createStore();
  store.dispatch(setLoaded(unmixed(demoSet())));
  const group = (id: number) => groupAdded({ id, name: `Group ${id + 1}`, colour: id, level: 1 });
  return { store, group, set: () => selectSet(store.getState()) };
}
const of = (id: number) => FIRST_GROUP_CHANNEL + id;

test('a control stays within its range, and leaves no trace where it is neutral', () => {
  const { store, set } = mixed();
  const turn = (channel: number, value: number | null) => store.dispatch(channelTurned({ channel, control: 'low', value, gesture: 'a' })); // prettier-ignore
  turn(0, 400);
  expect(set().tracks[0]!.channel).toEqual({ low: MIX_RANGES.low.max });
  turn(0, 0);
  turn(WHOLE_CHANNEL, -3);
  expect([set().tracks[0]!.channel, set().mix?.whole]).toEqual([{}, { low: -3 }]);
  turn(WHOLE_CHANNEL, null);
  // Channels that are not there.
  turn(of(2), 1);
  turn(15, 1);
  expect([set().mix?.groups, set().tracks[15]]).toEqual([undefined, undefined]);
  // All of one gesture is one step back, to the document that there was.
  store.dispatch(undone());
  expect([set().mix, set().tracks[0]!.channel]).toEqual([undefined, undefined]);
});

test('groups are nested once, four at most, and what goes to one that is removed goes to the whole mix', () => {
  const { store, group, set } = mixed();
  for (const id of [0, 1, 2, 3, 3]) store.dispatch(group(id));
  expect(set().mix!.groups!.map(({ id }) => id)).toEqual([0, 1, 2, 3]);
  const send = (channel: number, to: number | null) => store.dispatch(channelSent({ channel, to }));
  send(1, 0);
  send(of(0), 2);
  send(of(2), 3); // it holds one
  send(of(1), 0); // which goes on itself
  send(of(3), 3);
  send(2, 7);
  const ways = () => set().mix!.groups!.map(({ id, to }) => [id, to]);
  expect([ways(), set().tracks[1]!.goesTo, set().tracks[2]!.goesTo]).toEqual([[[0, 2], [1, undefined], [2, undefined], [3, undefined]], 0, undefined]); // prettier-ignore
  store.dispatch(groupNamed({ id: 0, name: '  Drums ' }));
  store.dispatch(groupNamed({ id: 0, name: ' ' }));
  store.dispatch(groupColoured({ id: 0, colour: 6 }));
  expect(set().mix!.groups![0]).toMatchObject({ name: 'Drums', colour: 6 });
  store.dispatch(groupRemoved(2));
  store.dispatch(groupRemoved(0));
  expect([ways(), set().tracks[1]!.goesTo]).toEqual([
    [
      [1, undefined],
      [3, undefined],
    ],
    undefined,
  ]);
  send(of(1), 3);
  send(of(1), null);
  expect(ways()).toEqual([[1, undefined], [3, undefined]]); // prettier-ignore
});

test('pads of a kit go to a group of their own, and with their track when that is removed', () => {
  const { store, group, set } = mixed();
  for (const id of [0, 2]) store.dispatch(group(id));
  const send = (pads: number[], to: number | null) => store.dispatch(padsSent({ track: 0, pads, to }));
  const ways = () =>
    set()
      .tracks[0]!.padsTo?.map(({ pad, group: to }) => `${pad} to ${to}`)
      .join();
  send([9, 4, 5], 2);
  send([5, 0], 0);
  send([1], 3); // there is none
  expect(ways()).toBe('0 to 0,4 to 2,5 to 0,9 to 2');
  send([4], null);
  const before = set();
  store.dispatch(groupRemoved(2));
  expect(ways()).toBe('0 to 0,5 to 0');
  // Tracks that it has nothing to do with are left alone.
  expect(set().tracks[1]).toBe(before.tracks[1]);
  store.dispatch(undone());
  expect(ways()).toBe('0 to 0,5 to 0,9 to 2');
  send([0, 5, 9], null);
  expect(set().tracks[0]).not.toHaveProperty('padsTo');
});

test('levels of tracks, groups and the whole are performed: no step back; echo and room begin as they are by themselves', () => {
  const { store, group, set } = mixed();
  store.dispatch(group(1));
  for (const channel of [0, of(1), WHOLE_CHANNEL, of(3), 15]) store.dispatch(channelLevelSet({ channel, level: 0.25 }));
  store.dispatch(channelLevelSet({ channel: WHOLE_CHANNEL, level: 7 }));
  expect([set().tracks[0]!.level, set().mix!.groups![0]!.level, set().mix!.level]).toEqual([0.25, 0.25, 1]);
  store.dispatch(roomSet({ change: { preDelay: 20 }, gesture: 'r' }));
  expect(set().mix!.room).toEqual({ size: 0.42, damping: 0.5, width: 1, preDelay: 20 });
  store.dispatch(echoSet({ change: { feedback: 0.9 }, gesture: 'e' }));
  expect(set().mix!.echo).toEqual({ time: '1/8 dotted', feedback: 0.9, tone: 0.5, width: 1 });
  store.dispatch(undone());
  expect([set().mix!.echo, set().tracks[0]!.level, set().mix!.level]).toEqual([undefined, 0.25, 1]);
});
