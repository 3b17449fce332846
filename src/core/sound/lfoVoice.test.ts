import { LFO_NOTES, LFO_SHAPES, lfoTicks, type LfoShape } from '../document/lfo';
import { framesPerTick } from '../time/ticks';
import { anchorLike, tickAt, type Anchor } from '../time/timeline';
import { lfoWave, LfoVoice, type SongClock } from './lfoVoice';
import type { LfoPatch } from './patch';

const SR = 48000;
const EDGE = 0.01;
const eighth = (more: Partial<LfoPatch> = {}): LfoPatch => ({ moves: 'pitch', shape: 'sawUp', ticks: 480, hz: 0, low: 0, high: 1, ofSong: true, ...more }); // prettier-ignore

/** A song that plays at a tempo from tick 0 at frame 0, and can be told another one. */
class Song implements SongClock {
  now: Anchor;
  startFrame = 0;

  constructor(bpm: number, playing = true) {
    this.now = { frame: 0, tick: 0, framesPerTick: framesPerTick(bpm, SR), playing, recording: false };
  }

  get repeatClock(): Anchor {
    return anchorLike(this.now, { playing: true });
  }

  tempo(bpm: number, frame: number): void {
    this.now = anchorLike(this.now, { frame, tick: tickAt(this.now, frame), framesPerTick: framesPerTick(bpm, SR) });
  }
}

test('the note values of a cycle, in ticks of 960 to the quarter (computed)', () => {
  const ticks = Object.fromEntries(LFO_NOTES.map((note) => [note, lfoTicks(note)]));
  expect(ticks).toMatchObject({ '1/1': 3840, '1/2': 1920, '1/4': 960, '1/8': 480, '1/16': 240, '1/32': 120 });
  expect(ticks).toMatchObject({ '1/4D': 1440, '1/8D': 720, '1/4T': 640, '1/8T': 320, '1/16T': 160, '1/32T': 80 });
  const lengths = LFO_NOTES.map(lfoTicks);
  expect(lengths).toEqual([...lengths].sort((a, b) => b - a));
});

test.each([
  // Hz = BPM / 60 x quarters^-1 (computed).
  [120, '1/4', 2],
  [120, '1/8', 4],
  [120, '1/16', 8],
  [120, '1/8T', 6],
  [112, '1/8', 3.7333],
] as const)('at %d BPM a wave of %s goes %d times a second', (bpm, note, hz) => {
  const lfo = new LfoVoice(SR);
  const song = new Song(bpm);
  lfo.start(eighth({ ticks: lfoTicks(note), shape: 'sine' }), 0, 1);
  let turns = 0;
  let last = lfo.valueAt(0, song);
  for (let frame = 8; frame <= 30 * SR; frame += 8) {
    const value = lfo.valueAt(frame, song);
    if (last < 0.5 && value >= 0.5) turns++;
    last = value;
  }
  expect(Math.abs(turns / 30 - hz)).toBeLessThan(0.04);
});

test('waves lie between 0 and 1, reach both ends, and have no step: jumps take their time', () => {
  for (const shape of LFO_SHAPES) {
    const values = Array.from({ length: 40001 }, (_, i) => lfoWave(shape, i / 10000, EDGE, 7));
    expect([shape, Math.min(...values) >= 0, Math.max(...values) <= 1]).toEqual([shape, true, true]);
    if (shape !== 'random')
      expect([shape, Math.min(...values) < 0.02, Math.max(...values) > 0.98]).toEqual([shape, true, true]);
    // The steepest part of a jump over a hundredth of the cycle: 1.5 times its mean slope.
    const steepest = Math.max(...values.map((v, i) => (i === 0 ? 0 : Math.abs(v - values[i - 1]!))));
    expect([shape, steepest <= 1.5 / (EDGE * 10000) + 1e-3]).toEqual([shape, true]);
  }
});

