import { demoSet } from '../document/demo';
import type { OpenSet } from '../document/set';
import type { Stereo } from '../engine/offline';
import { replayLog } from '../engine/replay';
import { LoudnessMeter } from '../measure/loudness';
import { energyBetween, spectrumOf } from '../measure/spectrum';
import { lateTram } from '../shelf/sets/lateTram';
import { ebur128, wavFile } from './ffmpeg.testing';
import { CEILING, Limiter } from '../sound/limiter';
import { playSection } from './playThrough';

/** Of Node, which the core's own library knows nothing of. */
declare function structuredClone<T>(value: T): T;

const RATE = 48000;
const dB = (ratio: number) => 10 * Math.log10(ratio);

/** One round of a section, as it comes to the limiter and as it leaves the app. */
function sectionSound(open: OpenSet, id: number): { mixed: Stereo; limited: Stereo } {
  const sections = open.set.sections.map((section) => ({ ...section, rounds: 1 }));
  const { performed, run } = playSection({ ...open, set: { ...open.set, sections } }, id, RATE);
  const replay = replayLog({ ...performed, log: structuredClone([...performed.log]) });
  replay.skipTo(run.from);
  replay.engine.hear({ track: null, limited: false });
  const mixed = silence(run.to - run.from);
  replay.process(mixed.left, mixed.right);
  const limited = silence(run.to - run.from);
  new Limiter(RATE).process(
    Float64Array.from(mixed.left),
    Float64Array.from(mixed.right),
    limited.left,
    limited.right,
    0,
    limited.left.length,
  );
  return { mixed, limited };
}

const silence = (frames: number): Stereo => ({ left: new Float32Array(frames), right: new Float32Array(frames) });

function joined(sounds: readonly Stereo[]): Stereo {
  const side = (of: 'left' | 'right') => {
    const whole = new Float32Array(sounds.reduce((sum, sound) => sum + sound[of].length, 0));
    let at = 0;
    for (const sound of sounds) {
      whole.set(sound[of], at);
      at += sound[of].length;
    }
    return whole;
  };
  return { left: side('left'), right: side('right') };
}

describe.each([
  ['Rink Night', demoSet()],
  ['Late Tram', lateTram()],
])('%s', (_, open) => {
  const { sections } = open.set;
  const heard = sections.map(({ id, name }) => ({ name, ...sectionSound(open, id) }));
  // As often as each goes round.
  const whole = joined(heard.flatMap(({ limited }, i) => Array.from({ length: sections[i]!.rounds }, () => limited)));
  const middle = whole.left.map((left, i) => (left + whole.right[i]!) / 2);
  const sides = whole.left.map((left, i) => (left - whole.right[i]!) / 2);
  const ofMiddle = spectrumOf(middle, RATE);
  const ofSides = spectrumOf(sides, RATE);

  test('all of it has -14 LUFS within 1, as services play music (common practice), and -1 dBTP at most, by ffmpeg’s ebur128', () => {
    const { integrated, peak } = ebur128(wavFile(whole, 'float32', RATE));
    expect(Math.abs(integrated + 14)).toBeLessThanOrEqual(1);
    expect(peak).toBeLessThanOrEqual(-1);
  }, 60_000);

  test('the limiter takes 3 dB away at most', () => {
    for (const { name, mixed } of heard) {
      const meter = new LoudnessMeter(RATE);
      meter.add(mixed.left, mixed.right);
      expect([name, meter.result.truePeak - 2 * dB(CEILING) <= 3]).toEqual([name, true]);
    }
  });

  test('octaves fall as in popular recordings: within 4 dB of 2 dB an octave from 125 Hz to 4 kHz', () => {
    // P. Pestana and others, Spectral characteristics of popular commercial recordings 1950-2010, AES 135, 2013: some -5 dB of density an
    // octave from 100 Hz to 4 kHz, which is -2 dB of each octave's energy; from memory.
    const octaves = [125, 250, 500, 1000, 2000, 4000].map((hz) => {
      const [low, high] = [hz / Math.SQRT2, hz * Math.SQRT2];
      return dB(energyBetween(ofMiddle, low, high) + energyBetween(ofSides, low, high));
    });
    const level = octaves.reduce((sum, octave, i) => sum + octave + 2 * i, 0) / octaves.length;
    for (const [i, octave] of octaves.entries()) expect(Math.abs(octave - (level - 2 * i))).toBeLessThan(4);
  });

  test('lows lie in the middle, highs are wide: -20 dB of sides below 120 Hz, some -8 above 2 kHz (common practice)', () => {
    const wide = (low: number, high: number) => dB(energyBetween(ofSides, low, high) / energyBetween(ofMiddle, low, high)); // prettier-ignore
    expect(wide(20, 120)).toBeLessThan(-20);
    expect(wide(20, 120)).toBeLessThan(wide(200, 2000));
    expect(wide(200, 2000)).toBeLessThan(wide(2000, 20000));
    expect(Math.abs(wide(2000, 20000) + 8)).toBeLessThan(3);
  });
});
