import { useCallback, useRef } from 'react';
import { View } from 'react-native';
import { addTap, formatTempo, parseTempo, tappedTempo } from '@/core/time/tempo';
import { MAX_TEMPO, MIN_TEMPO } from '@/core/time/ticks';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { foldToggled } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
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
      <ControlButton label="Tempo down" icon="minus" onPress={() => step(-1)} />
      <NumberField
        label="Tempo"
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
      <ControlButton label="Tempo up" icon="plus" onPress={() => step(1)} />
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
  const tap = useTapTempo();
  return (
    <View
      onPointerDown={(event) => tap((event.nativeEvent as unknown as PointerEvent).timeStamp)}
      style={styles.tapBox}
    >
      <ControlButton
        label="Tap tempo"
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

/** @returns what to call with the time stamp (ms) of each tap */
export function useTapTempo(): (timeStamp: number) => void {
  const dispatch = useAppDispatch();
  const taps = useRef<number[]>([]);
  return useCallback(
    (timeStamp) => {
      taps.current = addTap(taps.current, timeStamp);
      const bpm = tappedTempo(taps.current);
      if (bpm !== null) dispatch(tempoSet(bpm));
    },
    [dispatch],
  );
}
