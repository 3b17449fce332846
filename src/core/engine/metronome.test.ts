import type { ClickTime } from '../document/metronome';
import { LIMITER_LATENCY } from '../sound/limiter';
import { BAR, BEAT, Rig, SR } from './rig.testing';

/** Beats at which a click was heard in the first so many beats at 120 BPM, after a bar of count-in or none. */
function clicks(
  beats: number,
  countInTicks: number,
  when: ClickTime,
  { on = true, between = 0, recording = false } = {},
) {
  const rig = new Rig().tell(
    { type: 'tempo', bpm: 120 },
    { type: 'metronome', on, level: 1, sound: 'wood', when, between },
    { type: 'record', on: recording, session: 1 },
    { type: 'play', startTick: 0, countInTicks },
  );
  // The wooden click is over within 70 ms: sound after silence is a click.
  const found: number[] = [];
  let quiet = 10;
  for (let frame = 0; frame < beats * BEAT + LIMITER_LATENCY; frame += 128) {
    rig.runTo(frame + 128);
    const loud = rig.left.some((x) => Math.abs(x) > 1e-3);
    if (loud && quiet > 5) found.push(Math.round((4 * Math.max(0, frame - LIMITER_LATENCY)) / BEAT) / 4);
    quiet = loud ? 0 : quiet + 1;
  }
  return found.filter((beat) => beat < beats);
}

test.each<[string, ClickTime, object, number[]]>([
  ['always', 'always', {}, [0, 1, 2, 3, 4, 5]],
  ['off, the count-in clicks all the same', 'always', { on: false }, [0, 1, 2, 3]],
  ['only counting in', 'countIn', {}, [0, 1, 2, 3]],
  ['only recording, and not armed', 'recording', {}, [0, 1, 2, 3]],
  ['only recording, armed', 'recording', { recording: true }, [0, 1, 2, 3, 4, 5]],
])('a bar is counted in, and then: %s', (_, when, more, expected) => {
  expect(clicks(6, BAR, when, more)).toEqual(expected);
});

test('clicks between the beats, eighths', () => {
  expect(clicks(2, 0, 'always', { between: 480 })).toEqual([0, 0.5, 1, 1.5]);
});

test('beats that went by while it was off are not made up for', () => {
  const rig = new Rig()
    .tell({ type: 'tempo', bpm: 120 }, { type: 'play', startTick: 0, countInTicks: 0 })
    .runTo(3.5 * BEAT);
  rig.tell({ type: 'metronome', on: true, level: 1, sound: 'wood', when: 'always', between: 0 });
  rig.runTo(3.5 * BEAT + SR / 10);
  expect(Math.max(...rig.left.map(Math.abs))).toBe(0);
  rig.runTo(4 * BEAT + LIMITER_LATENCY + 128);
  expect(Math.max(...rig.left.map(Math.abs))).toBeGreaterThan(0.01);
});
