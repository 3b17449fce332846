import type { ComponentProps } from 'react';
import { TextInput } from 'react-native-paper';
import { useRoom } from '../theme/room';

/** On a phone, px. */
const FONT_SIZE = 16;

/** A field for words, whose type grows with the room. */
export function TextField({ style, ...props }: ComponentProps<typeof TextInput>) {
  // The package reckons with the number: it cannot be the page's own sum (see `grown`).
  const fontSize = Math.round(FONT_SIZE * useRoom().type);
  return <TextInput mode="outlined" dense autoComplete="off" {...props} style={[{ fontSize }, style]} />;
}
