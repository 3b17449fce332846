import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { kitAsTaken } from '@/core/document/kit';
import { asTaken } from '@/core/document/sound';
import type { Shelved } from '@/core/shelf/shelved';
import { readShelved } from '@/core/shelf/shelvedSchema';

/** Most own kits and sounds, and most that are remembered as used. */
export const MOST_SHELVED = 500;
const MOST_RECENT = 24;

/** The player's own kits and sounds, and what they like: of this device, not of a set. */
export interface Shelf {
  /** The newest last. */
  own: Shelved[];
  /** Ids of what is liked, and of what was taken, the latest first: also of what ships with the app. */
  liked: string[];
  recent: string[];
}

const isText = (one: unknown): one is string => typeof one === 'string';

/** Reads a stored shelf; what is not right in it is left out. */
export function readShelf(text: string | null): Shelf {
  try {
    const stored = JSON.parse(text ?? 'null') as Partial<Shelf> | null;
    const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
    return {
      own: list(stored?.own).flatMap((plain) => readShelved(plain) ?? []).slice(-MOST_SHELVED), // prettier-ignore
      liked: list(stored?.liked).filter(isText),
      recent: list(stored?.recent).filter(isText).slice(0, MOST_RECENT),
    };
  } catch {
    return EMPTY;
  }
}

const EMPTY: Shelf = { own: [], liked: [], recent: [] };

const slice = createSlice({
  name: 'shelf',
  initialState: EMPTY,
  reducers: {
    shelfLoaded: (_, { payload }: PayloadAction<Shelf>) => payload,
    /** A kit or sound is kept as it is now; one of the same id gives way to it. */
    shelved(shelf, { payload: { kit, sound, ...entry } }: PayloadAction<Shelved>) {
      const kept: Shelved = { ...entry, ...(kit && { kit: kitAsTaken(kit) }), ...(sound && { sound: asTaken(sound) }) };
      shelf.own = [...shelf.own.filter(({ id }) => id !== kept.id), kept].slice(-MOST_SHELVED);
    },
    shelvedChanged({ own }, { payload: { id, ...change } }: PayloadAction<Pick<Shelved, 'id'> & Partial<Pick<Shelved, 'name' | 'tags'>>>) {
      const found = own.find((one) => one.id === id);
      if (found) Object.assign(found, change);
    },
    /** It goes from the shelf; sets that use it keep their own. */
    unshelved(shelf, { payload: id }: PayloadAction<string>) {
      shelf.own = shelf.own.filter((one) => one.id !== id);
      shelf.liked = shelf.liked.filter((one) => one !== id);
      shelf.recent = shelf.recent.filter((one) => one !== id);
    },
    likedToggled(shelf, { payload: id }: PayloadAction<string>) {
      const { liked } = shelf;
      shelf.liked = liked.includes(id) ? liked.filter((one) => one !== id) : [...liked, id];
    },
    /** It was taken. */
    used(shelf, { payload: id }: PayloadAction<string>) {
      shelf.recent = [id, ...shelf.recent.filter((one) => one !== id)].slice(0, MOST_RECENT);
    },
  }, // prettier-ignore
});

export const { shelfLoaded, shelved, shelvedChanged, unshelved, likedToggled, used } = slice.actions;
export const shelfReducer = slice.reducer;
