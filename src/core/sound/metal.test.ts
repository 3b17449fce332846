import { energyBetween, spectrumOf } from '../measure/spectrum';
import { fourierOf } from './fourier';
import { METAL_FRAMES, metalTables, tableFor } from './metal';

test('the inverse transform is the sum of its turning vectors', () => {
  const size = 64;
  const fourier = fourierOf(size);
  const bins = Array.from({ length: size }, (_, i) => [Math.sin(i * 1.7), Math.cos(i * 2.3)] as const);
  const { real, imaginary } = fourier;
  bins.forEach(([re, im], bin) => {
    real[fourier.placeOf(bin)] = re;
    imaginary[fourier.placeOf(bin)] = im;
  });
  fourier.transform();
  for (let i = 0; i < size; i++) {
    const angle = (bin: number) => (2 * Math.PI * bin * i) / size;
    expect(real[i]).toBeCloseTo(bins.reduce((sum, [re, im], b) => sum + re * Math.cos(angle(b)) - im * Math.sin(angle(b)), 0), 4); // prettier-ignore
    expect(imaginary[i]).toBeCloseTo(bins.reduce((sum, [re, im], b) => sum + re * Math.sin(angle(b)) + im * Math.cos(angle(b)), 0), 4); // prettier-ignore
  }
});

test('in WebAssembly it is what it is in TypeScript, to the bit', () => {
  const fourier = fourierOf(1024);
  const [quick, slow] = ([() => fourier.transform(), () => fourier.transformSlowly()] as const).map((transform) => {
    for (const side of [fourier.real, fourier.imaginary])
      side.forEach((_, i) => (side[i] = Math.sin(i * i + side.byteOffset)));
    transform();
    return [...fourier.real, ...fourier.imaginary];
  });
  expect(quick).toEqual(slow);
  expect(quick!.every(Number.isFinite)).toBe(true);
});

describe.each([44100, 48000, 96000])('the metal at %d Hz', (rate) => {
  const tables = metalTables(rate).map((table) => ({ ...table, sound: table.sound.subarray(0, METAL_FRAMES) }));
  const own = tables.find(({ pitch }) => pitch === 1)!;
  const partials = ({ power, hzPerBin }: ReturnType<typeof spectrumOf>) => [...power.keys()].filter((bin) => power[bin]! > 1e-6).map((bin) => bin * hzPerBin); // prettier-ignore

  test('has as many modes in each kHz as a thin plate of bronze: evenly, some fifty (Fletcher and Rossing; from memory)', () => {
    const all = partials(spectrumOf(own.sound, rate));
    expect(all.length).toBeGreaterThan(780);
    for (let khz = 1; khz < 19; khz++) {
      const here = all.filter((hz) => hz >= khz * 1000 && hz < (khz + 1) * 1000).length;
      expect([khz, here >= 40 && here <= 55]).toEqual([khz, true]);
    }
  });

  test('falls off above 3 kHz, and is as loud in every table', () => {
    const spectrum = spectrumOf(own.sound, rate);
    const dB = (low: number, high: number) => 10 * Math.log10(energyBetween(spectrum, low, high) / (high - low));
    // 1 / (1 + f / 3 kHz): from 1 to 12 kHz that is -11.5 dB.
    expect(dB(11000, 13000) - dB(500, 1500)).toBeCloseTo(-11.5, -0.5);
    for (const { sound } of tables) {
      expect(Math.sqrt(sound.reduce((sum, sample) => sum + sample * sample, 0) / METAL_FRAMES)).toBeCloseTo(0.35, 3);
    }
  });

  test('read at the pitch of any stroke from an octave below to an octave above, nothing of it folds', () => {
    for (let semitones = -12; semitones <= 12; semitones += 0.5) {
      const pitch = 2 ** (semitones / 12);
      const table = tableFor(tables, pitch);
      const ratio = pitch / table.pitch;
      expect([semitones, ratio > 0.7 && ratio <= 1 + 1e-9]).toEqual([semitones, true]);
      // Its highest partial, at this ratio.
      expect(Math.max(...partials(spectrumOf(table.sound, rate))) * ratio).toBeLessThan(rate / 2);
    }
  });
});
