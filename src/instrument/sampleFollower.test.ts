import { demoSet } from '@/core/document/demo';
import type { BeatSet } from '@/core/document/set';
import type { Instruction } from '@/core/protocol/commands';
import type { PreparedSample } from '@/core/sample/levels';
import { createStore } from '@/store/store';
import { SampleFollower } from './sampleFollower';

const idOf = (letter: string) => letter.repeat(32);

/** The demo with recordings on the first pads of its first track. */
function setWith(...letters: string[]): BeatSet {
  const { set } = demoSet();
  const track = set.tracks[0]!;
  const pads = track.kit.pads.map((pad, i) => (letters[i] ? { ...pad, sound: { ...pad.sound, source: { sample: idOf(letters[i]), frames: 100 } } } : pad)); // prettier-ignore
  return { ...set, tracks: { ...set.tracks, 0: { ...track, kit: { ...track.kit, pads } } } };
}

/** A sample of so many bytes that nothing is in. */
const sized = (id: string, byteLength: number) => ({ id, frames: 100, levels: [{ every: 1, channels: [{ byteLength }] }] }) as unknown as PreparedSample; // prettier-ignore

function following(there: readonly string[], bytes = 1000) {
  const store = createStore();
  const sent: string[] = [];
  const asked: string[] = [];
  const find = async (id: string) => {
    asked.push(id[0]!);
    if (id[0] === 'x') throw new Error('the storage is closed');
    return there.includes(id[0]!) ? sized(id, bytes) : null;
  };
  const send = (instruction: Instruction) => {
    if (instruction.type === 'sample') sent.push(`+${instruction.sample.id[0]}`);
    if (instruction.type === 'dropSample') sent.push(`-${instruction.id[0]}`);
  };
  return { store, sent, asked, follower: new SampleFollower(store, find, send) };
}
const settled = () => new Promise((done) => setTimeout(done, 20));

test('each sample that is named is given once, in order; what cannot be had is told, and asked for again when it came', async () => {
  const there = ['a', 'b'];
  const { store, sent, asked, follower } = following(there);
  follower.follow(setWith('a', 'c', 'a', 'b', 'x'));
  follower.follow(setWith('a', 'c', 'a', 'b', 'x'));
  await settled();
  follower.follow(setWith('a', 'c', 'b'));
  await settled();
  expect([sent, asked]).toEqual([['+a', '+b'], ['a', 'c', 'b', 'x']]); // prettier-ignore
  const { missing } = store.getState().session;
  expect(missing).toEqual({ [idOf('c')]: 'its recording is not on this device', [idOf('x')]: 'the storage is closed' });
  there.push('c');
  store.dispatch({ type: 'session/sampleFound', payload: idOf('c') });
  follower.follow(setWith('c'));
  await settled();
  expect(sent).toEqual(['+a', '+b', '+c']);
});

test('what no sound names stays for undo, until it is too much; the engine that has ended is given nothing', async () => {
  const { sent, follower } = following([...'abcdefghijklmnop'], 29_000_000);
  for (const letter of 'abcdefghijkl') {
    follower.follow(setWith(letter));
    await settled();
  }
  expect(sent.slice(0, 4)).toEqual(['+a', '+b', '+c', '+d']);
  expect(sent.indexOf('-a')).toBeGreaterThan(sent.indexOf('+j'));
  expect(sent).not.toContain('-l');
  follower.end();
  follower.follow(setWith('m'));
  await settled();
  expect(sent).not.toContain('+m');
});
