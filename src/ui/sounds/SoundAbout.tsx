import { View, StyleSheet } from 'react-native';
import { kindName, SOUND_KINDS } from '@/core/document/soundKinds';
import { soundKindSet, soundNamed } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { Choice } from '../shared/Choice';
import { NameField } from '../shared/NameField';
import type { ShownSound } from './useSound';

const KINDS = SOUND_KINDS.map((value) => ({ value, name: kindName(value) }));

/** What a sound is called, and what it is: by that Generate and note repeat know it. */
export function SoundAbout({ sound: { track, pad, name, kind } }: { sound: ShownSound }) {
  const dispatch = useAppDispatch();
  if (kind === null) return null;
  return (
    <View style={styles.about}>
      <View style={styles.name}>
        <NameField
          key={`${pad} ${name}`}
          label="Name of the sound"
          name={name}
          onName={(next) => dispatch(soundNamed({ track, pad, name: next }))}
        />
      </View>
      <Choice
        label="Kind of the sound"
        caption="Kind"
        value={kind}
        options={KINDS}
        onChoose={(next) => dispatch(soundKindSet({ track, pad, kind: next }))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  about: { flexDirection: 'row', gap: 8, alignItems: 'center' },
  name: { flex: 1, minWidth: 0 },
});
