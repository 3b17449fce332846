import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { sheetToggled } from '@/store/sessionSlice';
import { simpleViewSet } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { PadGrid } from '../pads/PadGrid';
import { ControlButton } from '../shared/ControlButton';
import { HoldButton } from '../shared/HoldButton';
import { AudioLock, Notices } from '../shell/Notices';
import { Sheets } from '../shell/Sheets';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { UndoKey } from '../transport/History';
import { PlayControls } from '../transport/PlayControls';
import { Position } from '../transport/Position';
import { SaveMark } from '../transport/SaveMark';

/** Four to eight large pads, play, record and undo, and nothing else: for a first lesson, or a small hand. */
export function SimpleView() {
  const tokens = useTokens();
  const { layout } = useRoom();
  const { pads, pinned } = useAppSelector((state) => state.settings.simple);
  return (
    <View style={[styles.page, { backgroundColor: tokens.ground }]}>
      <View role="banner">
        <Text role="heading" aria-level={1} style={styles.unseen}>
          Chaffinch, simple view
        </Text>
        <View
          role="toolbar"
          aria-label="Transport"
          style={[styles.head, layout === 'upright' && styles.wrap, layout === 'lying' && styles.low]}
        >
          <View style={styles.play}>
            <PlayControls />
          </View>
          <View style={styles.rest}>
            <UndoKey />
            <Position small />
            <SaveMark />
            <View style={styles.gap} />
            {!pinned && <ChoosePads />}
            <Leave pinned={pinned} />
          </View>
        </View>
        <AudioLock />
      </View>
      <View role="main" style={styles.main}>
        <PadGrid shown={pads} />
        {!pinned && <Sheets />}
        <Notices />
      </View>
    </View>
  );
}

function ChoosePads() {
  const dispatch = useAppDispatch();
  const open = useAppSelector((state) => state.session.sheet === 'simple');
  return (
    <ControlButton
      label="Choose pads"
      icon="tune-vertical"
      pressed={open}
      onPress={() => dispatch(sheetToggled('simple'))}
    />
  );
}

/** For how long a pinned view is held until it is left, ms. */
const HOLD_MS = 2000;

function Leave({ pinned }: { pinned: boolean }) {
  const dispatch = useAppDispatch();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const [held, setHeld] = useState(false);
  useEffect(() => () => clearTimeout(timer.current), []);
  const leave = () => dispatch(simpleViewSet({ on: false, pinned: false }));
  if (!pinned) return <ControlButton label="Leave simple view" icon="close" onPress={leave} />;
  return (
    <HoldButton
      label="Leave simple view"
      text={held ? 'Keep holding' : 'Hold to leave'}
      description="Hold it for two seconds"
      onHold={(now) => {
        setHeld(now);
        clearTimeout(timer.current);
        if (now) timer.current = setTimeout(leave, HOLD_MS);
      }}
    />
  );
}

const styles = StyleSheet.create({
  page: { flex: 1, minWidth: 0 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 8, padding: 8, paddingBottom: 0 },
  wrap: { flexWrap: 'wrap' },
  low: { padding: 3 },
  play: { flexDirection: 'row', flexGrow: 1, flexShrink: 1, flexBasis: 280, maxWidth: 480 },
  rest: { flexDirection: 'row', flexGrow: 1, alignItems: 'center', gap: 8 },
  gap: { flexGrow: 1 },
  main: { flex: 1, minHeight: 0, padding: 8 },
  /** For screen readers. */
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
