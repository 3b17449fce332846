import { StyleSheet } from 'react-native';
import { ControlButton } from '../shared/ControlButton';
import type { Track } from '@/core/document/track';
import { padMuteToggled, padSoloToggled } from '@/store/tracksSlice';
import { useAppDispatch } from '@/store/store';

interface Props {
  /** The lane's name. */
  name: string;
  pad: number;
  gates: Pick<Track, 'id' | 'mutedPads' | 'soloPads'>;
}

/** Mutes or solos one lane of the pattern. Pads played by hand are not affected. */
export function MuteSolo({ name, pad, gates }: Props) {
  const dispatch = useAppDispatch();
  return (
    <>
      <ControlButton
        label={`Mute ${name}`}
        maps={{ do: 'padMute', pad }}
        text="M"
        pressed={gates.mutedPads?.includes(pad) ?? false}
        onPress={() => dispatch(padMuteToggled({ track: gates.id, pad }))}
        style={styles.key}
      />
      <ControlButton
        label={`Solo ${name}`}
        maps={{ do: 'padSolo', pad }}
        text="S"
        pressed={gates.soloPads?.includes(pad) ?? false}
        onPress={() => dispatch(padSoloToggled({ track: gates.id, pad }))}
        style={styles.key}
      />
    </>
  );
}

const styles = StyleSheet.create({ key: { minWidth: 44, paddingHorizontal: 0 } });
