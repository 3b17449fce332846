import MiniSearch from 'minisearch';
import { useMemo } from 'react';
import { soundsOf, type Shelved } from '@/core/shelf/shelved';
import { SHIPPED_KITS } from '@/core/shelf/shippedKits';
import { SHIPPED_TONES } from '@/core/shelf/shippedTones';
import { useAppSelector } from '@/store/store';

/** What of the shelf is looked at. */
export interface ShelfWish {
  what: 'kits' | 'sounds' | 'voices';
  /** Words of names and tags. */
  text: string;
  /** Every one of them. */
  tags: readonly string[];
  which: 'all' | 'liked' | 'recent' | 'own';
}

/** Everything of a kind that there is: the player's own first, the newest of them before the others. */
function useEntries(what: ShelfWish['what']): Shelved[] {
  const own = useAppSelector((state) => state.shelf.own);
  return useMemo(() => {
    if (what === 'voices') return [...SHIPPED_TONES];
    const mine = [...own].reverse();
    const kits = [...mine, ...SHIPPED_KITS].filter(({ kit }) => kit);
    return what === 'kits' ? kits : [...mine.filter(({ sound }) => sound), ...kits.flatMap(soundsOf)];
  }, [own, what]);
}

/** The entries that were wished for, and all of that kind. */
export function useShelf(wish: ShelfWish): { found: Shelved[]; all: Shelved[] } {
  const all = useEntries(wish.what);
  const { own, liked, recent } = useAppSelector((state) => state.shelf);
  const index = useMemo(() => {
    const search = new MiniSearch<Shelved & { from: string }>({
      fields: ['name', 'tags', 'from'],
      extractField: (entry, field) =>
        field === 'tags' ? entry.tags.join(' ') : entry[field as 'id' | 'name' | 'from'],
      searchOptions: { prefix: true, fuzzy: 0.2, combineWith: 'AND', boost: { name: 2 } },
    });
    search.addAll(all.map((entry) => ({ ...entry, from: entry.sound?.from ?? '' })));
    return search;
  }, [all]);
  const { text, tags, which } = wish;
  const found = useMemo(() => {
    const byId = new Map(all.map((entry) => [entry.id, entry]));
    const isOwn = new Set(own.map(({ id }) => id));
    const matching = text.trim() === '' ? all : index.search(text).map(({ id }) => byId.get(id as string)!);
    const chosen = matching.filter(({ id, tags: has }) => {
      if (which === 'liked' && !liked.includes(id)) return false;
      if (which === 'own' && !isOwn.has(id.split('/')[0]!)) return false;
      if (which === 'recent' && !recent.includes(id)) return false;
      return tags.every((tag) => has.includes(tag));
    });
    return which === 'recent' ? chosen.sort((a, b) => recent.indexOf(a.id) - recent.indexOf(b.id)) : chosen;
  }, [all, index, text, tags, which, own, liked, recent]);
  return { found, all };
}
