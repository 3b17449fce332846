import { router, usePathname } from 'expo-router';
import { useEffect, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { PLACES, started } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { loadCharts } from '../feel/EarlyLate';
import { Guide, useAdvice } from '../guide/Guide';
import { MeantProvider } from '../guide/Meant';
import { usePadKeys } from '../pads/usePadKeys';
import { SimpleView } from '../simple/SimpleView';
import { noticesIn, placesIn, useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { Transport } from '../transport/Transport';
import { AudioLock, Notices } from './Notices';
import { OtherTab } from './OtherTab';
import { PLACE_SCREENS, panesIn, placeAt } from './placeScreens';
import { Panes } from './Panes';
import { Places } from './Places';
import { grown } from '../theme/type';
import { PADS_WIDTH } from '../shared/Sheet';
import { useInstrument } from '../shared/InstrumentContext';
import { whenIdle } from '../shared/whenIdle';
import { MapBar } from '../devices/MapBar';
import { loadSheets, Sheets } from './Sheets';
import { useFileDrop } from './useFileDrop';
import { useShortcuts } from './useShortcuts';

const START = '/start';
const BENCH = '/bench';

/** The frame of every place: the head on top, the places below or beside, sheets and notices over the middle. */
export function Shell({ children }: { children: ReactNode }) {
  const tokens = useTokens();
  const room = useRoom();
  const where = placesIn(room);
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
  const instrument = useInstrument();
  useEffect(() => {
    instrument.onPlace((place) => {
      const known = PLACES.find((one) => one === place);
      if (known) router.push(PLACE_SCREENS[known].href);
    });
  }, [instrument]);
  const isCovered = useAppSelector((state) => state.session.sheet !== null) && panesIn(room) === 'beside';
  const mapping = useAppSelector((state) => state.session.mapping);
  const advice = useAdvice();
  const simple = useAppSelector((state) => state.settings.simple.on);
  if (simple) return <SimpleView />;
  // A page of its own, before the instrument.
  if (here === START) return <View style={[styles.page, { backgroundColor: tokens.ground }]}>{children}</View>;
  const main = (
    <View style={styles.main}>
      <View role="banner" style={styles.banner}>
        <Text role="heading" aria-level={1} style={styles.unseen}>
          Chaffinch
        </Text>
        <Transport />
        <AudioLock />
        <OtherTab />
      </View>
      {advice && <Guide advice={advice} />}
      <View role="main" style={styles.place}>
        {here === BENCH ? (
          <View style={[styles.place, isCovered && styles.beside]}>{children}</View>
        ) : (
          <Panes here={placeAt(here)}>{children}</Panes>
        )}
        <Sheets />
        {noticesIn(room) === 'place' && <Notices />}
      </View>
      {mapping && <MapBar />}
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
  /** Notices reach down from it. */
  banner: { zIndex: 1 },
  /** A sheet lies on the rest. */
  beside: { maxWidth: grown(PADS_WIDTH + 16) },
  /** For screen readers. */
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
