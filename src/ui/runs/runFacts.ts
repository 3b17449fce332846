import { counted } from '@/core/counted';
import type { Run } from '@/core/document/run';

type Facts = Pick<Run, 'from' | 'to' | 'sampleRate' | 'tempo' | 'launches' | 'hits'>;

/**
 * What a run is, in a line.
 * @example "12:41 · 108–116 BPM · 214 launches · 1,906 hits"
 */
export function runFacts({ from, to, sampleRate, tempo, launches, hits }: Facts): string {
  const seconds = Math.round((to - from) / sampleRate);
  const [least, most] = [Math.round(tempo.least), Math.round(tempo.most)];
  return [
    `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`,
    `${least === most ? least : `${least}–${most}`} BPM`,
    ...(launches > 0 ? [counted(launches, 'launch', 'launches')] : []),
    counted(hits, 'hit'),
  ].join(' · ');
}
