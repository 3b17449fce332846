import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { useAppSelector } from '@/store/store';
import { WIDE } from '../theme/tokens';
import { PadGrid } from './PadGrid';
import { PADS_WIDTH } from '../shared/Sheet';
import { LaunchPads } from './LaunchPads';
import { NoteTools } from './NoteTools';
import { PadTools, PlayTools } from './PadTools';
import { StepsPanel } from '../steps/StepsPanel';
import { StepBar } from './StepBar';
import { StepPads, StepPadsBar } from './StepPads';

/** The place *Pads*: tools above the pads; on a wide screen the steps of the current pattern stand beside them. */
export function PadsScreen() {
  const wide = useWindowDimensions().width >= WIDE;
  // A sheet lies there.
  const sheet = useAppSelector((state) => state.session.sheet !== null);
  const padsLaunch = useAppSelector((state) => state.session.padsLaunch);
  const padsAreSteps = useAppSelector((state) => state.steps.padSteps !== null);
  return (
    <View style={styles.screen}>
      <View style={[styles.play, wide && styles.playWide]}>
        <View style={styles.tools}>
          <PadTools />
          <PlayTools />
          <NoteTools />
          <StepBar />
          <StepPadsBar />
        </View>
        {padsLaunch ? <LaunchPads what={padsLaunch} /> : padsAreSteps ? <StepPads /> : <PadGrid />}
      </View>
      {wide && !sheet && <StepsPanel bars={1} wide={false} />}
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, flexDirection: 'row', padding: 8, gap: 12 },
  play: { flex: 1, gap: 8 },
  tools: { gap: 4 },
  playWide: { flexGrow: 0, flexBasis: PADS_WIDTH },
});
