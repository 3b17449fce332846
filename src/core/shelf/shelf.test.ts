import { SOUND_NUMBERS, NUMBER_SETTINGS, MADE_SOUNDS, type Sound } from '../document/sound';
import { kitProblem } from '../document/kitSchema';
import { renderCommands } from '../engine/offline';
import { LoudnessMeter } from '../measure/loudness';
import { at } from '../protocol/commands';
import { prepareSample } from '../sample/levels';
import { patchOf } from '../sound/patch';
import { ownDecay, ownValue } from './ownValues';
import { checkShelved, readShelved } from './shelvedSchema';
import { soundsOf, tagsOf } from './shelved';
import { SHIPPED_KITS } from './shippedKits';
import { asRecording } from './strokeSound';
import { soundPeaks } from './soundPeaks';

const SR = 48000;

test('each kit that ships can be opened again, has tags to be found by, and a name of its own', () => {
  expect(SHIPPED_KITS.length).toBeGreaterThanOrEqual(4);
  expect(new Set(SHIPPED_KITS.map(({ name }) => name)).size).toBe(SHIPPED_KITS.length);
  for (const entry of SHIPPED_KITS) {
    expect(checkShelved(JSON.parse(JSON.stringify(entry)))).toEqual({ value: entry });
    expect(kitProblem(entry.kit!, 'kit')).toBeNull();
    expect(entry.tags.length).toBeGreaterThan(2);
    expect(soundsOf(entry)).toHaveLength(16);
  }
  expect(tagsOf(SHIPPED_KITS)[0]).toBe('bright');
});

test('the kits differ: none of their sounds is that of another kit, but for Polished Floor’s own', () => {
  const stroke = (kit: number, pad: number) =>
    renderCommands([at(0, { type: 'kit', track: 0, kit: SHIPPED_KITS[kit]!.kit! }), at(0, { type: 'padDown', track: 0, pad, velocity: 0.9, heard: 0, id: 1 })], SR, SR / 4).left; // prettier-ignore
  for (const pad of [0, 2, 4]) {
    const sounds = SHIPPED_KITS.map((_, kit) => stroke(kit, pad));
    for (let a = 0; a < sounds.length; a++) {
      for (let b = 0; b < a; b++) {
        const [own, apart] = sounds[a]!.reduce(([o, d], v, i) => [o! + v * v, d! + (v - sounds[b]![i]!) ** 2], [0, 0]);
        // More than 10 dB below the sound itself, a difference would be hard to hear.
        expect(10 * Math.log10(apart! / own!)).toBeGreaterThan(-10);
      }
    }
  }
});

test('a beat of kick, snare and hats is about as loud in each of the kits', () => {
  const loudness = SHIPPED_KITS.map(({ kit }) => {
    const strokes = Array.from({ length: 16 }, (_, i) => at(i * 6000, { type: 'padDown', track: 0, pad: i % 8 === 0 ? 0 : i % 8 === 4 ? 2 : 4, velocity: 0.8, heard: i * 6000, id: 2 * i + 1 } as const)); // prettier-ignore
    const sound = renderCommands([at(0, { type: 'kit', track: 0, kit: kit! }), ...strokes], SR, 2 * SR);
    const meter = new LoudnessMeter(SR);
    meter.add(sound.left, sound.right);
    return meter.result.integrated!;
  });
  expect(Math.max(...loudness) - Math.min(...loudness)).toBeLessThan(9);
});

test('what a sound has of its own is within the bounds that its strips have', () => {
  for (const made of MADE_SOUNDS) {
    for (const setting of NUMBER_SETTINGS) {
      const { min, max } = SOUND_NUMBERS[setting];
      const own = ownValue({ made }, setting);
      expect([made, setting, own >= min && own <= max]).toEqual([made, setting, true]);
    }
    expect(ownDecay({ made })).toBeGreaterThan(0.01);
  }
  expect(ownValue({ made: 'openHat' }, 'pan')).toBe(0.24);
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
  expect(settings).toEqual({ pan: expect.any(Number), room: 0.32, voices: expect.any(Number), variation: 0 });
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
