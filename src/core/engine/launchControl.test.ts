import { AS_IT_IS, SILENT } from '../launch/launchState';
import { BAR, BEAT, hits, pattern, PLAY, playing, Rig } from './rig.testing';

const launch = (slot: number, on: number) => ({ type: 'launch', track: 0, slot, on, inPlace: false }) as const;
const other = pattern({ slot: 1, hits: hits([0, 1, 2], [1920, 1, 3]) });
const sounded = (rig: Rig) => rig.of('sounded').map((e) => [e.frame / BEAT, e.id]);

test('what waits is told once, takes over on its line before what is played there, and is told then', () => {
  const rig = playing([0, 0, 1])
    .tell(other)
    .runTo(BEAT * 1.5);
  const before = rig.of('waiting').length;
  rig.tell(launch(1, BAR)).runTo(BEAT * 6.5);
  expect(rig.of('waiting').slice(before)).toMatchObject([
    { track: 0, slot: 0, next: 1, nextTick: BAR, frame: 1.5 * BEAT },
    { track: 0, slot: 1, nextTick: Infinity, frame: 4 * BEAT },
  ]);
  expect(sounded(rig)).toEqual([[0, 1], [4, 2], [6, 3]]); // prettier-ignore
});

test('taken back, it does not happen', () => {
  const rig = playing([0, 0, 1]).tell(other).runTo(BEAT).tell(launch(1, BAR));
  rig
    .runTo(BEAT * 2)
    .tell({ type: 'cancelLaunch', track: 0 })
    .runTo(BEAT * 5);
  expect(sounded(rig)).toEqual([[0, 1], [4, 1]]); // prettier-ignore
});

test('in a count-in nothing waits: what is launched is there when it ends', () => {
  const rig = new Rig().tell({ type: 'tempo', bpm: 120 }, pattern({ hits: hits([0, 0, 1]) }), other);
  rig
    .tell({ type: 'play', startTick: 0, countInTicks: BAR })
    .runTo(BEAT)
    .tell(launch(1, 4 * BAR))
    .runTo(BEAT * 5);
  expect(sounded(rig)).toEqual([[4, 2]]);
});

test('Stop all at once silences what rings, and the song goes on', () => {
  const rig = playing([0, 10, 1]).runTo(BEAT / 2);
  expect(rig.engine.ringing).toBeGreaterThan(0);
  rig.tell({ type: 'stopAll', on: 0 }).runTo(BEAT * 5);
  expect(rig.engine.ringing).toBe(0);
  expect(rig.of('waiting').at(-1)).toMatchObject({ slot: SILENT });
  expect(rig.of('anchor').at(-1)).toMatchObject({ playing: true });
  expect(sounded(rig)).toEqual([[0, 1]]);
});

test('a Lift says what goes on beneath it, and gives it back on its line', () => {
  const rig = playing([0, 0, 1]).tell(other, { type: 'lift', held: true, on: 0 }).runTo(BEAT);
  rig.tell(launch(1, 0), { type: 'muteSolo', track: 0, mute: 1, solo: AS_IT_IS, on: 0 }).runTo(BEAT * 2);
  expect(rig.of('waiting').at(-1)).toMatchObject({ slot: 1, muted: 1, beneath: false });
  rig.tell({ type: 'lift', held: false, on: BAR }).runTo(BEAT * 4.5);
  expect(rig.of('waiting').at(-1)).toMatchObject({ slot: 0, muted: 0 });
  expect(sounded(rig).at(-1)).toEqual([4, 1]);
});

test('a stop keeps what plays and drops what waits', () => {
  const rig = playing([0, 0, 1])
    .tell(other)
    .runTo(BEAT)
    .tell(launch(1, BAR))
    .runTo(BEAT * 2)
    .tell({ type: 'stop' });
  rig
    .runTo(BEAT * 3)
    .tell(PLAY)
    .runTo(BEAT * 8);
  expect(sounded(rig).map(([, id]) => id)).toEqual([1, 1, 1]);
});
