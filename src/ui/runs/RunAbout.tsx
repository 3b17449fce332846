import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { TextField } from '../shared/TextField';
import { MAX_NOTE } from '@/core/document/limits';
import type { Run } from '@/core/document/run';
import { NameField } from '../shared/NameField';
import { useRunStore } from './RunsContext';

/** A run's name, and what the player writes about it. */
export function RunAbout({ run }: { run: Run }) {
  const store = useRunStore();
  const [note, setNote] = useState(run.note ?? '');
  return (
    <View style={styles.about}>
      <NameField
        key={run.name}
        label={`Name of ${run.name}`}
        name={run.name}
        onName={(name) => void store.change(run, { name })}
      />
      <TextField
        multiline
        label="Note"
        aria-label={`Note on ${run.name}`}
        value={note}
        maxLength={MAX_NOTE}
        onChangeText={setNote}
        onBlur={() => note !== (run.note ?? '') && void store.change(run, { note })}
      />
    </View>
  );
}

const styles = StyleSheet.create({ about: { gap: 4 } });
