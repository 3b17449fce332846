import { setFlagsFromString } from 'node:v8';
import { LFO_TARGETS, FIRST_LFO } from '../document/lfo';
import type { SoundSettings } from '../document/sound';
import { presetsOf, TONE_VOICES } from '../document/toneVoices';
import { patchOf, tonePatch } from './patch';
import { RECIPES } from './recipes';

// Whether V8 holds two objects by the same hidden class: then code that was compiled for the one is kept for the other.
setFlagsFromString('--allow-natives-syntax');
const haveSameShape = new Function('a', 'b', 'return %HaveSameMap(a, b)') as (a: object, b: object) => boolean;

const SETTINGS: readonly SoundSettings[] = [
  {},
  { bright: 0.3, glide: 1, attack: 0.5, width: 1, cutoff: 900, drive: 3, pan: 1, lfos: [FIRST_LFO, { ...FIRST_LFO, moves: LFO_TARGETS[1]! }] },
]; // prettier-ignore

test('all that voices read of a sound is of one shape, whatever the sound: none has the audio thread compile its code anew', () => {
  expect(haveSameShape({ a: 1 }, { a: 2 })).toBe(true);
  expect(haveSameShape({ a: 1 }, { b: 1 })).toBe(false);
  const drums = Object.keys(RECIPES) as (keyof typeof RECIPES)[];
  const patches = SETTINGS.flatMap((settings) => [
    ...drums.map((made) => patchOf({ source: { made }, settings })),
    ...TONE_VOICES.flatMap((voice) => presetsOf(voice).map((preset) => tonePatch({ voice, preset }, settings))),
    patchOf({ source: { sample: '0'.repeat(32), frames: 100 }, settings }),
  ]);
  const tones = patches.flatMap(({ tone }) => tone ?? []);
  const bodies = patches.flatMap(({ body }) => body ?? []);
  const oscillators = tones.flatMap((tone) => tone.oscillators);
  const parts: Record<string, object[]> = {
    patches,
    bodies,
    modes: bodies.flatMap(({ modes }) => modes),
    layers: patches.flatMap(({ layers }) => layers),
    bursts: patches.flatMap(({ layers }) => layers.flatMap(({ bursts }) => bursts ?? [])),
    waves: patches.flatMap(({ lfos }) => lfos),
    tones,
    turns: patches.flatMap(({ turns }) => turns ?? []),
    filters: tones.flatMap(({ filter }) => filter ?? []),
    motions: tones.flatMap(({ moved }) => moved ?? []),
    oscillators,
    modulators: oscillators.flatMap(({ modulator }) => modulator ?? []),
  };
  for (const [name, all] of Object.entries(parts)) {
    expect(all.length).toBeGreaterThan(5);
    expect({ name, others: all.filter((part) => !haveSameShape(part, all[0]!)).length }).toEqual({ name, others: 0 });
  }
});
