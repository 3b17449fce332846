import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { Snackbar, Text } from 'react-native-paper';
import { cancelExport } from '@/storage/exportFiles';
import { exportBundle } from '@/storage/setFiles';
import { noticeDismissed, type Notice } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { undone } from '@/store/undoable';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { Progress } from '../shared/Progress';
import { useTokens } from '../theme/theme';
import { RADIUS, TOUCH } from '../theme/tokens';

const SHORT_MS = 5000;
const LONG_MS = 20000;
/** Longer texts stay longer. */
const LONG_TEXT = 60;

/** What the app has to say, and the progress of an export. Nothing here stops the music or takes the focus. */
export function Notices() {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const tokens = useTokens();
  const notice = useAppSelector((state) => state.session.notice) ?? undefined;
  const exporting = useAppSelector((state) => state.session.exporting);
  return (
    <>
      {exporting !== null && (
        <View style={[styles.progress, { backgroundColor: tokens.slate, borderColor: tokens.rule }]}>
          <View style={styles.bar}>
            <Text variant="bodyMedium">Exporting WAV: {Math.round(exporting * 100)} %</Text>
            <Progress label="Export progress" done={exporting} />
          </View>
          <ControlButton label="Cancel export" text="Cancel" onPress={cancelExport} />
        </View>
      )}
      <Snackbar
        key={notice?.id}
        visible={notice !== undefined}
        // At the top: the lower pads are the ones that are played most.
        wrapperStyle={styles.notice}
        style={styles.slim}
        duration={notice && notice.text.length > LONG_TEXT ? LONG_MS : SHORT_MS}
        onDismiss={() => notice && dispatch(noticeDismissed(notice.id))}
        action={notice && offerOf(notice, store)}
      >
        {notice?.text ?? ''}
      </Snackbar>
    </>
  );
}

/** The key beside a notice. */
function offerOf({ undo, bundle }: Notice, store: Store) {
  const contentStyle = styles.action;
  if (bundle) return { label: 'Bundle', contentStyle, onPress: () => void exportBundle(store) };
  // The transport's own Undo button is the one of that plain name.
  if (undo) return { label: 'Undo', accessibilityLabel: 'Undo this', contentStyle, onPress: () => void store.dispatch(undone()) }; // prettier-ignore
  return { label: 'Close', accessibilityLabel: 'Close notice', contentStyle };
}

/** While there is no sound: why, for as long as it lasts, and the key to it. */
export function AudioLock() {
  const instrument = useInstrument();
  const audio = useAppSelector((state) => state.session.audio);
  const problem = useAppSelector((state) => state.session.audioProblem);
  if (audio === 'running' || audio === 'starting') return null;
  const failed = audio === 'failed';
  return (
    <View role="alert" style={styles.lock}>
      {failed && (
        <Text variant="bodyMedium" style={styles.why}>
          {problem} Your set is safe; the song stands where it was heard last.
        </Text>
      )}
      <ControlButton
        tone="primary"
        label="Start audio"
        icon="volume-high"
        text={failed ? 'Start audio' : 'Start audio: the browser waits for a touch'}
        onPress={() => (failed ? void instrument.restart() : instrument.unlock())}
        style={styles.start}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  action: { minHeight: TOUCH },
  lock: { paddingHorizontal: 8, paddingTop: 6, gap: 6, flexDirection: 'row', flexWrap: 'wrap' },
  why: { flexGrow: 1, flexShrink: 1, flexBasis: 220 },
  start: { flexGrow: 1 },
  notice: { top: 0, bottom: 'auto', left: 0, zIndex: 4 },
  // No higher than the Flyway, if the text fits into a line.
  slim: { marginVertical: 2 },
  progress: {
    position: 'absolute',
    left: 8,
    right: 8,
    top: 2,
    zIndex: 3,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    // No higher than the lowest Flyway, either.
    paddingHorizontal: 12,
    paddingVertical: 1,
    borderRadius: RADIUS,
    borderWidth: 1,
  },
  bar: { flex: 1, gap: 8 },
});
