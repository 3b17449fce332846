import { POLISHED_FLOOR } from '../document/kits';
import { LIMITER_LATENCY } from '../sound/limiter';
import { noteHz } from '../document/tones';
import type { ToneVoice } from '../document/toneVoices';
import { BAR, BEAT, SR, PLAY, hits, pattern, Rig } from './rig.testing';

const [BASS, KEYS] = ['bass', 'keys'] as const;

/** A rig whose first track plays notes: pad 0 is this MIDI note, each further pad a semitone more. */
function rig(voice: ToneVoice, note: number, octave = 0): Rig {
  return new Rig().tell(
    { type: 'tempo', bpm: 120 },
    { type: 'notes', track: 0, layout: { voice, notes: new Float64Array(16).map((_, i) => note + i), octave } },
  );
}

/** What is heard up to a frame. */
function listen(r: Rig, until: number): Float32Array {
  const from = r.engine.frame;
  const heard = new Float32Array(until - from);
  for (let at = from; at < until; at = r.engine.frame) {
    r.runTo(Math.min(until, at + 128));
    heard.set(r.left.subarray(0, r.engine.frame - at), at - from);
  }
  return heard;
}

/** Strength of one frequency (Goertzel's sum). */
function strength(x: Float32Array, hz: number): number {
  let [re, im] = [0, 0];
  for (let i = 0; i < x.length; i++) {
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / x.length);
    re += window * x[i]! * Math.cos((2 * Math.PI * hz * i) / SR);
    im += window * x[i]! * Math.sin((2 * Math.PI * hz * i) / SR);
  }
  return Math.hypot(re, im) / x.length;
}

const level = (x: Float32Array) => Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length);

test.each([
  ['bass', BASS, 45],
  ['keys', KEYS, 69],
])('the %s sounds at the pitch of its note, for as long as the key is down', (_, voice, note) => {
  const r = rig(voice, note).strike(1000, 0, 1);
  const heard = listen(r, SR);
  const hz = noteHz(note);
  const held = heard.subarray(SR / 4, SR / 2);
  for (const off of [0.8, 0.9, 1.12, 1.3]) expect(strength(held, hz * off)).toBeLessThan(strength(held, hz) / 3);
  r.tell({ type: 'padUp', track: 0, pad: 0, heard: SR + LIMITER_LATENCY });
  const after = listen(r, SR * 3);
  expect(level(after.subarray(SR))).toBeLessThan(level(held) / 500);
});

test('a note of a pattern lasts as long as it was held, through a tempo change, and ends with its pattern', () => {
  const r = rig(BASS, 45).tell(pattern({ hits: hits([0, 0, 1, { length: 960 }]) }), pattern({ slot: 1 }), PLAY);
  const first = listen(r, BEAT * 2);
  expect(level(first.subarray(BEAT * 0.7, BEAT * 0.95))).toBeGreaterThan(0.02);
  expect(level(first.subarray(BEAT * 1.5))).toBeLessThan(0.001);
  // The second time round at half the tempo: it lasts twice as long.
  r.runTo(BEAT * 4).tell({ type: 'tempo', bpm: 60 });
  const second = listen(r, BEAT * 7);
  expect(level(second.subarray(BEAT * 1.6, BEAT * 1.9))).toBeGreaterThan(0.02);
  expect(level(second.subarray(BEAT * 2.5))).toBeLessThan(0.001);
  r.tell({ type: 'tempo', bpm: 120 }, pattern({ hits: hits([0, 0, 1, { length: BAR }]) })).runTo(BEAT * 11);
  const ringing = listen(r, BEAT * 11.2);
  r.tell({ type: 'launch', track: 0, slot: 1, on: 0, inPlace: false });
  const cut = listen(r, BEAT * 13);
  expect(level(ringing)).toBeGreaterThan(0.02);
  expect(level(cut.subarray(BEAT))).toBeLessThan(0.001);
});

