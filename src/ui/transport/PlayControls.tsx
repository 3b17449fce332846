import { View } from 'react-native';
import { useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { transportStyles as styles } from './transportStyles';

/** Play and stop in one place, a way back to the top once stopped, and record. Small, play is a sign alone. */
export function PlayControls({ small }: { small?: boolean }) {
  const instrument = useInstrument();
  const style = small ? styles.small : styles.large;
  const { playing, recording, awayFromTop } = useAppSelector((state) => state.session);
  const goesBack = !playing && awayFromTop;
  // Beside the way back there is room for a short word.
  const short = small || goesBack;
  return (
    <View style={styles.group}>
      {playing ? (
        <ControlButton
          tone="primary"
          label="Stop"
          maps={{ do: 'play' }}
          icon="stop"
          text={small ? undefined : 'Stop'}
          onPress={() => instrument.stop()}
          style={style}
        />
      ) : (
        <ControlButton
          tone="primary"
          label="Play"
          maps={{ do: 'play' }}
          icon="play"
          text={small ? undefined : 'Play'}
          onPress={() => instrument.play()}
          style={style}
        />
      )}
      {goesBack && (
        <ControlButton
          label="Stop"
          maps={{ do: 'play' }}
          description="Back to the top"
          icon="skip-backward"
          onPress={() => instrument.stop()}
          style={styles.square}
        />
      )}
      <ControlButton
        tone="record"
        label="Record"
        maps={{ do: 'record' }}
        // The word is longer than the key, with its sign; the fill says it too.
        icon={(recording && playing && !small) || (small && goesBack) ? undefined : 'record'}
        text={recording ? (short ? 'On' : playing ? 'Recording' : 'Armed') : short ? 'Rec' : 'Record'}
        pressed={recording}
        onPress={() => instrument.toggleRecord()}
        style={style}
      />
    </View>
  );
}
