import { ScrollView, StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { freeTrackId } from '@/core/document/set';
import { selectSet, selectTracks } from '@/store/selectors';
import { sheetShown } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useSharesRoom } from '../shared/PaneContext';
import { grown } from '../theme/type';
import { PADS_WIDTH } from '../shared/Sheet';
import { useRoom } from '../theme/room';
import { LaunchPlan } from './LaunchPlan';
import { walkCards } from './launchKeys';
import { LaunchTools } from './LaunchTools';
import { SectionStrip } from './SectionStrip';
import { TrackRow } from './TrackRow';
import { MAX_TRACKS } from '@/core/document/limits';
import { newPattern } from '@/core/document/pattern';
import { newTrack } from '@/core/document/track';
import { trackAdded } from '@/store/tracksSlice';

/** The place *Launch*: sections on top, a row of cards for each track, and with the wide screen for itself the next bars as a plan. */
export function LaunchScreen() {
  const shares = useSharesRoom();
  const wide = useRoom().layout === 'wide' && !shares;
  const sheet = useAppSelector((state) => state.session.sheet !== null);
  const tracks = useAppSelector(selectTracks);
  const meter = useAppSelector((state) => selectSet(state).meter);
  return (
    <View style={styles.screen}>
      <View style={[styles.main, wide && (sheet ? styles.left : styles.beside)]}>
        <SectionStrip />
        <ScrollView style={styles.rows}>
          <View {...{ onKeyDown: walkCards }}>
            {tracks.map((track) => (
              <TrackRow key={track.id} track={track} meter={meter} />
            ))}
          </View>
          <NewTrack />
        </ScrollView>
        <LaunchTools />
      </View>
      {wide && !sheet && <LaunchPlan />}
    </View>
  );
}

function NewTrack() {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const full = useAppSelector((state) => selectSet(state).order.length >= MAX_TRACKS);
  const add = () => {
    const set = selectSet(store.getState());
    const id = freeTrackId(set);
    const track = newTrack(`Track ${id + 1}`, id % 8, [newPattern(0, set.meter)]);
    dispatch(trackAdded({ ...track, id }));
    dispatch(sheetShown('track'));
  };
  return (
    <View style={styles.add}>
      <ControlButton label="Add track" icon="plus" text="Add track" disabled={full} onPress={add} />
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, minHeight: 0, flexDirection: 'row' },
  main: { flex: 1, minHeight: 0, minWidth: 0, paddingTop: 4, gap: 4 },
  beside: { flexGrow: 3 },
  /** Sheets leave Lift and Stop all in reach. */
  left: { flexGrow: 0, flexShrink: 0, flexBasis: grown(PADS_WIDTH + 16) },
  rows: { flex: 1, minHeight: 0, paddingLeft: 8 },
  add: { paddingVertical: 8, paddingRight: 8, alignItems: 'flex-start' },
});