test('a note that is recorded is heard next time for as long as it was held, in the octave of the hand', () => {
  const r = rig(KEYS, 57, 1).tell(pattern(), { type: 'inputQuantize', grid: 240, on: true }, { type: 'record', on: true, session: 1 }, PLAY); // prettier-ignore
  r.strike(BEAT, 0, 1).runTo(BEAT * 2).tell({ type: 'padUp', track: 0, pad: 0, heard: BEAT * 2 + LIMITER_LATENCY }, { type: 'notes', track: 0, layout: { voice: KEYS, notes: new Float64Array(16).fill(57), octave: 0 } }); // prettier-ignore
  r.runTo(BEAT * 4);
  const next = listen(r, BEAT * 8);
  expect(r.of('released')).toMatchObject([{ id: 1, slot: 0, length: 960 }]);
  const held = next.subarray(BEAT * 1.3, BEAT * 1.9);
  expect(strength(held, noteHz(69))).toBeGreaterThan(20 * strength(held, noteHz(57)));
  expect(level(next.subarray(BEAT * 3))).toBeLessThan(level(held) / 50);
});

test('stopped, nothing hangs', () => {
  const r = rig(BASS, 45).tell(pattern({ hits: hits([0, 0, 1, { length: BAR }]) }), PLAY);
  r.runTo(BEAT).tell({ type: 'stop' });
  expect(level(listen(r, BEAT * 3).subarray(BEAT))).toBeLessThan(0.001);
});

const letGo = (r: Rig, frame: number, pad: number) => r.runTo(frame).tell({ type: 'padUp', track: 0, pad, heard: NaN });
/** Which of two notes is heard. */
const heardOf = (r: Rig, until: number, low: number, high: number) => {
  const sound = listen(r, until).subarray(BEAT / 4);
  const [a, b] = [strength(sound, noteHz(low)), strength(sound, noteHz(high))];
  return a > 8 * b ? low : b > 8 * a ? high : NaN;
};

test('a bass plays one note at a time: a second key goes on from the first, which comes back when it is let go', () => {
  const r = rig(BASS, 45).strike(100, 0, 1);
  expect(heardOf(r, BEAT, 45, 51)).toBe(45);
  r.strike(BEAT, 6, 2);
  expect(heardOf(r, BEAT * 2, 45, 51)).toBe(51);
  expect(r.engine.ringing).toBe(1);
  letGo(r, BEAT * 2, 6);
  expect(heardOf(r, BEAT * 3, 45, 51)).toBe(45);
  letGo(r, BEAT * 3, 0);
  expect(level(listen(r, BEAT * 5).subarray(BEAT))).toBeLessThan(0.001);
});

test('the first key let go while the second is down changes nothing, and does not come back', () => {
  const r = rig(BASS, 45)
    .strike(100, 0, 1)
    .strike(BEAT / 2, 6, 2);
  letGo(r, BEAT, 0);
  expect(heardOf(r, BEAT * 2, 45, 51)).toBe(51);
  letGo(r, BEAT * 2, 6);
  expect(level(listen(r, BEAT * 4).subarray(BEAT))).toBeLessThan(0.001);
});

test('what a pattern holds beneath a key comes back only while it lasts', () => {
  const r = rig(BASS, 45)
    .tell(pattern({ hits: hits([0, 0, 1, { length: 1920 }]) }), PLAY)
    .strike(BEAT / 2, 6, 2);
  letGo(r, BEAT, 6);
  expect(heardOf(r, BEAT * 1.9, 45, 51)).toBe(45);
  r.strike(BEAT * 1.95, 6, 3);
  letGo(r, BEAT * 2.5, 6);
  expect(level(listen(r, BEAT * 3.9).subarray(BEAT * 0.8))).toBeLessThan(0.001);
});

