import * as Note from '@tonaljs/note';
import * as Scale from '@tonaljs/scale';
import fc from 'fast-check';
import { madeKit } from './kits';
import { chosenBy, inLane, laneKey, laneKeys, laneName, stepLanes } from './stepLanes';
import { noteIn, SCALES, type Tones } from './tones';

const kit = madeKit('Curb');
const MINOR: Tones = { voice: 'keys', root: 9, scale: 'minor', chromatic: false, octave: 0 };
const anyTones = fc.record({ voice: fc.constantFrom('bass' as const, 'keys' as const), root: fc.nat(11), scale: fc.constantFrom(...SCALES), chromatic: fc.boolean(), octave: fc.constant(0) }); // prettier-ignore
const anyHits = fc.array(fc.record({ pad: fc.nat(15), pitch: fc.double({ min: -30, max: 30, noNaN: true }) }), { maxLength: 12 }); // prettier-ignore

test('the lanes of a kit are its pads from the highest down, whatever pitch is struck on them', () => {
  const lanes = stepLanes({ kit }, [{ pad: 3, pitch: 7 }], true);
  expect(lanes.map(({ key }) => key)).toEqual(Array.from({ length: 16 }, (_, i) => 15 - i));
  expect(lanes.at(-1)!.name).toBe(kit.pads[0]!.sound.name);
  expect([{ pad: 3, pitch: 7 }, { pad: 3 }, { pad: 4 }].map(inLane({ kit }, 3))).toEqual([true, true, false]);
});

test('the lanes of notes are those of the scale (tonal), its root marked; a note between them has one if it is played, or if all are asked for', () => {
  const track = { kit, tones: MINOR };
  const names = (hits: Parameters<typeof stepLanes>[1], all = false) =>
    stepLanes(track, hits, all).map(({ name }) => name);
  const scale = Scale.get('A minor').notes;
  expect(names([])).toEqual(Array.from({ length: 16 }, (_, i) => `${scale[i % 7]}${3 + Math.floor((i + 5) / 7)}`).reverse()); // prettier-ignore
  expect(stepLanes(track, [], false).filter(({ degree }) => degree === 'root').map(({ name }) => name)).toEqual(['A5', 'A4', 'A3']); // prettier-ignore
  // D♯4 is a semitone above D4, which lies on the fourth pad.
  expect(names([{ pad: 3, pitch: 1 }]).filter((name) => name.includes('♯'))).toEqual(['D♯4']);
  // From A3 to B5 there are 27 semitones, both counted.
  expect(names([], true)).toEqual(Array.from({ length: 27 }, (_, i) => Note.fromMidiSharps(83 - i).replace('#', '♯')));
  // Wider where hits are.
  expect([names([{ pad: 15, pitch: 5 }])[0], names([{ pad: 0, pitch: -12 }]).at(-1)]).toEqual(['E6', 'A2']);
});

test('every hit lies in one lane, which has its name; what is entered in a lane lies in it, and a lane that is chosen is found again', () => {
  fc.assert(
    fc.property(anyTones, anyHits, fc.boolean(), (tones, hits, all) => {
      const track = { kit, tones };
      const lanes = stepLanes(track, hits, all);
      const keyOf = laneKeys(track);
      for (const hit of hits) {
        const found = lanes.filter(({ key }) => key === keyOf(hit));
        expect(found).toHaveLength(1);
        const note = Math.min(127, Math.max(0, noteIn(tones)(hit)));
        expect(Math.abs(note - found[0]!.key)).toBeLessThanOrEqual(0.5);
      }
      for (const lane of lanes) {
        expect(keyOf(lane.place)).toBe(lane.key);
        expect(laneKey(track, chosenBy(lane))).toBe(lane.key);
        expect([laneName(track, lane.key), Note.midi(lane.name.replace('♯', '#'))]).toEqual([lane.name, lane.key]);
      }
    }),
  );
});

test('a note that was chosen on another track, whose pads have other notes, is not meant: the pad is', () => {
  const major: Tones = { ...MINOR, root: 0, scale: 'major' };
  const lane = stepLanes({ kit, tones: MINOR }, [{ pad: 3, pitch: 1 }], false).find(({ name }) => name === 'D♯4')!;
  expect(laneKey({ kit, tones: MINOR }, chosenBy(lane))).toBe(63);
  expect(laneName({ kit, tones: major }, laneKey({ kit, tones: major }, chosenBy(lane)))).toBe('F3');
  expect(laneKey({ kit }, chosenBy(lane))).toBe(3);
});
