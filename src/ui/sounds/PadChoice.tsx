import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { KitPad } from '@/core/document/kit';
import { ControlButton } from '../shared/ControlButton';
import { fitted } from '../theme/fitText';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { WORDS_STRONG } from '../theme/tokens';

interface Props {
  label: string;
  pads: readonly KitPad[];
  /** The pad that it is about, which cannot be chosen. */
  of?: number;
  chosen: readonly number[];
  /** Pads that cannot be chosen, and why. */
  barred?: ReadonlyMap<number, string>;
  /** What is said above the names of pads, in the place of their numbers. */
  captions?: ReadonlyMap<number, string | undefined>;
  onToggle: (pad: number) => void;
}

/** Pads of a kit to be chosen, where they lie on the board. */
export function PadChoice({ label, pads, of, chosen, barred, captions, onToggle }: Props) {
  const tokens = useTokens();
  const room = useRoom();
  const width = (Math.min(MOST_WIDTH, room.width) - BESIDE) / 4;
  const rows = [3, 2, 1, 0].map((row) => pads.slice(row * 4, row * 4 + 4).map((pad, i) => [pad, row * 4 + i] as const));
  return (
    <View role="group" aria-label={label} style={styles.board}>
      {rows.map((row, r) => (
        <View key={r} style={styles.row}>
          {row.map(([{ sound }, pad]) => (
            <ControlButton
              key={pad}
              label={`${label} ${pad + 1} ${sound.name}`}
              caption={captions?.get(pad) ?? String(pad + 1)}
              pressed={chosen.includes(pad)}
              disabled={pad === of || barred?.has(pad) === true}
              description={barred?.get(pad)}
              onPress={() => onToggle(pad)}
              style={styles.pad}
            >
              <Text
                numberOfLines={1}
                style={[styles.name, fitted(sound.name, width, { least: 9, most: 17 }), { color: tokens.wing }]}
              >
                {sound.name}
              </Text>
            </ControlButton>
          ))}
        </View>
      ))}
    </View>
  );
}

/** Greatest width of the board that names are fitted to, and what lies beside them in four of its places, px. */
const MOST_WIDTH = 520;
const BESIDE = 96;

const styles = StyleSheet.create({
  board: { gap: 5 },
  row: { flexDirection: 'row', gap: 5 },
  name: { fontFamily: WORDS_STRONG },
  pad: { flex: 1, minWidth: 0, minHeight: 54, paddingHorizontal: 2 },
});
