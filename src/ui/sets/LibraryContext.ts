import { createContext, useContext, useEffect, useState } from 'react';
import type { LibrarySet } from '@/core/library/librarySet';
import { listAside, type SetAside } from '@/storage/aside';
import type { Library } from '@/storage/library';
import { storage } from '@/storage/storage';
import { useListed } from '../shared/useListed';

const LibraryContext = createContext<Library | null>(null);
export const LibraryProvider = LibraryContext.Provider;

export function useLibrary(): Library {
  return useContext(LibraryContext)!;
}

/** All sets of this device but what is newest of the open one, the last changed first; null until they are known. */
export function useSets(): LibrarySet[] | null {
  return useListed(useLibrary());
}

/** What was put aside instead of being lost, as it was when the place was opened. */
export function useAside(): readonly SetAside[] {
  const [found, setFound] = useState<readonly SetAside[]>([]);
  useEffect(() => {
    let isShown = true;
    const take = (aside: SetAside[]) => isShown && setFound(aside);
    void listAside(storage).then(take, () => undefined);
    return () => {
      isShown = false;
    };
  }, []);
  return found;
}
