import FFT from 'fft.js';
import { PAD_KINDS, type PadKind } from '@/core/document/soundKinds';
import type { Stereo } from '@/core/engine/offline';
import { centroidOf, energyBetween, spectrumOf, THIRDS } from '@/core/measure/spectrum';
import { beatSound, dB, loudnessOf, monoOf, RATE, strokeOf } from '@/core/shelf/kitSound.testing';
import { beatOf } from '@/core/shelf/kitBeats';
import type { Shelved } from '@/core/shelf/shelved';

/** A spectrogram: rows of thirds from low to high, each value 0 (softest that is drawn) to 255. */
export interface Picture {
  columns: number;
  rows: number;
  values: string;
  seconds: number;
}

/** What there is to know of a pad. */
export interface PadReport {
  kind: PadKind;
  name: string;
  picture: Picture;
  /** LUFS of its loudest 400 ms, dB below full scale of its peak. */
  loudness: number;
  peak: number;
  /** Hz, of the softest and of the hardest stroke. */
  soft: number;
  hard: number;
  /** dB of the sides under the middle. */
  sides: number;
  /** LU under the kick in the kit's own beat; absent: it does not play there. */
  underKick?: number;
}

export interface KitReport {
  name: string;
  tags: string[];
  tempo: number;
  /** Of its beat. */
  integrated: number;
  truePeak: number;
  pads: PadReport[];
}

const WINDOW = 1024;
const COLUMNS = 120;
const PICTURE_SECONDS = 0.9;
const DEEPEST_DB = 72;

/** Renders and measures everything of one kit. */
export function reportOf(entry: Shelved): KitReport {
  const kit = entry.kit!;
  const beat = beatOf(entry);
  const whole = loudnessOf(beatSound(kit, beat, { limited: true }), RATE, 0);
  const played = new Set(beat.pattern.hits.map(({ pad }) => pad));
  const inBeat = (pad: number) => loudnessOf(beatSound(kit, beat, { only: pad }), RATE, 0).integrated;
  const ofKick = inBeat(0);
  const pads = PAD_KINDS.map((kind, pad): PadReport => {
    const sound = strokeOf(kit, pad, { velocity: 1 });
    const { loudest } = loudnessOf(strokeOf(kit, pad));
    return {
      kind,
      name: kit.pads[pad]!.sound.name,
      picture: pictureOf(sound),
      loudness: loudest,
      peak: 20 * Math.log10(peakOf(sound)),
      soft: centroidOf(spectrumOf(monoOf(strokeOf(kit, pad, { velocity: 0.1 })), RATE)),
      hard: centroidOf(spectrumOf(monoOf(sound), RATE)),
      sides: sidesOf(sound),
      ...(played.has(pad) && { underKick: ofKick - inBeat(pad) }),
    };
  });
  return {
    name: entry.name,
    tags: entry.tags,
    tempo: beat.tempo,
    integrated: whole.integrated,
    truePeak: whole.truePeak,
    pads,
  };
}

function peakOf({ left, right }: Stereo): number {
  return left.reduce((most, sample, i) => Math.max(most, Math.abs(sample), Math.abs(right[i]!)), 0);
}

function sidesOf({ left, right }: Stereo): number {
  const power = (sign: 1 | -1) => left.reduce((sum, sample, i) => sum + (sample + sign * right[i]!) ** 2, 0);
  return dB(power(-1) / power(1));
}

/** The first part of a stroke, in thirds of an octave under Hann's window. */
function pictureOf(sound: Stereo): Picture {
  const mono = monoOf(sound);
  const hop = Math.round((PICTURE_SECONDS * RATE) / COLUMNS);
  const fft = new FFT(WINDOW);
  const columns = Array.from({ length: COLUMNS }, (_, column) => {
    const from = column * hop - WINDOW / 2;
    const part = Array.from(
      { length: WINDOW },
      (_u, i) => (mono[from + i] ?? 0) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW)),
    );
    const out = fft.createComplexArray() as number[];
    fft.realTransform(out, part);
    const power = Float64Array.from(
      { length: WINDOW / 2 + 1 },
      (_u, bin) => out[2 * bin]! ** 2 + out[2 * bin + 1]! ** 2,
    );
    const hzPerBin = RATE / WINDOW;
    return THIRDS.map((middle) =>
      energyBetween({ power, hzPerBin }, middle / 1.122, Math.max(middle * 1.122, middle / 1.122 + hzPerBin)),
    );
  });
  const loudest = Math.max(...columns.flat());
  const values = columns.flatMap((column) =>
    column.map((power) => Math.round(255 * Math.max(0, 1 + dB(power / loudest + 1e-12) / DEEPEST_DB))),
  );
  return {
    columns: COLUMNS,
    rows: THIRDS.length,
    values: Buffer.from(values).toString('base64'),
    seconds: PICTURE_SECONDS,
  };
}

/** What most kits have at a place, LUFS: the loudness that theirs is compared with. */
export function medians(kits: readonly KitReport[]): number[] {
  return PAD_KINDS.map((_, pad) => {
    const all = kits.map(({ pads }) => pads[pad]!.loudness).sort((a, b) => a - b);
    return all[Math.floor(all.length / 2)]!;
  });
}
