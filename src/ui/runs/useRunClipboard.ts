import { useSyncExternalStore } from 'react';
import type { Dropped } from '@/core/score/fix';

/** What was copied last, of any run: it can be pasted into another one. */
let copied: readonly Dropped[] = [];
const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function put(dropped: readonly Dropped[]): void {
  copied = dropped;
  for (const listener of listeners) listener();
}

/** Blocks that were copied, to be pasted. */
export function useRunClipboard() {
  const dropped = useSyncExternalStore(subscribe, () => copied);
  return { dropped, put };
}
