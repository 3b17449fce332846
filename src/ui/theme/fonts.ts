import { BarlowCondensed_500Medium } from '@expo-google-fonts/barlow-condensed/500Medium';
import { BarlowCondensed_600SemiBold } from '@expo-google-fonts/barlow-condensed/600SemiBold';
import { MartianMono_600SemiBold } from '@expo-google-fonts/martian-mono/600SemiBold';

/** What must be loaded before the first picture: the typefaces, shipped with the app. */
export const fontFiles = {
  BarlowCondensed_500Medium,
  BarlowCondensed_600SemiBold,
  MartianMono_600SemiBold,
};
