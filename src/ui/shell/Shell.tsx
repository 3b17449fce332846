import { usePathname } from 'expo-router';
import { useEffect, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { started } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { loadCharts } from '../feel/EarlyLate';
import { Guide, useAdvice } from '../guide/Guide';
import { MeantProvider } from '../guide/Meant';
import { usePadKeys } from '../pads/usePadKeys';
import { SimpleView } from '../simple/SimpleView';
import { placesIn, useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { Transport } from '../transport/Transport';
import { AudioLock, Notices } from './Notices';
import { OtherTab } from './OtherTab';
import { PLACE_SCREENS, placeAt } from './placeScreens';
import { Panes } from './Panes';
import { Places } from './Places';
import { whenIdle } from '../shared/whenIdle';
import { loadSheets, Sheets } from './Sheets';
import { useFileDrop } from './useFileDrop';
import { useShortcuts } from './useShortcuts';

const START = '/start';

/** The frame of every place: the head on top, the places below or beside, sheets and notices over the middle. */
export function Shell({ children }: { children: ReactNode }) {
  const tokens = useTokens();
  const where = placesIn(useRoom());
  const here = usePathname();
  const dispatch = useAppDispatch();
  usePadKeys();
  // The engine's code comes first.
  const engineThere = useAppSelector((state) => state.session.audio !== 'starting');
  useEffect(() => {
    if (engineThere) whenIdle(loadSheets, loadCharts);
  }, [engineThere]);
  useShortcuts();
  useFileDrop();
  // Whoever comes straight to a place has begun, too: the start page offers the way back.
  const isPlace = here === PLACE_SCREENS[placeAt(here)].href;
  useEffect(() => {
    if (isPlace) dispatch(started());
  }, [dispatch, isPlace]);
  const advice = useAdvice();
  const simple = useAppSelector((state) => state.settings.simple.on);
  if (simple) return <SimpleView />;
  // A page of its own, before the instrument.
  if (here === START) return <View style={[styles.page, { backgroundColor: tokens.ground }]}>{children}</View>;
  const main = (
    <View style={styles.main}>
      <View role="banner">
        <Text role="heading" aria-level={1} style={styles.unseen}>
          Chaffinch
        </Text>
        <Transport />
        <AudioLock />
        <OtherTab />
      </View>
      {advice && <Guide advice={advice} />}
      <View role="main" style={styles.place}>
        <Panes here={placeAt(here)}>{children}</Panes>
        <Sheets />
        <Notices />
      </View>
    </View>
  );
  return (
    <MeantProvider value={advice?.control ?? null}>
      <View
        style={[styles.page, { backgroundColor: tokens.ground, flexDirection: where === 'rail' ? 'row' : 'column' }]}
      >
        {where === 'rail' && <Places where="rail" />}
        {main}
        {where === 'bottom' && <Places where="bottom" />}
      </View>
    </MeantProvider>
  );
}

const styles = StyleSheet.create({
  page: { flex: 1 },
  main: { flex: 1, minHeight: 0 },
  place: { flex: 1, minHeight: 0 },
  /** For screen readers. */
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
