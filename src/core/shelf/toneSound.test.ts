import { noteHz, noteName } from '../document/tones';
import { presetName, presetOf, presetsOf, TONE_VOICES, type ToneSource } from '../document/toneVoices';
import type { SoundSettings } from '../document/sound';
import type { Stereo } from '../engine/offline';
import { centroidOf, energyBetween, spectrumOf } from '../measure/spectrum';
import { recipeOf, tonePatch } from '../sound/patch';
import type { Tone } from '../sound/tone';
import { dB, energyOf, loudnessOf, monoOf } from './kitSound.testing';
import { SHIPPED_TONES } from './shippedTones';
import { renderStroke } from './strokeSound';
import { noteOf, RATE } from './toneSound.testing';

const SOURCES: ToneSource[] = TONE_VOICES.flatMap((voice) => presetsOf(voice).map((preset) => ({ voice, preset })));
const EACH = SOURCES.map((source) => [presetName(presetOf(source)), source] as const);
/** Five octaves of each voice. */
const lowestOf = ({ voice }: ToneSource) => (voice === 'bass' || voice === 'deepBass' ? 24 : 36);
const OCTAVES = 5;

test('eight voices with six presets each, all named apart, tagged by their voice and two words or more', () => {
  expect(TONE_VOICES).toHaveLength(8);
  for (const voice of TONE_VOICES) expect(presetsOf(voice).length).toBeGreaterThanOrEqual(6);
  expect(new Set(SHIPPED_TONES.map(({ name }) => name)).size).toBe(SOURCES.length);
  for (const { tags } of SHIPPED_TONES) expect(tags.length).toBeGreaterThanOrEqual(3);
});

test.each(EACH)('%s: every note is as loud as the others within 2 dB, and as those of all presets', (_, source) => {
  const off: string[] = [];
  for (let note = lowestOf(source); note <= lowestOf(source) + 12 * OCTAVES; note += 11) {
    const { loudest } = loudnessOf(noteOf(source, note, { seconds: 1 }));
    if (Math.abs(loudest + 18) > 2) off.push(`${noteName(note)} is ${(loudest + 18).toFixed(1)} dB off`);
  }
  expect(off).toEqual([]);
});

/** A note without the room, which takes ten times as long to render. */
const dryNote = (
  source: ToneSource,
  note: number,
  settings: SoundSettings = {},
  more: { rate?: number; velocity?: number; held?: number; seconds?: number } = {},
) =>
  renderStroke(tonePatch(source, { ...settings, room: 0 }), { rate: RATE, note, seconds: 1, velocity: 0.8, ...more });

/** Samples of a note held still: without what moves it, what decays, and what the stroke adds. */
function stillNote(source: ToneSource, note: number, more: SoundSettings = {}): Float32Array {
  const patch = tonePatch(source, { motion: 0, width: 0, room: 0, hold: 2, attack: 0.005, ...more });
  const { tone } = patch;
  const oscillators = tone!.oscillators.map((oscillator) => ({ ...oscillator, decay: Infinity }));
  const filter = tone!.filter && { ...tone!.filter, opens: 0 };
  const still: Tone = { ...tone!, oscillators, filter };
  return renderStroke({ ...patch, tone: still, layers: [] }, { rate: RATE, seconds: 1, note }).left.subarray(
    0.3 * RATE,
    0.3 * RATE + 32768,
  );
}

/** Blackman-Harris of four terms: side lobes 92 dB down, five bins to its first zero (F. Harris, On the Use of Windows, 1978). */
const windowed = (sound: Float32Array) =>
  sound.map((x, i) => {
    const turn = (2 * Math.PI * i) / sound.length;
    return x * (0.35875 - 0.48829 * Math.cos(turn) + 0.14128 * Math.cos(2 * turn) - 0.01168 * Math.cos(3 * turn));
  });

/** Whether all its waves are at multiples of half the pitch: then whatever lies between those is folded. */
function isHarmonic(source: ToneSource): boolean {
  const isWhole = (ratio: number) => Number.isInteger(2 * ratio);
  return recipeOf(source).tone!.oscillators.every(
    ({ ratio, modulator }) => isWhole(ratio) && (!modulator || isWhole(modulator.ratio)),
  );
}

/** What lies below this is kept clean: above it the saturation's filters begin to let through. Hz. */
const CLEAN = 18000;

test.each(EACH.filter(([, source]) => isHarmonic(source)))(
  '%s: nothing folds, 80 dB down, from its lowest note to two octaves above its highest',
  (_, source) => {
    const off: string[] = [];
    // A fraction of a note: harmonics that fold then fall between the others.
    for (const [note, pitch] of [
      [0.3, 0],
      [17.3, 0],
      [31.3, 0],
      [46.3, 0],
      [60.3, 0],
      [24.3, -24],
      [60.3, 24],
    ] as const) {
      // prettier-ignore
      const hz = noteHz(lowestOf(source) + note + pitch);
      const sound = windowed(stillNote(source, lowestOf(source) + note, { pitch }));
      const { power, hzPerBin } = spectrumOf(sound, RATE);
      let all = 0;
      let between = 0;
      for (let bin = 6; bin < power.length; bin++) {
        all += power[bin]!;
        const at = bin * hzPerBin;
        const apart = Math.abs(at - (Math.round(at / (hz / 2)) * hz) / 2);
        if (at < CLEAN && apart > Math.min(6 * hzPerBin, hz / 5)) between += power[bin]!;
      }
      if (dB(between / all) > -80)
        off.push(`${noteName(lowestOf(source) + Math.floor(note) + pitch)}: ${dB(between / all).toFixed(1)} dB`);
    }
    expect(off).toEqual([]);
  },
);

