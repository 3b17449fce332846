import BarlowCondensed_500Medium from './typefaces/BarlowCondensed_500Medium.woff2';
import BarlowCondensed_600SemiBold from './typefaces/BarlowCondensed_600SemiBold.woff2';
import MartianMono_600SemiBold from './typefaces/MartianMono_600SemiBold.woff2';

/** What must be loaded before the first picture: the typefaces, shipped with the app. `npm run fonts` makes them. */
export const fontFiles = {
  BarlowCondensed_500Medium,
  BarlowCondensed_600SemiBold,
  MartianMono_600SemiBold,
};