test('a slur has no click, keeps the phase, and glides in the time that the voice says', () => {
  const notes = new Float64Array(16).map((_, i) => 45 + i);
  const layout = { voice: BASS, notes, octave: 0, settings: { glide: 1 } };
  const r = rig(BASS, 45).tell({ type: 'notes', track: 0, layout }).strike(100, 0, 1);
  const before = listen(r, BEAT);
  r.strike(BEAT, 12, 2);
  const sliding = listen(r, BEAT + 0.55 * SR);
  const steepest = (x: Float32Array) =>
    x.reduce((most, v, i) => (i > 0 ? Math.max(most, Math.abs(v - x[i - 1]!)) : 0), 0);
  // An octave up, each wave is twice as steep.
  expect(steepest(sliding)).toBeLessThan(2 * steepest(before.subarray(BEAT / 2)) * 1.5);
  // Half of the way after half of the time: six semitones.
  const halfway = sliding.subarray(0.45 * SR);
  expect(strength(halfway, noteHz(51))).toBeGreaterThan(3 * strength(halfway, noteHz(45)));
  expect(strength(halfway, noteHz(51))).toBeGreaterThan(3 * strength(halfway, noteHz(57)));
  expect(heardOf(r, BEAT * 4, 45.5, 57)).toBe(57);
});

test('a player can have a bass play several notes, and keys one', () => {
  const held = (voice: ToneVoice, mono: boolean) => {
    const layout = { voice, notes: new Float64Array(16).map((_, i) => 45 + i), octave: 0, settings: { mono } };
    const r = rig(voice, 45)
      .tell({ type: 'notes', track: 0, layout })
      .strike(100, 0, 1)
      .strike(BEAT / 2, 6, 2);
    return heardOf(r, BEAT * 1.5, 45, 51);
  };
  expect([held(BASS, false), held(KEYS, true)]).toEqual([NaN, 51]);
});

test.each([
  ['keys', 'lamp'],
  ['pad', 'mist'],
  ['organ', 'rink'],
  ['mallet', 'chime'],
  ['lead', 'beam'],
] as const)('notes of %s and a fade are the same at any block size', (voice, preset) => {
  const render = (block: number) => {
    const r = new Rig(block).tell(
      { type: 'tempo', bpm: 120 },
      { type: 'notes', track: 0, layout: { voice: BASS, notes: new Float64Array(16).fill(33), octave: 0 } },
      { type: 'notes', track: 1, layout: { voice, preset, notes: new Float64Array(16).fill(64), octave: 0 } },
      pattern({ length: BAR / 4, hits: hits([0, 0, 1, { length: 333 }]) }),
      pattern({ track: 1, length: BAR / 2, hits: hits([17, 3, 2, { length: 500 }]) }),
      { type: 'launch', track: 1, slot: 0, on: 0, inPlace: false },
      PLAY,
      { type: 'fade', ticks: BAR / 2, on: 960 },
    );
    const heard = new Float32Array(SR * 3);
    for (let at = 0; at < heard.length; at = r.engine.frame) {
      r.engine.process(r.left, r.right, Math.min(block, heard.length - at));
      heard.set(r.left.subarray(0, r.engine.frame - at), at);
    }
    return heard;
  };
  const reference = render(128);
  expect(level(reference)).toBeGreaterThan(0.01);
  for (const block of [1, 997]) expect(Buffer.compare(Buffer.from(render(block).buffer), Buffer.from(reference.buffer))).toBe(0); // prettier-ignore
});

test('a channel that is given to another track knows nothing of the one that was there', () => {
  const r = rig(BASS, 45)
    .tell(pattern({ hits: hits([0, 0, 1, { length: BAR }]) }), PLAY)
    .runTo(BEAT);
  r.tell({ type: 'removeTrack', track: 0 });
  expect(level(listen(r, BEAT * 2).subarray(BEAT / 2))).toBeLessThan(0.001);
  r.tell(
    { type: 'kit', track: 0, kit: POLISHED_FLOOR },
    { type: 'launch', track: 0, slot: 0, on: 0, inPlace: false },
  ).strike(BEAT * 2.5, 4, 1);
  const hat = listen(r, BEAT * 3);
  // A hat's strength lies high, a bass note's low.
  expect(strength(hat, 9000)).toBeGreaterThan(strength(hat, noteHz(49)));
});
