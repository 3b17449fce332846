import type { StyleProp, ViewStyle } from 'react-native';
import { ARP_ORDERS, withArpeggio, type ArpOrder, type Tones } from '@/core/document/tones';
import { tonesSet } from '@/store/tracksSlice';
import { useAppDispatch } from '@/store/store';
import { Choice } from './Choice';

const NAMES: Record<ArpOrder, string> = { up: 'Up', down: 'Down', upDown: 'Up, down', played: 'As played' };
const OPTIONS = [{ value: 'off' as const, name: 'Off' }, ...ARP_ORDERS.map((value) => ({ value, name: NAMES[value] }))];

/** In which order note repeat plays the held notes of a track, if not all of them at once. */
export function ArpeggioChoice({ track, tones, style }: { track: number; tones: Tones; style?: StyleProp<ViewStyle> }) {
  const dispatch = useAppDispatch();
  const { arpeggio } = tones;
  return (
    <Choice<ArpOrder | 'off'>
      label="Arpeggio"
      caption="Arpeggio"
      value={arpeggio?.order ?? 'off'}
      options={OPTIONS}
      grow
      onChoose={(order) => {
        const next = order === 'off' ? null : { octaves: arpeggio?.octaves ?? 1, order };
        dispatch(tonesSet({ track, tones: withArpeggio(tones, next) }));
      }}
      style={style}
    />
  );
}
