import { memo, useId } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { targetKey } from '@/core/midi/target';
import { useAppSelector } from '@/store/store';
import { Description } from '../shared/Description';
import { Meant, SENTENCE_ID, useMeant } from '../guide/Meant';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS_STRONG } from '../theme/tokens';
import { padNameSize } from './PadBoard';
import { hitPath, selectHitPlaces } from './hitPlaces';
import { grown } from '../theme/type';

/** How a pad's note lies to the scale: the root has a bar beneath its name, what is outside stands back. */
export type PadMark = 'drum' | 'root' | 'scale' | 'outside';

interface Props {
  pad: number;
  name: string;
  mark: PadMark;
  /** Computer key, as printed on most keyboards. */
  keyName: string;
}

/** One pad: its number, its sound, its own hits of the pattern in a row. The grid lights it and hears its strikes. */
export const Pad = memo(function Pad({ pad, name, mark, keyName }: Props) {
  const t = useTokens();
  const places = useAppSelector((state) => selectHitPlaces(state)[pad]!);
  const id = useId();
  const words = MARK_WORDS[mark];
  const label = `Pad ${pad + 1} ${name}`;
  return (
    <View
      role="button"
      aria-label={label}
      tabIndex={0}
      {...{ dataSet: { pad: String(pad), map: targetKey({ do: 'pad', pad }) } }}
      aria-describedby={useMeant(label) ? SENTENCE_ID : words && id}
      style={[
        styles.pad,
        { backgroundColor: mark === 'outside' ? t.deep : t.slate, borderColor: t.edge },
        mark === 'outside' && { borderColor: t.rule },
        mark === 'root' && { borderBottomWidth: 5, borderBottomColor: t.cap },
      ]}
    >
      <View style={[styles.glow, { backgroundColor: t.breast }]} />
      <Meant name={label} />
      {words && <Description id={id}>{words}</Description>}
      <View style={styles.head}>
        <Text style={[styles.number, { color: t.cap }]}>{pad + 1}</Text>
        <Text style={[styles.number, styles.key, { color: t.cap }]}>{keyName}</Text>
      </View>
      <View style={styles.foot}>
        <svg width="100%" height="5" viewBox="0 0 1 1" preserveAspectRatio="none" aria-hidden>
          <path d={hitPath(places)} fill={t.moss} />
        </svg>
        <Text numberOfLines={1} style={[styles.name, padNameSize(name), { color: t.wing }]}>
          {name}
        </Text>
      </View>
    </View>
  );
});

const MARK_WORDS: Record<PadMark, string | undefined> = {
  drum: undefined,
  root: 'root of the scale',
  scale: 'in the scale',
  outside: 'not in the scale',
};

const styles = StyleSheet.create({
  pad: {
    flex: 1,
    minWidth: 0,
    borderWidth: 1,
    borderRadius: RADIUS,
    overflow: 'hidden',
    justifyContent: 'space-between',
    paddingHorizontal: 8,
    // Less on a low pad, of the place that it lies on.
    paddingVertical: 'min(8px, 7cqh)',
    touchAction: 'none',
    userSelect: 'none',
    cursor: 'pointer',
  } as unknown as ViewStyle,
  glow: {
    position: 'absolute',
    width: 10,
    height: 10,
    marginLeft: -5,
    marginTop: -5,
    borderRadius: 5,
    opacity: 0,
    pointerEvents: 'none',
  },
  head: { flexDirection: 'row', justifyContent: 'space-between', pointerEvents: 'none' },
  number: { fontFamily: NUMBERS, fontSize: grown(12), lineHeight: grown(16) },
  key: { opacity: 0.75 },
  foot: { gap: 4, pointerEvents: 'none' },
  name: { fontFamily: WORDS_STRONG, letterSpacing: 0.1 },
});
