import { useState } from 'react';
import { View } from 'react-native';
import { noteName } from '@/core/document/tones';
import type { BenchDevice } from '@/midi/bench/benchDevice';
import { KeyRow } from '../shared/KeyRow';
import { NotePads } from './NotePads';

/** Semitones of the keys of an octave: the white ones, and the black ones between them (null: there is none). */
const WHITE = [0, 2, 4, 5, 7, 9, 11, 12];
const BLACK = [1, 3, null, 6, 8, 10, null];
const FIRST = 48;
const MOST_SHIFTS = 2;

/** An octave of keys, moved up and down by octaves. */
export function KeyboardPanel({ device }: { device: BenchDevice }) {
  const [shift, setShift] = useState(0);
  const noteAt = (semitones: number | null | undefined) =>
    semitones === null || semitones === undefined ? null : FIRST + 12 * shift + semitones;
  const named = (note: number) => `Key ${noteName(note)}`;
  return (
    <View style={{ gap: 2 }}>
      <View style={{ marginHorizontal: '6%' }}>
        <NotePads
          device={device}
          columns={7}
          rows={1}
          noteAt={(column) => noteAt(BLACK[column])}
          nameOf={named}
          textOf={noteName}
          height={48}
          keys
        />
      </View>
      <NotePads
        device={device}
        columns={8}
        rows={1}
        noteAt={(column) => noteAt(WHITE[column])}
        nameOf={named}
        textOf={noteName}
        height={64}
        keys
      />
      <KeyRow
        caption="Octave"
        keys={[
          {
            label: 'Keys an octave lower',
            icon: 'minus',
            disabled: shift <= -MOST_SHIFTS,
            act: () => setShift(shift - 1),
          },
          {
            label: 'Keys an octave higher',
            icon: 'plus',
            disabled: shift >= MOST_SHIFTS,
            act: () => setShift(shift + 1),
          },
        ]}
      />
    </View>
  );
}
