import type { ComponentType } from 'react';
import { PLACES, type PanesWay, type Place } from '@/store/settingsSlice';
import { LaunchScreen } from '../launch/LaunchScreen';
import { PadsScreen } from '../pads/PadsScreen';
import { RunsScreen } from '../runs/RunsScreen';
import { SetsScreen } from '../sets/SetsScreen';
import { SoundsScreen } from '../sounds/SoundsScreen';
import { StepsScreen } from '../steps/StepsScreen';
import type { Room } from '../theme/room';

/** The places that exist. Each next one is added here, to the settings' `PLACES`, and in `src/app`. */
export const PLACE_SCREENS: Record<Place, { name: string; href: `/${Place}`; Screen: ComponentType }> = {
  pads: { name: 'Pads', href: '/pads', Screen: PadsScreen },
  steps: { name: 'Steps', href: '/steps', Screen: StepsScreen },
  launch: { name: 'Launch', href: '/launch', Screen: LaunchScreen },
  sounds: { name: 'Sounds', href: '/sounds', Screen: SoundsScreen },
  runs: { name: 'Runs', href: '/runs', Screen: RunsScreen },
  sets: { name: 'Sets', href: '/sets', Screen: SetsScreen },
};

/** The place of a path; an address that is none is on its way to the pads. */
export function placeAt(path: string): Place {
  return PLACES.find((place) => PLACE_SCREENS[place].href === path) ?? 'pads';
}

/** Least room for a second pane below the first, px: tablets held upright. */
const STACKED = { width: 700, height: 900 };

/** How two places can stand together: beside each other, one below the other, or not at all. */
export function panesIn({ layout, width, height }: Room): PanesWay | null {
  if (layout === 'wide') return 'beside';
  return layout === 'upright' && width >= STACKED.width && height >= STACKED.height ? 'stacked' : null;
}

/** The head of a low, narrow screen has room for four: the last is the one that is shown, or Sounds. The Set menu opens the others. */
export function headPlaces(here: Place): Place[] {
  const last = here === 'runs' || here === 'sets' ? here : 'sounds';
  return ['pads', 'steps', 'launch', last];
}
