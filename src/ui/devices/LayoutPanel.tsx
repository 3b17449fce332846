import { useRef, useState } from 'react';
import { View } from 'react-native';
import type { Device } from '@/core/midi/device';
import { EIGHT_BY_EIGHT, FOUR_BY_FOUR, learntLayout } from '@/core/midi/gridLayout';
import { deviceSet } from '@/store/devicesSlice';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Segments } from '../shared/Segments';
import { Words } from '../shared/Words';
import { useStrokes } from './useStrokes';

const SIZES = [
  { value: '4 4', name: '4 by 4' },
  { value: '8 2', name: '8 by 2' },
  { value: '8 8', name: '8 by 8' },
];
const WHICH = ['at the bottom left', 'to the right of it', 'above the first'];

/** Which notes a device's pads send: learnt from three of them. */
export function LayoutPanel({ device }: { device: Device }) {
  const dispatch = useAppDispatch();
  const { name, grid } = device;
  // Strokes come faster than the panel is drawn.
  const struck = useRef<number[] | null>(null);
  const [count, setCount] = useState<number | null>(null);
  const set = (next: Device['grid']) => dispatch(deviceSet({ name, change: { grid: next } }));
  const learn = (on: boolean) => {
    struck.current = on ? [] : null;
    setCount(on ? 0 : null);
  };
  useStrokes((stroke) => {
    const notes = struck.current;
    if (stroke.device !== name || !notes) return;
    notes.push(stroke.note);
    if (notes.length < 3) return setCount(notes.length);
    learn(false);
    try {
      set(learntLayout(notes as [number, number, number], grid.columns, grid.rows));
      dispatch(noticed(`The pads of ${name} are known: they begin with note ${notes[0]}.`));
    } catch (error) {
      dispatch(noticed((error as Error).message));
    }
  });
  return (
    <View style={{ gap: 4 }}>
      <Segments
        label={`Pads of ${name}`}
        caption="Pads"
        value={`${grid.columns} ${grid.rows}`}
        options={SIZES}
        onChoose={(size) => {
          const [columns, rows] = size.split(' ').map(Number) as [number, number];
          const layout = columns === 8 ? EIGHT_BY_EIGHT : FOUR_BY_FOUR;
          set({ ...layout, first: grid.first, columns, rows });
        }}
      />
      <ControlButton
        label={`Learn pads of ${name}`}
        text={count !== null ? `Strike the pad ${WHICH[count]}` : `Learn the pads: they begin with note ${grid.first}`}
        pressed={count !== null}
        onPress={() => learn(count === null)}
      />
      {count !== null && <Words>Three strokes tell which note each pad sends.</Words>}
    </View>
  );
}
