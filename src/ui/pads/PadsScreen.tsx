import { ScrollView, StyleSheet, View } from 'react-native';
import { useAppSelector } from '@/store/store';
import { useRoom } from '../theme/room';
import { TOUCH } from '../theme/tokens';
import { LaunchPads } from './LaunchPads';
import { padColumns } from './PadBoard';
import { PadGrid } from './PadGrid';
import { PadTools } from './PadTools';
import { StepPads } from './StepPads';

/** The place *Pads*: tools above the pads, or at their side where the screen lies and has no height for both. */
export function PadsScreen() {
  const room = useRoom();
  const lying = room.layout === 'lying';
  const atSide = lying && padColumns(room) === 4;
  const padsLaunch = useAppSelector((state) => state.session.padsLaunch);
  const padsAreSteps = useAppSelector((state) => state.steps.padSteps !== null);
  return (
    <View style={[styles.screen, (lying || room.width < 360) && styles.tight]}>
      <View style={[styles.play, atSide && styles.side]}>
        <ScrollView style={atSide ? styles.column : styles.tools}>
          <PadTools column={atSide} />
        </ScrollView>
        {padsLaunch ? <LaunchPads what={padsLaunch} /> : padsAreSteps ? <StepPads /> : <PadGrid />}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, minHeight: 0, padding: 8 },
  tight: { padding: 3 },
  play: { flex: 1, minWidth: 0, gap: 6 },
  side: { flexDirection: 'row-reverse' },
  // Pads keep the height that they need.
  tools: { flexGrow: 0, flexShrink: 1, minHeight: TOUCH },
  column: { flexGrow: 0, flexShrink: 0, width: 116 },
});
