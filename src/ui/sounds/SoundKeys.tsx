import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { padSoloToggled } from '@/store/tracksSlice';
import { noticed, shelfOpened, soundCopied } from '@/store/sessionSlice';
import { soundReset, soundTaken } from '@/store/soundsSlice';
import { selectTrack } from '@/store/selectors';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { HoldButton } from '../shared/HoldButton';
import { useInstrument } from '../shared/InstrumentContext';
import { PopMenu, type PopMenuItem } from '../shared/PopMenu';
import { KEY_VELOCITY } from '../pads/PadGrid';
import { turnIntoSample } from './sampleActs';
import type { ShownSound } from './useSound';

/** What is done with one sound. */
export function SoundKeys({ sound, onAbout }: { sound: ShownSound; onAbout: () => void }) {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const { soloPads = [], kit, tones } = useAppSelector(selectTrack);
  const clip = useAppSelector((state) => state.session.soundClip);
  const store = useStore() as Store;
  const { track, pad, name, source } = sound;
  const isMade = 'made' in source;
  // As a pad: it sounds from the press on, and what is held ends with the release.
  const hear = (held: boolean) => {
    const at = performance.now();
    if (held) instrument.hands.strike({ track, pad, velocity: KEY_VELOCITY, at, through: true });
    else instrument.hands.letGo({ track, pad, at });
  };
  const reset: PopMenuItem = { title: 'Back to its own', act: () => void dispatch(soundReset({ track, pad })) };
  const items: PopMenuItem[] = tones
    ? [reset]
    : [
        { title: 'Name and kind', act: onAbout },
        {
          title: 'Copy sound',
          ruled: true,
          act: () => {
            dispatch(soundCopied(kit.pads[pad]!.sound));
            dispatch(noticed(`${name} is copied: choose another sound and paste it there.`));
          },
        },
        ...(clip ? [{ title: `Paste ${clip.name}`, act: () => void dispatch(soundTaken({ track, pad, sound: clip })) }] : []), // prettier-ignore
        ...(isMade ? [{ title: 'Turn into a sample', act: () => void turnIntoSample(store, instrument, { track, pad }) }] : []), // prettier-ignore
        reset,
      ];
  return (
    <View style={styles.keys}>
      <View style={styles.key}>
        <HoldButton label="Hear" text="Hear" onHold={hear} />
      </View>
      <ControlButton
        label="Alone"
        text="Alone"
        pressed={soloPads.includes(pad)}
        onPress={() => dispatch(padSoloToggled({ track, pad }))}
        style={styles.key}
      />
      {!tones && (
        <ControlButton
          label="Swap sound"
          text="Swap sound"
          onPress={() => dispatch(shelfOpened('sounds'))}
          style={styles.wide}
        />
      )}
      <PopMenu label="Sound menu" icon="dots-horizontal" items={items} />
    </View>
  );
}

const styles = StyleSheet.create({
  keys: { flexDirection: 'row', gap: 6 },
  key: { flexGrow: 1, flexBasis: 0 },
  wide: { flexGrow: 1.6, flexBasis: 0 },
});
