import { View } from 'react-native';
import { useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { transportStyles as styles } from './transportStyles';

/** Play and stop in one place, a way back to the top once stopped, and record. */
export function PlayControls() {
  const instrument = useInstrument();
  const { playing, recording, awayFromTop } = useAppSelector((state) => state.session);
  return (
    <View style={styles.group}>
      {playing ? (
        <ControlButton
          tone="primary"
          label="Stop"
          icon="stop"
          text="Stop"
          onPress={() => instrument.stop()}
          style={wide}
        />
      ) : (
        <ControlButton
          tone="primary"
          label="Play"
          icon="play"
          text="Play"
          onPress={() => instrument.play()}
          style={wide}
        />
      )}
      {!playing && awayFromTop && (
        <ControlButton
          label="Stop"
          description="Back to the top"
          icon="skip-backward"
          onPress={() => instrument.stop()}
          style={styles.square}
        />
      )}
      <ControlButton
        tone="record"
        label="Record"
        icon="record"
        text={recording ? (playing ? 'Recording' : 'Armed') : 'Record'}
        pressed={recording}
        onPress={() => instrument.toggleRecord()}
        style={wide}
      />
    </View>
  );
}

const wide = { flexGrow: 1, minWidth: 96, minHeight: 52 } as const;
