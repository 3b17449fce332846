import { ScrollView, StyleSheet, View } from 'react-native';
import { selectShown, selectTracks } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { FEATHERS } from '../theme/tokens';
import { trackShown } from '@/store/stageSlice';

/** Which track pads play and Steps shows. */
export function TrackChoice() {
  const dispatch = useAppDispatch();
  const tracks = useAppSelector(selectTracks);
  const shown = useAppSelector(selectShown);
  if (tracks.length === 1) return null;
  return (
    <ScrollView
      horizontal
      role="group"
      aria-label="Tracks"
      showsHorizontalScrollIndicator={false}
      style={styles.strip}
      contentContainerStyle={styles.row}
    >
      {tracks.map(({ id, name, colour }) => (
        <ControlButton
          key={id}
          label={`Show ${name}`}
          text={name}
          pressed={id === shown}
          onPress={() => dispatch(trackShown(id))}
        >
          <View style={[styles.chip, { backgroundColor: FEATHERS[colour]!.colour }]} />
        </ControlButton>
      ))}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  strip: { flexGrow: 0 },
  row: { gap: 4 },
  chip: { width: 8, height: 18, borderRadius: 4 },
});
