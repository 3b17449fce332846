import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { useAppSelector } from '@/store/store';
import { WIDE } from '../theme/tokens';
import { PadGrid } from './PadGrid';
import { PADS_WIDTH } from '../shared/Sheet';
import { PadTools, PlayTools } from './PadTools';
import { PatternPicture } from './PatternPicture';
import { StepBar } from './StepBar';

/** The place *Pads*: tools above the pads; on a wide screen the current pattern stands beside them. */
export function PadsScreen() {
  const wide = useWindowDimensions().width >= WIDE;
  // A sheet lies there, and shows the pattern itself when it treats it.
  const sheet = useAppSelector((state) => state.session.sheet !== null);
  return (
    <View style={styles.screen}>
      <View style={[styles.play, wide && styles.playWide]}>
        <View style={styles.tools}>
          <PadTools />
          <PlayTools />
          <StepBar />
        </View>
        <PadGrid />
      </View>
      {wide && !sheet && <PatternPicture />}
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, flexDirection: 'row', padding: 8, gap: 12 },
  play: { flex: 1, gap: 8 },
  tools: { gap: 4 },
  playWide: { flexGrow: 0, flexBasis: PADS_WIDTH },
});
