import { createElement, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Place } from '@/store/settingsSlice';
import { useAppSelector } from '@/store/store';
import { Guard } from '../shared/Guard';
import { PaneProvider } from '../shared/PaneContext';
import { grown } from '../theme/type';
import { PADS_WIDTH } from '../shared/Sheet';
import { useRoom } from '../theme/room';
import { PLACE_SCREENS, panesIn } from './placeScreens';

/** The place that is shown, and beside or below it the one that the player has chosen for a second pane. */
export function Panes({ here, children }: { here: Place; children: ReactNode }) {
  const panes = panesIn(useRoom());
  const chosen = useAppSelector((state) => (panes ? state.settings.panes[panes][here] : null));
  // A sheet lies there.
  const sheet = useAppSelector((state) => state.session.sheet !== null);
  const second = chosen === null || (sheet && panes === 'beside') ? null : chosen;
  const beside = panes === 'beside';
  const pane = (place: Place) => [
    styles.pane,
    !beside && place === 'pads' && styles.larger,
    beside && place === 'pads' && (second !== null || sheet) && styles.pads,
  ];
  return (
    <View style={[styles.panes, beside && styles.row]}>
      <View style={pane(here)}>
        <PaneProvider value={second !== null}>
          <Guard key={here} name="This place">
            {children}
          </Guard>
        </PaneProvider>
      </View>
      {second && (
        <View role="region" aria-label={`Second pane: ${PLACE_SCREENS[second].name}`} style={pane(second)}>
          <PaneProvider value>
            <Guard key={second} name="The second pane">
              {createElement(PLACE_SCREENS[second].Screen)}
            </Guard>
          </PaneProvider>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  panes: { flex: 1, minHeight: 0 },
  row: { flexDirection: 'row' },
  pane: { flexGrow: 1, flexShrink: 1, flexBasis: 0, minWidth: 0, minHeight: 0 },
  /** Below others, pads are still to be struck without looking. */
  larger: { flexGrow: 1.3 },
  pads: { flexGrow: 0, flexShrink: 0, flexBasis: grown(PADS_WIDTH + 16) },
});
