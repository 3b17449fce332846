import { usePathname } from 'expo-router';
import { PLACES, paneChosen, type Place } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { PopMenu, type PopMenuItem } from '../shared/PopMenu';
import { useRoom } from '../theme/room';
import { PLACE_SCREENS, panesIn, placeAt } from './placeScreens';

/** What can stand beside or below the place that is shown, as items of a menu; none where there is no room for two. */
export function useSecondPaneItems(title: (name: string) => string): PopMenuItem[] {
  const dispatch = useAppDispatch();
  const panes = panesIn(useRoom());
  const here = placeAt(usePathname());
  const second = useAppSelector((state) => (panes ? state.settings.panes[panes][here] : null));
  // Nobody plays on a list of sets.
  if (!panes || here === 'sets') return [];
  const choices: (Place | null)[] = [null, ...PLACES.filter((place) => place !== here && place !== 'sets')];
  return choices.map((place) => ({
    title: title(place ? PLACE_SCREENS[place].name : 'None'),
    chosen: place === second,
    act: () => void dispatch(paneChosen({ panes, here, second: place })),
  }));
}

/** On a wide screen: chooses the place that stands beside the one that is shown. */
export function SecondPane() {
  const items = useSecondPaneItems((name) => name);
  if (items.length === 0) return null;
  const name = items.find(({ chosen }) => chosen)?.title ?? '';
  return <PopMenu label="Second pane" caption="Beside" text={name} description={name} items={items} />;
}
