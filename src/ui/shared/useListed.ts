import { useEffect, useState } from 'react';

/** What lies in the storage as a list, and says when that is another. */
interface Source<T> {
  list(): Promise<T[]>;
  subscribe(listener: () => void): () => void;
}

/** The list as it is now; null until it is known. One that cannot be read stays what it was. */
export function useListed<T>(source: Source<T>): T[] | null {
  const [found, setFound] = useState<T[] | null>(null);
  useEffect(() => {
    let isShown = true;
    const take = (list: T[]) => isShown && setFound(list);
    const look = () => void source.list().then(take, () => undefined);
    look();
    const end = source.subscribe(look);
    return () => {
      isShown = false;
      end();
    };
  }, [source]);
  return found;
}
