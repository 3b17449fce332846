import { useState } from 'react';
import { TextField } from './TextField';
import { MAX_NAME } from '@/core/document/limits';

interface Props {
  label: string;
  name: string;
  onName: (name: string) => void;
  /** What stands over it. */
  caption?: string;
  /** So many letters at most. */
  most?: number;
}

/** A name to be typed; left empty, it stays what it was. Give it a key by the name, so that it follows one from elsewhere. */
export function NameField({ label, name, onName, caption = 'Name', most = MAX_NAME }: Props) {
  const [text, setText] = useState(name);
  const commit = () => (text.trim() !== '' && text !== name ? onName(text) : setText(name));
  return (
    <TextField
      label={caption}
      aria-label={label}
      value={text}
      maxLength={most}
      onChangeText={setText}
      onBlur={commit}
      onSubmitEditing={commit}
    />
  );
}
