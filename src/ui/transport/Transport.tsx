import { StyleSheet, View } from 'react-native';
import { useAppSelector } from '@/store/store';
import { Flyway } from '../flyway/Flyway';
import { Notices } from '../shell/Notices';
import { Places } from '../shell/Places';
import { noticesIn, placesIn, useRoom } from '../theme/room';
import { ClickControls } from './ClickControls';
import { RedoKey, UndoKey } from './History';
import { PlayControls } from './PlayControls';
import { Position } from './Position';
import { SaveMark } from './SaveMark';
import { PatternKey, SetMenu } from './SetMenu';
import { TempoControl, TempoKey } from './TempoControl';

/** From this width on a wide screen's head has room for tempo and click beside all else. */
const ROOMY = 1240;
/** Up to this width the tempo has no room beside the click. */
const NARROW = 340;
const FLYWAY_PX = { upright: 66, lying: 50, wide: 84 } as const;

/**
 * Always on the screen: the set, undo, play and record, position, tempo, and the Flyway. Tempo and click fold away where they
 * would take room from the place below.
 */
export function Transport() {
  const room = useRoom();
  const unfolded = useAppSelector((state) => state.settings.unfolded.time);
  const roomy = room.layout === 'wide' && room.width >= ROOMY;
  const flyway = (
    <>
      <Flyway height={Math.round(FLYWAY_PX[room.layout] * room.type)} />
      {noticesIn(room) === 'flyway' && <Notices />}
    </>
  );
  const time = (
    <>
      <TempoControl />
      <ClickControls />
    </>
  );
  if (room.layout === 'lying') {
    return (
      <>
        <View style={styles.lying}>
          {placesIn(room) === 'head' && <Places where="head" />}
          <View role="toolbar" aria-label="Transport" style={styles.row}>
            <SetMenu small />
            <PlayControls small />
            <Position small />
            <TempoKey />
            <SaveMark />
            <UndoKey />
          </View>
          <View style={styles.beside}>{flyway}</View>
        </View>
        {unfolded && (
          <View role="toolbar" aria-label="Tempo and click" style={[styles.row, styles.inset]}>
            <PatternKey />
            <RedoKey />
            {time}
          </View>
        )}
      </>
    );
  }
  const set = (
    <>
      <View style={styles.names}>
        <SetMenu />
        <PatternKey />
      </View>
      <SaveMark />
      <UndoKey />
      <RedoKey />
    </>
  );
  const play = (
    <>
      <PlayControls small={room.width < 360} />
      <Position />
      {!roomy && <TempoKey />}
    </>
  );
  const wide = room.layout === 'wide';
  return (
    <>
      <View role="toolbar" aria-label="Transport" style={wide ? styles.wide : styles.upright}>
        <View style={[styles.row, wide && styles.share]}>{set}</View>
        <View style={[styles.row, wide && styles.play]}>{play}</View>
        {roomy && <View style={[styles.row, styles.time]}>{time}</View>}
        {!roomy && !wide && unfolded && <View style={[styles.row, room.width < NARROW && styles.wrapped]}>{time}</View>}
      </View>
      {!roomy && wide && unfolded && (
        <View role="toolbar" aria-label="Tempo and click" style={[styles.row, styles.inset, styles.time, styles.right]}>
          {time}
        </View>
      )}
      <View>{flyway}</View>
    </>
  );
}

const styles = StyleSheet.create({
  upright: { paddingHorizontal: 8, paddingTop: 2, paddingBottom: 4, gap: 2 },
  wide: { paddingHorizontal: 12, paddingVertical: 6, gap: 16, flexDirection: 'row', alignItems: 'center' },
  lying: { flexDirection: 'row', alignItems: 'center', height: 56, paddingHorizontal: 4, gap: 4 },
  row: { flexDirection: 'row', gap: 4, alignItems: 'stretch' },
  wrapped: { flexWrap: 'wrap' },
  inset: { paddingHorizontal: 8, paddingBottom: 4 },
  names: { flex: 1, minWidth: 0, flexDirection: 'row' },
  share: { flex: 1, minWidth: 0, alignItems: 'center' },
  beside: { flex: 1, minWidth: 40 },
  time: { width: 392 },
  right: { alignSelf: 'flex-end' },
  play: { width: 400 },
});
