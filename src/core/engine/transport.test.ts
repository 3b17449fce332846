import { BAR, BEAT, PLAY, hits, pattern, Rig } from './rig.testing';

test('a tempo change neither stops nor shifts the music', () => {
  const rig = new Rig().tell(
    { type: 'tempo', bpm: 120 },
    pattern({ hits: hits([0, 0, 1], [960, 0, 2], [1920, 0, 3], [2880, 0, 4]) }),
    PLAY,
  );
  rig
    .runTo(BEAT * 2.5)
    .tell({ type: 'tempo', bpm: 60 })
    .runTo(BEAT * 8);
  // Half a beat is left of beat 3 when the tempo halves: it takes as long as a whole one took.
  expect(rig.of('sounded').map((e) => e.frame)).toEqual([0, BEAT, 2 * BEAT, 3.5 * BEAT, 5.5 * BEAT, 7.5 * BEAT]);
});

test('stopping keeps the place, also that from which a count-in was to begin', () => {
  const rig = new Rig()
    .tell({ type: 'tempo', bpm: 120 }, pattern(), PLAY)
    .runTo(BEAT * 3)
    .tell({ type: 'stop' })
    .runTo(BEAT * 4);
  expect(rig.of('anchor').at(-1)).toMatchObject({ tick: 2880, playing: false, recording: false });
  rig
    .tell({ type: 'play', startTick: 0, countInTicks: BAR })
    .runTo(BEAT * 5)
    .tell({ type: 'stop' })
    .runTo(BEAT * 6);
  expect(rig.of('anchor').at(-1)).toMatchObject({ tick: 0, playing: false });
});

test('the count-in clicks, the pattern waits for its end', () => {
  const rig = new Rig()
    .tell({ type: 'tempo', bpm: 120 }, pattern({ hits: hits([0, 0, 1]) }), {
      type: 'play',
      startTick: 0,
      countInTicks: BAR,
    })
    .runTo(BEAT * 4 + 100);
  expect(rig.of('sounded').map((e) => e.frame)).toEqual([BEAT * 4]);
  expect(rig.of('anchor').at(-1)).toMatchObject({ tick: -BAR, playing: true, fromTick: 0 });
});
