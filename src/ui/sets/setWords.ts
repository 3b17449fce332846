import { counted } from '@/core/counted';
import { BIN_DAYS, type LibrarySet, type SetFacts } from '@/core/library/librarySet';
import { formatTempo } from '@/core/time/tempo';
import { sizeWords } from '../shared/sizeWords';

/** 27 Nov 2026, 20:15 */
export function dateWords(iso: string): string {
  return new Date(iso).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
}

/** 112 BPM · 4 tracks, 12 patterns, 310 hits · 48 kB */
export function factWords({ tempo, tracks, patterns, hits, letters }: SetFacts): string {
  const parts = [counted(tracks, 'track'), counted(patterns, 'pattern'), counted(hits, 'hit')];
  return `${formatTempo(tempo)} BPM · ${parts.join(', ')} · ${sizeWords(letters)}`;
}

/** Days until a set in the bin goes for good. */
export function daysLeft({ binned }: LibrarySet, now: Date): number {
  const days = (now.getTime() - new Date(binned!).getTime()) / (24 * 3600 * 1000);
  return Math.max(0, Math.ceil(BIN_DAYS - days));
}
