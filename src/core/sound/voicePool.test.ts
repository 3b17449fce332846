import fc from 'fast-check';
import { MAX_TRACKS } from '../document/limits';
import type { DrumVoice } from './drumVoice';
import { patchOf, tonePatch, type Patch } from './patch';
import { PLAIN } from './shape';
import { VoiceBus } from './voiceBus';
import { MAX_VOICES, VoicePool } from './voicePool';

const RATE = 48000;
const now = { frame: 0, tick: 0, framesPerTick: 25, playing: false, recording: false };
const bus = new VoiceBus();
const CLOCK = { now, startFrame: 0, repeatClock: { ...now, playing: true } };

const made = (made: 'kick' | 'crash' | 'openHat', voices: number): Patch => patchOf({ source: { made }, settings: { voices } }); // prettier-ignore
const PATCHES = [made('kick', 1), made('crash', 1), made('crash', 2), made('crash', 3), made('openHat', 2), patchOf({ source: { made: 'crash' }, settings: { plays: 'held', voices: 3 } }), tonePatch({ voice: 'keys' })]; // prettier-ignore

interface Struck {
  /** What happens at its frame before it: all keys are let go, or its track is silenced. */
  before: 'nothing' | 'letGo' | 'silence';
  patch: Patch;
  track: number;
  pad: number;
  cutGroup: number;
}

const struck: fc.Arbitrary<Struck> = fc.record({
  patch: fc.constantFrom(...PATCHES),
  track: fc.oneof(fc.nat(1), fc.nat(MAX_TRACKS - 1)),
  pad: fc.oneof(fc.nat(2), fc.nat(15)),
  cutGroup: fc.constantFrom(0, 0, 0, 1),
  before: fc.nat(39).map((of40) => (of40 === 0 ? 'letGo' : of40 === 1 ? 'silence' : 'nothing')),
});
/** Strokes that fall on one frame, so many frames after those before them, which are rendered: few on few pads, or more than there are voices. */
const chord = fc.record({
  later: fc.constantFrom(1, 100, 4000),
  strokes: fc.oneof(
    fc.array(struck, { minLength: 1, maxLength: 9 }),
    fc.array(struck, { minLength: 40, maxLength: 160, size: 'max' }),
  ),
});

/**
 * What the rules say, asked of every voice: the voices that a stroke has fade or end, and the place where it begins. A pad has so many rings,
 * a group of pads of a track only its last stroke, and all together MAX_VOICES; the oldest gives way.
 */
function ruled(voices: readonly DrumVoice[], { patch, track, pad, cutGroup }: Struck, frame: number) {
  const sounding = voices.flatMap((voice, place) => (voice.active && !voice.fading ? [{ voice, place }] : []));
  const isCut = (voice: Pick<DrumVoice, 'cutGroup' | 'track'>) =>
    cutGroup !== 0 && voice.cutGroup === cutGroup && voice.track === track;
  const left = sounding.filter(({ voice }) => !isCut(voice));
  const oldest = (of: typeof left) => [...of].sort((a, b) => a.voice.startFrame - b.voice.startFrame || a.place - b.place)[0]!.place; // prettier-ignore
  const ofPad = left.filter(({ voice }) => voice.track === track && voice.pad === pad);
  const fades = sounding.flatMap(({ voice, place }) => (isCut(voice) ? [place] : []));
  if (ofPad.length > 0 && ofPad.length >= patch.rings) fades.push(oldest(ofPad));
  else if (left.length >= MAX_VOICES) fades.push(oldest(left));
  const free = voices.findIndex(({ active }) => !active);
  // A note that another one of this very frame cuts off is over at once.
  const isEnded = (voice: DrumVoice) => patch.tone !== null && voice.startFrame === frame && isCut(voice);
  const isOver = (place: number) => voices[place]!.fading || (fades.includes(place) && !isEnded(voices[place]!));
  const begun = [...voices.keys()].filter((place) => voices[place]!.startFrame === frame && isOver(place));
  return { fades, begins: free >= 0 ? free : (begun.pop() ?? 0) };
}

test('whatever is struck, voices give way as the rules have it, also where many strokes fall on one frame', () => {
  const sounding = (pool: VoicePool) => pool.voices.map(({ active, fading }) => active && !fading);
  fc.assert(
    fc.property(fc.array(chord, { minLength: 1, maxLength: 12 }), (chords) => {
      const pool = new VoicePool(RATE, CLOCK);
      let frame = 0;
      for (const { later, strokes } of chords) {
        frame += later;
        for (let left = later; left > 0; left -= 100)
          for (const voice of pool.voices) if (voice.active) voice.render(bus, Math.min(100, left), CLOCK);
        for (const stroke of strokes) {
          if (stroke.before === 'silence') pool.silence(stroke.track);
          if (stroke.before === 'letGo') {
            for (let t = 0; t < MAX_TRACKS; t++) pool.letGo(t, -1, (voice) => pool.release(voice));
          }
          const { fades, begins } = ruled(pool.voices, stroke, frame);
          const before = sounding(pool);
          const { track, pad, patch, cutGroup } = stroke;
          const shape = { ...PLAIN, note: patch.tone ? 40 + pad : NaN };
          const begun = pool.trigger(patch, { track, pad, velocity: 0.5 }, cutGroup, frame, shape);
          expect(pool.voices.indexOf(begun)).toBe(begins);
          const held = (voice: DrumVoice) => voice.active && voice.held && !voice.fading && voice.track === track && !Number.isNaN(voice.note); // prettier-ignore
          expect(pool.heldNote(track, frame) === (pool.voices.find(held) ?? null)).toBe(true);
          // All others go on as they were.
          const expected = before.map((sounds, place) => place === begins || (sounds && !fades.includes(place)));
          expect(sounding(pool).findIndex((sounds, place) => sounds !== expected[place])).toBe(-1);
        }
      }
    }),
    // To find a smaller failure would take minutes.
    { numRuns: 25, endOnFailure: true },
  );
});
