import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { Run, RunPicture } from '@/core/document/run';
import { runOpened } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { FEATHERS, RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { runFacts } from './runFacts';

/** One run in the list: its name, when and what it was, and its blocks in small. Touched, it opens. */
export function RunCard({ run }: { run: Run }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const isOpen = useAppSelector((state) => state.session.run === run.id);
  const { name, note, marked, picture } = run;
  const when = new Date(run.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
  return (
    <View role="listitem" aria-label={name}>
      <Pressable
        role="button"
        aria-label={`Open ${name}`}
        aria-description={`${when}. ${runFacts(run)}`}
        onPress={() => dispatch(runOpened(run.id))}
        style={[styles.card, { backgroundColor: tokens.slate, borderColor: isOpen ? tokens.breast : tokens.edge }]}
      >
        <Text numberOfLines={1} style={[styles.name, { color: tokens.wing }]}>
          {name}
          {marked ? ' · kept' : ''}
        </Text>
        {picture && <Small picture={picture} />}
        <Words>{`${when} · ${runFacts(run)}`}</Words>
        {note !== undefined && note !== '' && <Words>{note}</Words>}
      </Pressable>
    </View>
  );
}

const WIDTH = 300;
const ROW = 5;

/** In which stretches of a run each track played. */
function Small({ picture: { length, rows } }: { picture: RunPicture }) {
  return (
    <svg
      aria-hidden
      width="100%"
      height={Math.min(40, Math.max(12, rows.length * ROW * 1.6))}
      viewBox={`0 0 ${WIDTH} ${rows.length * ROW}`}
      preserveAspectRatio="none"
      style={{ display: 'block' }}
    >
      {rows.map(({ colour, stretches }, row) => (
        <path
          key={row}
          fill={FEATHERS[colour]?.colour}
          d={stretches
            .map(({ from, length: ticks }) => {
              const width = Math.max(0.5, (ticks / length) * WIDTH - 0.6).toFixed(1);
              return `M${((from / length) * WIDTH).toFixed(1)} ${row * ROW + 0.5}h${width}v${ROW - 1}h-${width}z`;
            })
            .join('')}
        />
      ))}
    </svg>
  );
}

const styles = StyleSheet.create({
  card: { borderRadius: RADIUS, borderWidth: 2, padding: 10, gap: 6 },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(19), lineHeight: grown(24) },
});
