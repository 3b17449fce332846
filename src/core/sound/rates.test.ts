import { PAD_KINDS } from '../document/soundKinds';
import { dB, loudnessOf, monoOf } from '../shelf/kitSound.testing';
import { renderStroke } from '../shelf/strokeSound';
import { spectrumOf, THIRDS, thirdsOf } from '../measure/spectrum';
import { patchOf } from './patch';

const STROKES = 16;
const SECONDS = 0.34;

/** Thirds of an octave and loudness of many strokes together: what chance does to one of them evens out. */
function heardAt(rate: number, made: (typeof PAD_KINDS)[number]) {
  const patch = patchOf({ source: { made }, settings: { variation: 0.5 } });
  const all = Array.from({ length: STROKES }, (_, i) => renderStroke(patch, { rate, seconds: SECONDS, frame: 1 + i * 4801 })); // prettier-ignore
  const thirds = all.map((stroke) => thirdsOf(spectrumOf(monoOf(stroke), rate)));
  // A sum over frames is larger where there are more of them. Each with its neighbours: a tone at an edge lies now here, now there.
  const sums = thirds[0]!.map((_, i) => thirds.reduce((sum, one) => sum + (one[i - 1] ?? 0) + one[i]! + (one[i + 1] ?? 0), 0) / rate); // prettier-ignore
  const joined = (side: 'left' | 'right') => Float32Array.from(all.flatMap((stroke) => [...stroke[side]]));
  return { sums, loudness: loudnessOf({ left: joined('left'), right: joined('right') }, rate, 0).integrated };
}

test.each(PAD_KINDS)(
  '%s is as loud and as bright at 44.1 and 96 kHz as at 48: within 0.3 LU, and 1 dB up to 16 kHz',
  (made) => {
    const plain = heardAt(48000, made);
    const whole = plain.sums.reduce((sum, third) => sum + third, 0) / 3;
    for (const rate of [44100, 96000]) {
      const other = heardAt(rate, made);
      expect([rate, Math.abs(other.loudness - plain.loudness) <= 0.3]).toEqual([rate, true]);
      THIRDS.forEach((middle, i) => {
        // What is more than 20 dB below the whole is not what one hears of it.
        if (middle > 12000 || plain.sums[i]! < whole / 100) return;
        const differs = dB(other.sums[i]! / plain.sums[i]!);
        expect([rate, Math.round(middle), Math.abs(differs) <= 1 ? 0 : differs]).toEqual([rate, Math.round(middle), 0]);
      });
    }
  },
);
