import type { SampleAudio } from './levels';

/** What was done to a sound so that it can be played, in words for the player. */
export interface Tidied {
  audio: SampleAudio;
  notes: string[];
}

/**
 * Brings decoded sound into the form that samples have: at most two channels, numbers that are none as silence, no louder than full
 * scale, no longer than it may be; two channels that are the same are one.
 * @param most frames
 */
export function tidied({ channels }: SampleAudio, most: number): Tidied {
  const notes: string[] = [];
  const frames = Math.min(most, channels[0]!.length);
  if (frames < channels[0]!.length) notes.push(`only the first ${most / 48000} s were taken`);
  let kept = channels.slice(0, 2).map((channel) => channel.slice(0, frames));
  let broken = 0;
  let loudest = 0;
  for (const channel of kept) {
    for (let i = 0; i < frames; i++) {
      if (!Number.isFinite(channel[i]!)) {
        channel[i] = 0;
        broken++;
      }
      loudest = Math.max(loudest, Math.abs(channel[i]!));
    }
  }
  if (broken > 0) notes.push(`${broken} values in it were no numbers, and are silent`);
  if (loudest > 1) {
    notes.push(`it was ${(20 * Math.log10(loudest)).toFixed(1)} dB louder than full scale, and is softer now`);
    kept = kept.map((channel) => channel.map((value) => value / loudest));
  }
  const [first, second] = kept;
  if (second && first!.every((value, i) => value === second[i])) kept = [first!];
  return { audio: { channels: kept }, notes };
}

/** The loudest of each of so many equal parts of a stretch, 0..1, for pictures. */
export function audioPeaks({ channels }: SampleAudio, columns: number, from = 0, to = channels[0]!.length): number[] {
  const peaks = new Array<number>(columns).fill(0);
  for (let column = 0; column < columns; column++) {
    const begin = Math.floor(from + ((to - from) * column) / columns);
    const end = Math.max(begin + 1, Math.floor(from + ((to - from) * (column + 1)) / columns));
    for (const channel of channels) {
      for (let i = Math.max(0, begin); i < Math.min(end, channel.length); i++) {
        peaks[column] = Math.max(peaks[column]!, Math.abs(channel[i]!));
      }
    }
  }
  return peaks;
}
