import { createContext, useContext, useEffect, useState } from 'react';
import type { LibrarySet } from '@/core/library/librarySet';
import { listAside, type SetAside } from '@/storage/aside';
import type { Library } from '@/storage/library';
import { storage } from '@/storage/storage';

const LibraryContext = createContext<Library | null>(null);
export const LibraryProvider = LibraryContext.Provider;

export function useLibrary(): Library {
  return useContext(LibraryContext)!;
}

/** All sets of this device but what is newest of the open one, the last changed first; null until they are known. */
export function useSets(): LibrarySet[] | null {
  const library = useLibrary();
  const [sets, setSets] = useState<LibrarySet[] | null>(null);
  useEffect(() => {
    let isShown = true;
    const look = () => void library.list().then((found) => isShown && setSets(found), () => undefined); // prettier-ignore
    look();
    const end = library.subscribe(look);
    return () => {
      isShown = false;
      end();
    };
  }, [library]);
  return sets;
}

/** What was put aside instead of being lost; looked for anew when it has changed. */
export function useAside(): { found: SetAside[]; look: () => void } {
  const [found, setFound] = useState<SetAside[]>([]);
  const [looks, setLooks] = useState(0);
  useEffect(() => {
    let isShown = true;
    listAside(storage).then((aside) => isShown && setFound(aside), () => undefined); // prettier-ignore
    return () => {
      isShown = false;
    };
  }, [looks]);
  return { found, look: () => setLooks((before) => before + 1) };
}
