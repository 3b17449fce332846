import { SOUND_NUMBERS, NUMBER_SETTINGS, MADE_SOUNDS, type Sound } from '../document/sound';
import { renderCommands } from '../engine/offline';
import { at } from '../protocol/commands';
import { prepareSample } from '../sample/levels';
import { patchOf } from '../sound/patch';
import { ownDecay, ownValue } from './ownValues';
import { checkShelved, readShelved } from './shelvedSchema';
import { tagsOf } from './shelved';
import { SHIPPED_KITS } from './shippedKits';
import { asRecording } from './strokeSound';
import { soundPeaks } from './soundPeaks';

const SR = 48000;

test('what a sound has of its own is within the bounds that its strips have', () => {
  for (const made of MADE_SOUNDS) {
    for (const setting of NUMBER_SETTINGS) {
      const { min, max } = SOUND_NUMBERS[setting];
      const own = ownValue({ made }, setting);
      expect([made, setting, own >= min && own <= max]).toEqual([made, setting, true]);
    }
    expect(ownDecay({ made })).toBeGreaterThan(0.01);
  }
  expect(ownValue({ made: 'openHat' }, 'pan')).toBe(0.2);
  expect(tagsOf(SHIPPED_KITS)[0]).toBe('acoustic');
});

test('set to its own value, a sound is the same: room, pan, drive and polyphony, too', () => {
  for (const made of MADE_SOUNDS) {
    const own = Object.fromEntries(NUMBER_SETTINGS.map((setting) => [setting, ownValue({ made }, setting)]));
    const [plain, set] = [patchOf({ source: { made }, settings: {} }), patchOf({ source: { made }, settings: own })];
    for (const key of Object.keys(plain) as (keyof typeof plain)[]) {
      if (typeof plain[key] === 'number')
        expect([made, key, set[key]]).toEqual([made, key, expect.closeTo(plain[key], 6)]);
    }
  }
});

test('an entry that is none is refused with where and what', () => {
  const good = { id: 'x', name: 'Mine', tags: ['dry'], sound: SHIPPED_KITS[0]!.kit!.pads[0]!.sound };
  expect(readShelved(good)).toEqual(good);
  expect(checkShelved({ ...good, sound: undefined })).toEqual({ problem: expect.stringMatching(/neither a kit nor a sound/) }); // prettier-ignore
  expect(checkShelved({ ...good, tags: 'dry' })).toEqual({ problem: expect.stringMatching(/tags/) });
  const bent = { ...good.sound, settings: { pitch: 1000 } };
  expect(checkShelved({ ...good, sound: bent })).toEqual({ problem: expect.stringMatching(/the kit, sound, settings, pitch/) }); // prettier-ignore
  for (const plain of [null, 7, [], 'kit', {}]) expect(readShelved(plain)).toBeNull();
});

test('the picture of a sound is as long as it is heard, and loudest where it is struck', () => {
  const short = soundPeaks(patchOf(SHIPPED_KITS[0]!.kit!.pads[4]!.sound), 40);
  const long = soundPeaks(patchOf(SHIPPED_KITS[0]!.kit!.pads[10]!.sound), 40);
  expect(long.seconds).toBeGreaterThan(4 * short.seconds);
  expect(short.peaks).toHaveLength(40);
  expect(Math.max(...short.peaks.slice(0, 8))).toBeGreaterThan(5 * Math.max(...short.peaks.slice(30)));
});

test('a made sound turned into a recording of itself sounds as it did, with its settings kept that the stroke decides', () => {
  const { sound } = SHIPPED_KITS[2]!.kit!.pads[2]!;
  const still = { ...sound, settings: { ...sound.settings, variation: 0 } };
  const { audio, settings } = asRecording(still);
  expect(settings).toEqual({ pan: expect.any(Number), room: 0.34, voices: expect.any(Number), variation: 0 });
  const sample = prepareSample({ id: 'e'.repeat(32), ...audio });
  // On the first pad: each has noise of its own.
  const struck = (of: Sound) => {
    const kit = { ...SHIPPED_KITS[2]!.kit!, pads: SHIPPED_KITS[2]!.kit!.pads.map((pad, i) => (i === 0 ? { ...pad, sound: of } : pad)) }; // prettier-ignore
    return renderCommands([at(0, { type: 'sample', sample }), at(0, { type: 'kit', track: 0, kit }), at(0, { type: 'padDown', track: 0, pad: 0, velocity: 1, heard: 0, id: 1 })], SR, SR / 2).left; // prettier-ignore
  };
  const [made, played] = [struck(still), struck({ ...still, source: { sample: sample.id, frames: sample.frames }, settings })]; // prettier-ignore
  const power = (x: Float32Array) => x.reduce((sum, v) => sum + v * v, 0);
  expect(power(made)).toBeGreaterThan(10);
  expect(10 * Math.log10(power(made.map((v, i) => v - played[i]!)) / power(made))).toBeLessThan(-60);
});
