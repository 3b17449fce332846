import { audioPeaks } from '@/core/sample/tidy';
import { SAMPLE_RATE } from '@/core/sample/levels';
import type { SoundPeaks } from '@/core/shelf/soundPeaks';
import { samples } from '@/storage/storage';

/** Parts of a sample that are known for its pictures. */
const PARTS = 960;

/** How loud a sample is from beginning to end. */
interface Overview {
  peaks: readonly number[];
  seconds: number;
}

const overviews = new Map<string, Promise<Overview | null>>();

/** A sample in small, read once; null where it is not on this device. */
export function overviewOf(id: string): Promise<Overview | null> {
  let overview = overviews.get(id);
  if (!overview) {
    overview = samples.load(id).then((sample) => {
      // One that is missing may come.
      if (!sample) overviews.delete(id);
      const frames = sample?.channels[0]!.length ?? 0;
      return sample && { peaks: audioPeaks(sample, Math.min(PARTS, frames)), seconds: frames / SAMPLE_RATE };
    });
    overviews.set(id, overview);
  }
  return overview;
}

/**
 * The picture of a stretch of a sample.
 * @param start 0..1 of all of it
 */
export function stretchPeaks({ peaks, seconds }: Overview, columns: number, start: number, end: number): SoundPeaks {
  const [from, to] = [Math.min(start, end) * peaks.length, Math.max(start, end) * peaks.length];
  const at = (column: number) => Math.floor(from + ((to - from) * column) / columns);
  const picture = Array.from({ length: columns }, (_, i) => Math.max(0, ...peaks.slice(at(i), Math.max(at(i) + 1, at(i + 1))))); // prettier-ignore
  return { peaks: picture, seconds: seconds * Math.abs(end - start) };
}
