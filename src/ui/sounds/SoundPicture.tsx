import { useEffect, useState } from 'react';
import { soundPeaks, type SoundPeaks } from '@/core/shelf/soundPeaks';
import type { Patch } from '@/core/sound/patch';
import { overviewOf, stretchPeaks } from './sampleOverview';
import { onceIdle } from '../shared/whenIdle';

const pictures = new WeakMap<Patch, Map<number, SoundPeaks>>();

/** The picture of a sound, drawn when nothing else is to be done: a long sound takes some ms. The last one stays until then. */
export function useSoundPeaks(patch: Patch, columns: number): SoundPeaks | null {
  const known = pictures.get(patch)?.get(columns) ?? null;
  const [shown, setShown] = useState(known);
  useEffect(() => {
    if (known) return undefined;
    const { sample } = patch;
    if (sample) {
      let isOver = false;
      void overviewOf(sample.id).then((overview) => {
        if (!isOver) setShown(overview && stretchPeaks(overview, columns, sample.start, sample.end));
      });
      return () => void (isOver = true);
    }
    return onceIdle(() => {
      const own = pictures.get(patch) ?? new Map<number, SoundPeaks>();
      own.set(columns, own.get(columns) ?? soundPeaks(patch, columns));
      pictures.set(patch, own);
      setShown(own.get(columns)!);
    });
  }, [patch, columns, known]);
  return known ?? shown;
}

interface Props {
  peaks: SoundPeaks | null;
  columns: number;
  color: string;
  /** The loudest reaches the full height; else as loud as it is. */
  fitted?: boolean;
}

/** How loud a sound is over its time, as slanted strokes. */
export function SoundPicture({ peaks, columns, color, fitted }: Props) {
  const loudest = Math.max(0.05, ...(peaks?.peaks ?? []));
  const strokes = (peaks?.peaks ?? []).map((peak, i) => {
    const height = Math.max(0.02, fitted ? peak / loudest : Math.sqrt(peak));
    return `M${i + 0.65} ${50 - 48 * height}L${i + 0.35} ${50 + 48 * height}`;
  });
  return (
    <svg aria-hidden width="100%" height="100%" viewBox={`0 0 ${columns} 100`} preserveAspectRatio="none">
      <path d={strokes.join('')} stroke={color} strokeWidth={1.6} vectorEffect="non-scaling-stroke" fill="none" />
    </svg>
  );
}
