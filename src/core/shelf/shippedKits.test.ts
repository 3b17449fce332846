import { kitProblem } from '../document/kitSchema';
import { PAD_KINDS } from '../document/soundKinds';
import { centroidOf, spectrumOf } from '../measure/spectrum';
import { placedTick } from '../quantize/place';
import { patchOf } from '../sound/patch';
import { beatOf } from './kitBeats';
import { beatSound, dB, distance, energyOf, featuresOf, loudnessOf, monoOf, RATE, strokeOf } from './kitSound.testing';
import { SHIPPED_KITS } from './shippedKits';
import { soundsOf } from './shelved';
import { checkShelved } from './shelvedSchema';
import { renderStroke } from './strokeSound';

const kits = SHIPPED_KITS.map((entry) => ({ ...entry, kit: entry.kit! }));
const names = kits.map(({ name }) => name);
const named = (name: string) => kits.find((entry) => entry.name === name)!;
/** Strokes of a pad without the room, each a little different from the others. */
const strokes = (name: string, pad: number, count: number, velocity = 0.8, seconds = 0.68) => {
  const patch = patchOf(named(name).kit.pads[pad]!.sound);
  return Array.from({ length: count }, (_, i) =>
    renderStroke(patch, { rate: RATE, seconds, velocity, frame: 1 + i * 4801 }),
  );
};

test('twelve kits and 160 sounds at least, each of which can be opened again, found by tags, and has a name of its own', () => {
  expect(kits.length).toBeGreaterThanOrEqual(12);
  expect(new Set(names).size).toBe(kits.length);
  expect(kits.flatMap((entry) => soundsOf(entry)).length).toBeGreaterThanOrEqual(160);
  for (const entry of SHIPPED_KITS) {
    expect(checkShelved(JSON.parse(JSON.stringify(entry)))).toEqual({ value: entry });
    expect(kitProblem(entry.kit!, 'kit')).toBeNull();
    expect(entry.tags.length).toBeGreaterThan(2);
    expect(entry.kit!.pads.map(({ sound }) => sound.kind)).toEqual(PAD_KINDS);
    expect(new Set(entry.kit!.pads.map(({ sound }) => sound.name)).size).toBe(16);
  }
});

test('any two kits differ, pad by pad, by more than the strokes of any pad differ among themselves', () => {
  // Two strokes of a pad against two others of the same pad: what the measure makes of chance alone.
  const groups = names.map((name) => PAD_KINDS.map((_, pad) => {
    const all = strokes(name, pad, 6);
    return [featuresOf(all.slice(0, 3)), featuresOf(all.slice(3))] as const;
  }));
  const control = Math.max(...groups.flat().map(([a, b]) => distance(a, b)));
  groups.forEach((one, a) => groups.slice(0, a).forEach((other, b) => PAD_KINDS.forEach((kind, pad) => {
    const apart = distance(one[pad]![0], other[pad]![0]);
    expect([names[a], names[b], kind, apart > control]).toEqual([names[a], names[b], kind, true]);
  })));
}, 120_000); // prettier-ignore

test('every pad is within 3 LU of its kind’s median: a beat survives the change of kit', () => {
  PAD_KINDS.forEach((kind, pad) => {
    const loud = kits.map(({ kit }) => loudnessOf(strokeOf(kit, pad)).loudest);
    const median = [...loud].sort((a, b) => a - b)[kits.length >> 1]!;
    loud.forEach((loudness, k) => expect([names[k], kind, Math.abs(loudness - median) < 3]).toEqual([names[k], kind, true])); // prettier-ignore
  });
}, 120_000);

test('a kit that a player has made shows itself in a plain beat, at 100 BPM unless it has a tempo: snare on two and four (common practice)', () => {
  const { pattern, tempo } = beatOf({ id: 'mine', name: 'Mine' });
  expect([tempo, pattern.name, pattern.length, beatOf({ id: 'mine', name: 'Mine', tempo: 81 }).tempo]).toEqual([100, 'Mine', 7680, 81]); // prettier-ignore
  const loudSnares = pattern.hits.filter(({ pad, velocity }) => pad === PAD_KINDS.indexOf('snare') && velocity > 0.8);
  expect(loudSnares.map(({ tick }) => Math.round(tick / 240))).toEqual([4, 12, 20, 28]);
});

