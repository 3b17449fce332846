import { createContext, useContext, useSyncExternalStore } from 'react';
import type { Run } from '@/core/document/run';
import type { RunStore } from '@/storage/runStore';
import { useListed } from '../shared/useListed';

const RunsContext = createContext<RunStore | null>(null);
export const RunsProvider = RunsContext.Provider;

export function useRunStore(): RunStore {
  return useContext(RunsContext)!;
}

/** All stored runs, the newest first; null until they are known. */
export function useRuns(): Run[] | null {
  return useListed(useRunStore());
}

/** Runs that were deleted since the page was opened, the last one first. */
export function useDeletedRuns(): readonly Run[] {
  const store = useRunStore();
  return useSyncExternalStore(store.subscribe, store.deleted);
}
