import { ScrollView, StyleSheet, View } from 'react-native';
import { selectSet } from '@/store/selectors';
import { trackShown } from '@/store/setSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { FEATHERS } from '../theme/tokens';

/** Which track pads play and Steps shows. */
export function TrackChoice() {
  const dispatch = useAppDispatch();
  const { tracks, shown } = useAppSelector(selectSet);
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
      {tracks.map(({ channel, name, colour }) => (
        <ControlButton
          key={channel}
          label={`Show ${name}`}
          text={name}
          pressed={channel === shown}
          onPress={() => dispatch(trackShown(channel))}
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