test('each shape is what its name says (textbook)', () => {
  const at = (shape: LfoShape, ...turns: number[]) => turns.map((t) => Math.round(100 * lfoWave(shape, t, 0, 7)) / 100);
  expect(at('sine', 0, 0.25, 0.5, 0.75)).toEqual([0.5, 1, 0.5, 0]);
  expect(at('triangle', 0, 0.125, 0.25, 0.5, 0.75)).toEqual([0.5, 0.75, 1, 0.5, 0]);
  expect(at('sawUp', 0, 0.5, 0.99)).toEqual([0, 0.5, 0.99]);
  expect(at('sawDown', 0, 0.5, 0.99)).toEqual([1, 0.5, 0.01]);
  expect(at('square', 0, 0.49, 0.5, 0.99)).toEqual([1, 1, 0, 0]);
  const steps = Array.from({ length: 200 }, (_, i) => lfoWave('random', i + 0.5, 0, 7));
  expect(new Set(steps).size).toBeGreaterThan(190);
  expect(lfoWave('random', 3.1, 0, 7)).toBe(lfoWave('random', 3.9, 0, 7));
});

test('locked to the song, its phase at every bar line is the song’s within a sample, through changes of tempo', () => {
  for (const bpm of [112, 174]) {
    const song = new Song(bpm);
    const lfo = new LfoVoice(SR);
    // A stroke in the middle of nowhere: the wave does not begin with it.
    lfo.start(eighth(), 12345, 1);
    let frame = 12345;
    for (let bar = 2; bar < 40; bar++) {
      const line = song.now.frame + (bar * 3840 - song.now.tick) * song.now.framesPerTick;
      // A saw that goes up is at its end just before the line and has risen by one sample's worth after it.
      const perSample = 1 / (480 * song.now.framesPerTick);
      const before = lfo.valueAt(Math.ceil(line) - 1, song);
      expect(Math.abs(1 - before - (line - (Math.ceil(line) - 1)) * perSample)).toBeLessThan(perSample);
      frame = Math.ceil(line) + 1000 * (bar % 7);
      if (bar % 5 === 0) song.tempo(bpm + bar, frame);
    }
  }
});

test('begun by the stroke, each stroke has the same course, and goes on through a change of tempo', () => {
  const course = (start: number, song: Song) => {
    const lfo = new LfoVoice(SR);
    lfo.start(eighth({ ofSong: false, shape: 'triangle' }), start, 1);
    return Array.from({ length: 500 }, (_, i) => lfo.valueAt(start + 16 * i, song));
  };
  const [a, b] = [course(0, new Song(120)), course(98765, new Song(120))];
  a.forEach((value, i) => expect(value).toBeCloseTo(b[i]!, 9));
  const song = new Song(120);
  const lfo = new LfoVoice(SR);
  lfo.start(eighth({ ofSong: false }), 0, 1);
  const values = Array.from({ length: 600 }, (_, i) => {
    if (i === 300) song.tempo(60, 16 * i);
    return lfo.valueAt(16 * i, song);
  });
  // Half as fast from there on, and no step (the saw itself falls back once a cycle of 12000, later 24000, frames).
  expect(values[299]! - values[298]!).toBeCloseTo(16 / 12000, 6);
  expect(values[302]! - values[301]!).toBeCloseTo(16 / 24000, 6);
  expect(Math.abs(values[301]! - values[299]!)).toBeLessThan(3 * (16 / 12000));
});

test('while the song stands still a wave of the song begins with the stroke; in Hz it goes on its own', () => {
  const song = new Song(120, false);
  const lfo = new LfoVoice(SR);
  lfo.start(eighth(), 5000, 1);
  expect(lfo.valueAt(5000 + 6000, song)).toBeCloseTo(0.5, 6);
  lfo.start(eighth({ ticks: 0, hz: 2, ofSong: false }), 5000, 1);
  expect(lfo.valueAt(5000 + SR / 8, song)).toBeCloseTo(0.25, 6);
});
