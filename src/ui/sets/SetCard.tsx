import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { LibrarySet, SetPicture } from '@/core/library/librarySet';
import { ControlButton } from '../shared/ControlButton';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { FEATHERS, RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { dateWords, factWords } from './setWords';

interface Props {
  set: LibrarySet;
  isOpen: boolean;
  isChosen: boolean;
  onChoose: () => void;
  onOpen: () => void;
}

/** One set in the list: what it is, and what its tracks play in small. Touched, it is looked at; `Open` opens it. */
export function SetCard({ set, isOpen, isChosen, onChoose, onOpen }: Props) {
  const tokens = useTokens();
  const { name, note, at, picture } = set;
  return (
    <View
      role="listitem"
      aria-label={name}
      aria-current={isOpen ? 'true' : undefined}
      style={[styles.card, { backgroundColor: tokens.deep, borderColor: isChosen ? tokens.breast : tokens.rule }]}
    >
      <Pressable role="button" aria-label={`About ${name}`} onPress={onChoose} style={styles.about}>
        <Text numberOfLines={2} style={[styles.name, { color: tokens.wing }]}>
          {name}
        </Text>
        <Small picture={picture} />
        <Words>{isOpen ? factWords(set) : `${dateWords(at)} · ${factWords(set)}`}</Words>
        {note !== undefined && note !== '' && <Words>{note}</Words>}
      </Pressable>
      {isOpen ? (
        <View style={styles.open}>
          <Text style={[styles.word, { color: tokens.wing }]}>open</Text>
        </View>
      ) : (
        <ControlButton label={`Open ${name}`} text="Open" onPress={onOpen} style={styles.open} />
      )}
    </View>
  );
}

const CELL = 10;
const ROW = 6;

/** What each track plays in its first round. */
function Small({ picture: { rows } }: { picture: SetPicture }) {
  const width = (rows[0]?.cells.length ?? 1) * CELL;
  return (
    <svg
      aria-hidden
      width="100%"
      height={Math.max(12, rows.length * ROW * 1.3)}
      viewBox={`0 0 ${width} ${Math.max(1, rows.length) * ROW}`}
      preserveAspectRatio="none"
      style={{ display: 'block' }}
    >
      {rows.map(({ colour, cells }, row) => (
        <path
          key={row}
          fill={FEATHERS[colour]?.colour}
          d={[...cells]
            .map((cell, i) =>
              cell === 'x' ? `M${i * CELL} ${row * ROW + 1}h${CELL - 2}v${ROW - 2}h-${CELL - 2}z` : '',
            )
            .join('')}
        />
      ))}
    </svg>
  );
}

const styles = StyleSheet.create({
  card: { borderRadius: RADIUS, borderWidth: 2, flexDirection: 'row', alignItems: 'stretch' },
  about: { flex: 1, minWidth: 0, padding: 10, gap: 6 },
  open: { width: 72, justifyContent: 'center', alignItems: 'center', margin: 4 },
  word: { fontFamily: WORDS_STRONG, fontSize: grown(16), lineHeight: grown(20) },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(19), lineHeight: grown(24) },
});
