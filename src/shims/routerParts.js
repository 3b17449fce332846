// Of Expo Router the app uses a slot, links and paths. Its native stack and its bottom tabs, which nothing here shows, would come along
// with their headers, bars and colours: 150 KB of the first load. These are the names by which other parts of it ask for them.
import { createContext } from 'react';

export const BottomTabBarHeightContext = createContext(undefined);

/** A navigator that nobody asks for. */
export function createNativeStackNavigator() {
  return { Navigator: () => null, Screen: () => null, Group: () => null };
}
