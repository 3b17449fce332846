import { StyleSheet, View } from 'react-native';
import { lanesOf } from '@/core/document/lanes';
import { selectTrack } from '@/store/selectors';
import { SIMPLE_PADS, simplePadToggled, simpleViewSet } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';

/** Which pads the simple view has, and whether it is pinned. */
export default function SimpleSheet() {
  const dispatch = useAppDispatch();
  const pads = lanesOf(useAppSelector(selectTrack));
  const chosen = useAppSelector((state) => state.settings.simple.pads);
  const { least, most } = SIMPLE_PADS;
  return (
    <Sheet title="Pads of the simple view" about="Choose what is within reach here, and pin the view for a lesson.">
      <SheetTitle>{`Pads: ${chosen.length}, of ${least} to ${most}`}</SheetTitle>
      <View role="group" aria-label="Pads" style={styles.pads}>
        {pads.map(({ name }, pad) => {
          const on = chosen.includes(pad);
          return (
            <ControlButton
              key={pad}
              label={`Show ${name}`}
              text={name}
              pressed={on}
              disabled={on ? chosen.length <= least : chosen.length >= most}
              onPress={() => dispatch(simplePadToggled(pad))}
              style={styles.pad}
            />
          );
        })}
      </View>
      <SheetTitle>Pin</SheetTitle>
      <Words>Pinned, the view opens again with the app, and its way out must be held for two seconds.</Words>
      <ControlButton
        label="Pin simple view"
        icon="pin-outline"
        text="Pin simple view"
        onPress={() => dispatch(simpleViewSet({ pinned: true }))}
      />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  pads: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  pad: { flexGrow: 1, flexBasis: '23%' },
});
