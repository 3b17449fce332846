import { energyBetween, spectrumOf } from '../measure/spectrum';
import { OscillatorVoice } from './oscillatorVoice';
import { oscillatorOf, type OscillatorDesign } from './tones/toneDesign';
import { tableAt, waveTables } from './waves';

const TOUCH = { velocity: 1, bright: 0, width: 1, longer: 1 };
const N = 4096;

/** Some samples of an oscillator, so many cycles of it in all of them. */
function rendered(oscillator: OscillatorDesign, cycles: number): Float64Array {
  const voice = new OscillatorVoice(48000);
  voice.start(oscillatorOf(oscillator), TOUCH);
  voice.tune(cycles / N);
  const middle = new Float64Array(N);
  voice.render(middle, new Float64Array(N), N);
  return middle;
}

/** Amplitudes of its harmonics against the first. */
function harmonics(sound: Float64Array, cycles: number, count: number): number[] {
  const { power } = spectrumOf(sound, N);
  const amplitudes = Array.from({ length: count }, (_, k) => Math.sqrt(power[(k + 1) * cycles]!));
  return amplitudes.map((amplitude) => amplitude / amplitudes[0]!);
}

// Fourier series of the classical waves, as in any textbook of signals.
test.each([
  ['saw', (k: number) => 1 / k],
  ['square', (k: number) => (k % 2) / k],
  ['triangle', (k: number) => (k % 2) / (k * k)],
] as const)('a %s has the harmonics of its series', (wave, amplitude) => {
  const found = harmonics(rendered({ wave, ratio: 1, level: 1 }, 16), 16, 24);
  for (const [i, value] of found.entries()) expect(value).toBeCloseTo(amplitude(i + 1), 3);
});

test('a table has only harmonics below half the sample rate at the highest step it is for, and no others fold', () => {
  const tables = waveTables('saw');
  for (const step of [0.001, 0.0071, 0.033, 0.1, 0.2499, 0.26, 0.45]) {
    const { highest } = tables[tableAt(tables, step)]!;
    expect(highest).toBeGreaterThanOrEqual(step);
    // And is not needlessly dull: the next one would be too full.
    const next = tables[tableAt(tables, step) + 1];
    if (next) expect(next.highest).toBeLessThan(step);
  }
});

/** Bessel function of the first kind by its integral (Abramowitz and Stegun 9.1.21). */
function bessel(n: number, x: number): number {
  const steps = 2000;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const turn = (Math.PI * (i + 0.5)) / steps;
    sum += Math.cos(n * turn - x * Math.sin(turn));
  }
  return sum / steps;
}

test('phase modulation has the sidebands of its Bessel functions (Chowning 1973)', () => {
  const depth = 0.2;
  const [carrier, ratio] = [400, 0.25];
  const sound = rendered(
    { wave: 'sine', ratio: 1, level: 1, modulator: { ratio, depth, decay: 1, stays: 1 } },
    carrier,
  );
  const { power } = spectrumOf(sound, N);
  // Power of a sine of amplitude 1 in all samples: half of each.
  for (let n = 0; n < 5; n++) {
    expect(Math.sqrt(power[carrier + n * 100]! / (N / 2))).toBeCloseTo(Math.abs(bessel(n, 2 * Math.PI * depth)), 3);
  }
});

test('however deep it is to be modulated, what folds lies 80 dB down', () => {
  for (const [carrier, ratio] of [
    [300, 1.5],
    [700, 2],
    [1000, 1],
    [1200, 0.45],
    [1500, 0.3],
    [1900, 0.2],
  ] as const) {
    // prettier-ignore
    const modulator = { ratio, depth: 0.5, decay: 1, stays: 1 };
    const { power } = spectrumOf(rendered({ wave: 'sine', ratio: 1, level: 1, modulator }, carrier), N);
    const whole = energyBetween({ power, hzPerBin: 1 }, 0, N);
    const sidebands = Array.from({ length: 20 }, (__, n) => Math.round(carrier + (n + 1) * carrier * ratio));
    const folded = sidebands.filter((at) => at > N / 2 && at < N).map((at) => power[N - at]!);
    expect(folded.length).toBeGreaterThan(0);
    expect(10 * Math.log10(Math.max(...folded) / whole)).toBeLessThan(-79);
  }
});

test('a sine that comes near half the sample rate fades away before it would fold', () => {
  const peak = (cycles: number) => Math.max(...rendered({ wave: 'sine', ratio: 1, level: 1 }, cycles));
  expect(peak(1000)).toBeCloseTo(1, 3);
  expect(peak(1950)).toBeLessThan(0.5);
  expect(peak(2048)).toBe(0);
});
