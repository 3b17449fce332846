import { lazyPlace } from '../shared/lazyPlace';

const load = () => import('./sounds');

/** The place *Sounds*: kits and the sounds of pads, found, tried and shaped in the running beat. */
export const SoundsScreen = lazyPlace(async () => ({ default: (await load()).SoundsPlace }));

/** Its sheets, which come with it. */
export const SOUND_SHEETS = {
  shelf: lazyPlace(async () => ({ default: (await load()).ShelfSheet })),
  kit: lazyPlace(async () => ({ default: (await load()).KitSheet })),
  cuts: lazyPlace(async () => ({ default: (await load()).CutsSheet })),
  also: lazyPlace(async () => ({ default: (await load()).AlsoSheet })),
  lfo: lazyPlace(async () => ({ default: (await load()).LfoSheet })),
  record: lazyPlace(async () => ({ default: (await load()).RecordSheet })),
  mix: lazyPlace(async () => ({ default: (await load()).MixSheet })),
  slice: lazyPlace(async () => ({ default: (await load()).SliceSheet })),
};
