import { useState } from 'react';
import { TextInput } from 'react-native-paper';
import { MAX_NAME } from '@/core/document/limits';

/** A name to be typed; left empty, it stays what it was. Give it a key by the name, so that it follows one from elsewhere. */
export function NameField({ label, name, onName }: { label: string; name: string; onName: (name: string) => void }) {
  const [text, setText] = useState(name);
  const commit = () => (text.trim() !== '' && text !== name ? onName(text) : setText(name));
  return (
    <TextInput
      mode="outlined"
      dense
      label="Name"
      aria-label={label}
      value={text}
      maxLength={MAX_NAME}
      autoComplete="off"
      onChangeText={setText}
      onBlur={commit}
      onSubmitEditing={commit}
    />
  );
}
