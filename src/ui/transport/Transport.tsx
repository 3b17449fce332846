import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { sheetToggled } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { WIDE } from '../theme/tokens';
import { ClickControls } from './ClickControls';
import { History } from './History';
import { PlayControls } from './PlayControls';
import { Position } from './Position';
import { PatternKey, SetMenu } from './SetMenu';
import { TempoControl } from './TempoControl';

/** Always on the screen: the set, undo, play and record, position, tempo and click. */
export function Transport() {
  const dispatch = useAppDispatch();
  const setupOpen = useAppSelector((state) => state.session.sheet === 'setup');
  const wide = useWindowDimensions().width >= WIDE;
  const set = (
    <View style={[styles.row, wide && styles.set]}>
      <View style={styles.grow}>
        <SetMenu />
        <PatternKey />
      </View>
      <History />
      <ControlButton
        label="Setup"
        icon="tune-vertical"
        pressed={setupOpen}
        onPress={() => dispatch(sheetToggled('setup'))}
      />
    </View>
  );
  const play = (
    <View style={[styles.row, wide && styles.play]}>
      <PlayControls />
      <Position />
    </View>
  );
  const time = (
    <View style={[styles.row, wide && styles.time]}>
      <TempoControl />
      <ClickControls />
    </View>
  );
  return (
    <View role="toolbar" aria-label="Transport" style={wide ? styles.wide : styles.phone}>
      {set}
      {play}
      {time}
    </View>
  );
}

const styles = StyleSheet.create({
  phone: { paddingHorizontal: 8, paddingTop: 4, gap: 6 },
  wide: { paddingHorizontal: 12, paddingVertical: 8, gap: 16, flexDirection: 'row', alignItems: 'center' },
  row: { flexDirection: 'row', gap: 4, alignItems: 'stretch' },
  grow: { flex: 1, minWidth: 0, flexDirection: 'row' },
  set: { flex: 1, minWidth: 0, alignItems: 'center' },
  time: { width: 392 },
  play: { width: 380 },
});