/** LU under the kick, where a sound carries the beat (common practice). */
const UNDER_KICK = { snare: [2, 6], clap: [2, 8], closedHat: [10, 14], openHat: [10, 14], shaker: [14, 18], tambourine: [14, 18] } as const; // prettier-ignore

describe.each(names)('%s', (name) => {
  const entry = named(name);
  const beat = beatOf(entry);

  test('its own beat is two bars, in balance, and leaves the app below -1 dBTP', () => {
    const { pattern } = beat;
    expect(pattern.length).toBe(2 * 3840);
    expect(pattern.hits.every(({ tick, snap }) => placedTick(tick, snap) < pattern.length)).toBe(true);
    const of = (pad: number) => loudnessOf(beatSound(entry.kit, beat, { only: pad }), RATE, 0).integrated;
    const kick = of(0);
    for (const [kind, [least, most]] of Object.entries(UNDER_KICK)) {
      const pad = PAD_KINDS.indexOf(kind as (typeof PAD_KINDS)[number]);
      if (!pattern.hits.some((hit) => hit.pad === pad)) continue;
      const under = kick - of(pad);
      expect([kind, under, under >= least && under <= most]).toEqual([kind, under, true]);
    }
    expect(loudnessOf(beatSound(entry.kit, beat, { limited: true }), RATE, 0).truePeak).toBeLessThanOrEqual(-1);
  });

  test('a harder stroke is brighter, by a fifth at least from the softest, and louder, on every pad', () => {
    PAD_KINDS.forEach((kind, pad) => {
      const still = {
        ...entry.kit.pads[pad]!.sound,
        settings: { ...entry.kit.pads[pad]!.sound.settings, variation: 0 },
      };
      const at = [0.1, 0.4, 0.7, 1].map((velocity) => monoOf(renderStroke(patchOf(still), { rate: RATE, seconds: 1.3, velocity }))); // prettier-ignore
      const centre = at.map((mono) => centroidOf(spectrumOf(mono, RATE)));
      const loud = at.map(energyOf);
      expect([kind, centre[3]! / centre[0]! >= 1.2]).toEqual([kind, true]);
      for (const steps of [centre, loud]) for (let i = 1; i < 4; i++) expect([kind, steps[i]! > steps[i - 1]!]).toEqual([kind, true]); // prettier-ignore
    });
  });

  test('sixteen strokes of one velocity are within 1 dB, and no two of them the same', () => {
    PAD_KINDS.forEach((kind, pad) => {
      const all = strokes(name, pad, 16);
      const energies = all.map(({ left, right }) => energyOf(left) + energyOf(right));
      const mean = energies.reduce((sum, energy) => sum + energy, 0) / 16;
      for (const energy of energies) expect([kind, Math.abs(dB(energy / mean)) <= 1]).toEqual([kind, true]);
      expect(new Set(all.map(({ left }) => left.subarray(100, 400).join())).size).toBe(16);
    });
  });

  test('no stroke has a constant part, and each ends in silence', () => {
    PAD_KINDS.forEach((kind, pad) => {
      const { left } = strokeOf(entry.kit, pad, { velocity: 1, seconds: 3 });
      const mean = left.reduce((sum, sample) => sum + sample, 0) / left.length;
      const loudest = left.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
      expect([kind, Math.abs(mean) < 1e-4 * loudest]).toEqual([kind, true]);
      const dry = renderStroke(patchOf(entry.kit.pads[pad]!.sound), { rate: RATE, seconds: 12 });
      expect([kind, dry.left.subarray(11.9 * RATE).every((sample) => sample === 0)]).toEqual([kind, true]);
    });
  });
});
