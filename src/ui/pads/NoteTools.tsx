import { StyleSheet, View } from 'react-native';
import { MOST_OCTAVES, noteName } from '@/core/document/tones';
import { selectShown, selectTrack } from '@/store/selectors';
import { sheetToggled } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ArpeggioChoice } from '../shared/ArpeggioChoice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { StickyHold } from '../shared/StickyHold';
import { octaveSet, tonesSet } from '@/store/tracksSlice';

/** For a track that plays notes: higher and lower by octaves, and which notes lie on the pads. */
export function NoteTools() {
  const dispatch = useAppDispatch();
  const track = useAppSelector(selectShown);
  const tones = useAppSelector((state) => selectTrack(state).tones);
  if (!tones) return null;
  const { octave, root, scale, chromatic, chord } = tones;
  const shift = (by: number) => dispatch(octaveSet({ track, octave: octave + by }));
  return (
    <>
      <View style={styles.tools}>
        <ControlButton
          label="Octave down"
          maps={{ do: 'octaveDown' }}
          icon="minus"
          disabled={octave <= -MOST_OCTAVES}
          onPress={() => shift(-1)}
        />
        <ControlButton
          label="Octave"
          caption="Octave"
          text={octave > 0 ? `+${octave}` : String(octave)}
          numeric
          onPress={() => dispatch(octaveSet({ track, octave: 0 }))}
          style={styles.octave}
        />
        <ControlButton
          label="Octave up"
          maps={{ do: 'octaveUp' }}
          icon="plus"
          disabled={octave >= MOST_OCTAVES}
          onPress={() => shift(1)}
        />
        <ControlButton
          label="All twelve notes"
          caption="All twelve"
          text={chromatic ? 'On' : 'Off'}
          pressed={chromatic}
          onPress={() => dispatch(tonesSet({ track, tones: { ...tones, chromatic: !chromatic } }))}
          style={styles.grow}
        />
        <ControlButton
          label="Scale"
          caption={chord ? `Scale · ${chord}s` : 'Scale'}
          text={`${noteName(60 + root).replace(/\d/, '')} ${scale}`}
          onPress={() => dispatch(sheetToggled('track'))}
          style={styles.scale}
        />
      </View>
      <View style={styles.held}>
        <ArpeggioChoice track={track} tones={tones} style={styles.half} />
        <View style={styles.half}>
          <SustainKey />
        </View>
      </View>
    </>
  );
}

/** What is let go goes on: while it is held, or after a short touch until it is touched again. */
function SustainKey() {
  const instrument = useInstrument();
  const on = useAppSelector((state) => state.session.sustaining);
  return (
    <StickyHold
      label="Sustain"
      maps={{ do: 'sustain' }}
      text="Sustain"
      on={on}
      onSet={(held) => instrument.hands.sustain(held, performance.now())}
    />
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 4, flexGrow: 1, flexBasis: 320 },
  held: { flexDirection: 'row', gap: 4, flexGrow: 1, flexBasis: 180 },
  half: { flexGrow: 1, minWidth: 80 },
  octave: { minWidth: 56 },
  grow: { flexGrow: 1 },
  scale: { flexGrow: 2, maxWidth: 170 },
});
