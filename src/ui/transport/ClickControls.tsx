import { View } from 'react-native';
import type { CountIn } from '@/core/document/set';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { countInSet, metronomeToggled } from '@/store/timeSlice';

const NEXT: Record<CountIn, CountIn> = { 0: 1, 1: 2, 2: 0 };
const WORDS: Record<CountIn, string> = { 0: 'None', 1: '1 bar', 2: '2 bars' };

/** The metronome's switch and the number of bars counted before recording. */
export function ClickControls() {
  const dispatch = useAppDispatch();
  const on = useAppSelector((state) => selectSet(state).metronome.on);
  const countIn = useAppSelector((state) => selectSet(state).countIn);
  return (
    <View style={{ flexDirection: 'row', gap: 4 }}>
      <ControlButton
        label="Metronome"
        maps={{ do: 'metronome' }}
        caption="Click"
        text={on ? 'On' : 'Off'}
        pressed={on}
        onPress={() => dispatch(metronomeToggled())}
        style={{ minWidth: 52 }}
      />
      <ControlButton
        label="Count-in"
        caption="Count-in"
        text={WORDS[countIn]}
        description={WORDS[countIn]}
        onPress={() => dispatch(countInSet(NEXT[countIn]))}
        style={{ minWidth: 60 }}
      />
    </View>
  );
}