test.each(EACH)('%s: in tune within a cent', (_, source) => {
  for (const note of [45, 69, 81]) {
    const { power, hzPerBin } = spectrumOf(windowed(stillNote(source, note)), RATE);
    const hz = noteHz(note);
    let bin = Math.round(hz / hzPerBin);
    while (power[bin + 1]! > power[bin]!) bin++;
    while (power[bin - 1]! > power[bin]!) bin--;
    // The window's main lobe is all but a parabola in dB.
    const [a, b, c] = [bin - 1, bin, bin + 1].map((i) => Math.log(power[i]!)) as [number, number, number];
    const found = (bin + (a - c) / (2 * (a - 2 * b + c))) * hzPerBin;
    expect(Math.abs(1200 * Math.log2(found / hz))).toBeLessThan(1);
  }
});

/** A note that is held ends in the middle of its sound: the window hides that. */
const brightnessOf = (stroke: Stereo) => centroidOf(spectrumOf(windowed(monoOf(stroke)), RATE));

/** The greatest step from one sample to the next. */
function steepest(sound: Float32Array, from = 0, to = sound.length): number {
  let most = 0;
  for (let i = Math.max(1, from); i < to; i++) most = Math.max(most, Math.abs(sound[i]! - sound[i - 1]!));
  return most;
}

test.each(EACH)('%s: begins, ends and begins again without a click', (_, source) => {
  const patch = tonePatch(source, { room: 0 });
  const plain = { ...patch, layers: [] };
  for (const note of [lowestOf(source) + 12, lowestOf(source) + 40]) {
    const { left } = renderStroke(plain, { rate: RATE, seconds: 1.5, note, held: 0.5 });
    const own = steepest(left, 0.003 * RATE, 0.45 * RATE);
    // 6 dB above the signal's own, as the issue of a click is whether it stands out.
    expect(steepest(left, 0, 0.003 * RATE)).toBeLessThanOrEqual(2 * own);
    expect(steepest(left, 0.45 * RATE)).toBeLessThanOrEqual(2 * own);
  }
});

test.each(EACH)('%s: the same at 44.1, 48 and 96 kHz within 0.3 LU', (_, source) => {
  const note = lowestOf(source) + 24;
  const loud = [44100, 48000, 96000].map((rate) => loudnessOf(dryNote(source, note, {}, { rate }), rate).loudest);
  expect(Math.max(...loud) - Math.min(...loud)).toBeLessThan(0.3);
});

test.each(EACH)('%s: velocity makes it louder, and never duller', (_, source) => {
  const strokes = [0.1, 0.4, 0.7, 1].map((velocity) => dryNote(source, lowestOf(source) + 24, {}, { velocity }));
  const loud = strokes.map((stroke) => loudnessOf(stroke).loudest);
  const bright = strokes.map(brightnessOf);
  expect(loud).toEqual([...loud].sort((a, b) => a - b));
  expect(bright.at(-1)!).toBeGreaterThan(0.98 * bright[0]!);
});

test.each(EACH)('%s: its five strips do what they say', (_, source) => {
  const note = lowestOf(source) + 24;
  const heard = (settings: SoundSettings, more = {}) => dryNote(source, note, settings, more);
  const brightness = [-1, 0, 1].map((bright) => brightnessOf(heard({ bright })));
  expect(brightness[0]!).toBeLessThan(brightness[1]!);
  expect(brightness[1]!).toBeLessThan(brightness[2]!);

  const early = (attack: number) => energyOf(monoOf(heard({ attack })).subarray(0, 0.2 * RATE));
  expect(early(1)).toBeLessThan(early(0.001) / 4);

  const rest = (release: number) => energyOf(monoOf(heard({ release }, { held: 0.2 })).subarray(0.4 * RATE));
  expect(rest(2)).toBeGreaterThan(4 * rest(0.05));

  const { tone } = recipeOf(source);
  const side = (width: number) => {
    const { left, right } = heard({ width, motion: 0 });
    return energyOf(left.map((x, i) => x - right[i]!));
  };
  if (tone!.oscillators.some(({ pan }) => pan)) expect(side(1)).toBeGreaterThan(2 * side(0.2));
  if (tone!.moved || tone!.oscillators.some(({ detune }) => detune)) {
    const [still, moved] = [0, 1].map((motion) => heard({ motion }, { seconds: 2 }).left);
    expect(energyOf(moved!.map((x, i) => x - still![i]!))).toBeGreaterThan(0.001 * energyOf(still!));
  }
});

test.each(EACH.filter(([, { voice }]) => voice === 'bass'))(
  '%s: a quarter of the energy of A2 lies above 200 Hz, where a phone begins to sound (common practice)',
  (_, source) => {
    const spectrum = spectrumOf(monoOf(dryNote(source, 45)), RATE);
    expect(energyBetween(spectrum, 200, 20000) / energyBetween(spectrum, 20, 20000)).toBeGreaterThan(0.25);
  },
);
