import { BarlowCondensed_500Medium } from '@expo-google-fonts/barlow-condensed/500Medium';
import { BarlowCondensed_600SemiBold } from '@expo-google-fonts/barlow-condensed/600SemiBold';
import { MartianMono_600SemiBold } from '@expo-google-fonts/martian-mono/600SemiBold';
import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';

/** What must be loaded before the first picture: the two typefaces and the icons, all shipped with the app. */
export const fontFiles = {
  BarlowCondensed_500Medium,
  BarlowCondensed_600SemiBold,
  MartianMono_600SemiBold,
  ...MaterialCommunityIcons.font,
};
