import { View } from 'react-native';
import { formatTempo, parseTempo } from '@/core/time/tempo';
import { MAX_TEMPO, MIN_TEMPO } from '@/core/time/ticks';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { foldToggled } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { NumberField } from '../shared/NumberField';
import { transportStyles as styles } from './transportStyles';
import { tempoSet } from '@/store/timeSlice';

/** Pixels of drag that change the tempo by one BPM. */
const PX_PER_BPM = 3;

/** Tempo by drag, by −/+, typed, and by tap. */
export function TempoControl() {
  const dispatch = useAppDispatch();
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const step = (bpm: number) => dispatch(tempoSet(tempo + bpm));
  return (
    <View style={styles.group}>
      <ControlButton label="Tempo down" maps={{ do: 'tempoDown' }} icon="minus" onPress={() => step(-1)} />
      <NumberField
        label="Tempo"
        maps={{ do: 'tempo' }}
        caption="BPM"
        value={tempo}
        min={MIN_TEMPO}
        max={MAX_TEMPO}
        text={formatTempo(tempo)}
        valueText={`${formatTempo(tempo)} BPM`}
        onStep={step}
        onDrag={(px, from) => dispatch(tempoSet(Math.round(from + px / PX_PER_BPM)))}
        onType={(text) => {
          const read = parseTempo(text);
          if ('error' in read) dispatch(noticed(read.error));
          else dispatch(tempoSet(read.bpm));
          return 'bpm' in read;
        }}
        style={styles.tempo}
      />
      <ControlButton label="Tempo up" maps={{ do: 'tempoUp' }} icon="plus" onPress={() => step(1)} />
      <TapTempo />
    </View>
  );
}

/** The tempo in the head, which unfolds what there is to set of tempo and click. */
export function TempoKey() {
  const dispatch = useAppDispatch();
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const click = useAppSelector((state) => selectSet(state).metronome.on);
  const unfolded = useAppSelector((state) => state.settings.unfolded.time);
  return (
    <ControlButton
      label="Tempo and click"
      caption={click ? 'BPM, click' : 'BPM'}
      text={formatTempo(tempo)}
      numeric
      description={`${formatTempo(tempo)} BPM, click ${click ? 'on' : 'off'}`}
      expanded={unfolded}
      onPress={() => dispatch(foldToggled('time'))}
      style={styles.key}
    />
  );
}

/** Takes the tempo from the time stamps of taps: on press, since the time of the release means nothing. */
function TapTempo() {
  const instrument = useInstrument();
  const tap = (timeStamp: number) => instrument.tapTempo(timeStamp);
  return (
    <View
      onPointerDown={(event) => tap((event.nativeEvent as unknown as PointerEvent).timeStamp)}
      style={styles.tapBox}
    >
      <ControlButton
        label="Tap tempo"
        maps={{ do: 'tap' }}
        text="Tap"
        // A press that came without a pointer: Enter, Space, assistive technology.
        onPress={(event) => {
          if ((event.nativeEvent as unknown as MouseEvent).detail === 0)
            tap(event.nativeEvent.timestamp || window.performance.now());
        }}
        style={styles.fillBox}
      />
    </View>
  );
}
