import { createContext, useContext, useEffect, useState, useSyncExternalStore } from 'react';
import type { Run } from '@/core/document/run';
import type { RunStore } from '@/storage/runStore';

const RunsContext = createContext<RunStore | null>(null);
export const RunsProvider = RunsContext.Provider;

export function useRunStore(): RunStore {
  return useContext(RunsContext)!;
}

/** All stored runs, the newest first; null until they are known. */
export function useRuns(): Run[] | null {
  const store = useRunStore();
  const [runs, setRuns] = useState<Run[] | null>(null);
  useEffect(() => {
    let isShown = true;
    const look = () => void store.list().then((found) => isShown && setRuns(found));
    look();
    const end = store.subscribe(look);
    return () => {
      isShown = false;
      end();
    };
  }, [store]);
  return runs;
}

/** Runs that were deleted since the page was opened, the last one first. */
export function useDeletedRuns(): readonly Run[] {
  const store = useRunStore();
  return useSyncExternalStore(store.subscribe, store.deleted);
}
