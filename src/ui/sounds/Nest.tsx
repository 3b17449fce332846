import { useEffect } from 'react';
import { Pressable, StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { PADS } from '@/core/document/limits';
import { selectShown } from '@/store/selectors';
import { laneChosen } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { fittedToContainer } from '../theme/fitText';
import { placesIn, RAIL_WIDTH, useRoom, type Room } from '../theme/room';
import { grown } from '../theme/type';
import { useTokens } from '../theme/theme';
import { PADS_WIDTH } from '../shared/Sheet';
import { RADIUS, TOUCH, WORDS_STRONG } from '../theme/tokens';
import { SoundPicture, useSoundPeaks } from './SoundPicture';
import { patchAt, soundAt, useHeardTrack, type ShownSound } from './useSound';

const COLUMNS = 18;
const GAP_PX = 2;

/** Width that the nest has, px. */
function widthIn(room: Room): number {
  const { layout, width } = room;
  if (layout === 'wide') return PADS_WIDTH;
  if (layout === 'upright') return width - 16;
  const places = placesIn(room) === 'rail' ? RAIL_WIDTH : 0;
  return (width - places) / 2 - 16;
}

/** Two rows of eight, or four of four where eight would be too narrow to be touched. The lowest row holds the first pads. */
function rowsIn(room: Room): number[][] {
  const columns = widthIn(room) >= 8 * TOUCH + 7 * GAP_PX ? 8 : 4;
  const rows = Array.from({ length: PADS / columns }, (_, row) => Array.from({ length: columns }, (__, i) => row * columns + i)); // prettier-ignore
  return rows.reverse();
}

/** All sounds of the track in small: touched, or struck by hand, one of them is the one that is shaped. */
export function Nest() {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const shown = useAppSelector(selectShown);
  const chosen = useAppSelector((state) => state.steps.pad);
  const tried = useAppSelector((state) => state.session.tried);
  const track = useHeardTrack();
  const room = useRoom();
  useEffect(
    () =>
      instrument.performance.onSounded(({ live, track: on, pad }) => {
        if (live && on === shown) dispatch(laneChosen({ pad }));
      }),
    [instrument, shown, dispatch],
  );
  const isTried = (pad: number) =>
    tried !== null && tried.track === shown && ('kit' in tried || ('sound' in tried && tried.pad === pad));
  if (track.tones) return null;
  return (
    <View role="group" aria-label="Sounds of the track" style={styles.nest}>
      {rowsIn(room).map((pads, row) => (
        <View key={row} style={styles.row}>
          {pads.map((pad) => (
            <Cell
              key={pad}
              sound={soundAt(track, pad)}
              isChosen={pad === chosen}
              isTried={isTried(pad)}
              onChoose={() => dispatch(laneChosen({ pad }))}
            />
          ))}
        </View>
      ))}
    </View>
  );
}

function Cell(props: { sound: ShownSound; isChosen: boolean; isTried: boolean; onChoose: () => void }) {
  const { sound, isChosen, isTried, onChoose } = props;
  const tokens = useTokens();
  const tall = useRoom().layout === 'wide';
  const peaks = useSoundPeaks(patchAt(sound), COLUMNS);
  return (
    <Pressable
      role="button"
      aria-label={`Sound ${sound.pad + 1} ${sound.name}`}
      aria-pressed={isChosen}
      {...{ dataSet: { pad: String(sound.pad) } }}
      onPress={onChoose}
      style={[
        styles.cell,
        tall && styles.tall,
        { backgroundColor: isChosen ? tokens.warm : tokens.slate, borderColor: isChosen ? tokens.breast : tokens.edge },
        isTried && { borderColor: tokens.straw, borderStyle: 'dashed' },
      ]}
    >
      <View style={tall ? styles.tallPicture : styles.picture}>
        <SoundPicture peaks={peaks} columns={COLUMNS} color={isChosen ? tokens.wing : tokens.cap} />
      </View>
      <View style={styles.nameBox}>
        <Text numberOfLines={2} style={[styles.name, nameSize(sound.name), { color: tokens.wing }]}>
          {sound.name}
        </Text>
      </View>
    </Pressable>
  );
}

/** Names have two lines: the longer one is to fit, where they are parted best. */
function nameSize(name: string): object {
  const words = name.split(' ');
  const parted = words.map((_, i) => [words.slice(0, i + 1).join(' '), words.slice(i + 1).join(' ')]);
  const longer = parted.map(([first, second]) => (first!.length > second!.length ? first! : second!));
  const longest = longer.reduce((a, b) => (b.length < a.length ? b : a));
  return { fontSize: fittedToContainer(longest, { padding: 2, least: 9, most: String(grown(15)) }) };
}

const styles = StyleSheet.create({
  nest: { gap: 4 },
  row: { flexDirection: 'row', gap: GAP_PX },
  cell: {
    flex: 1,
    minWidth: 0,
    height: 56,
    borderRadius: RADIUS - 4,
    borderWidth: 2,
    paddingTop: 2,
    overflow: 'hidden',
  },
  tall: { height: grown(84) },
  picture: { height: 20, paddingHorizontal: 2 },
  tallPicture: { height: grown(44), paddingHorizontal: 3 },
  // A container, so that the name can take its size from it.
  nameBox: { flex: 1, justifyContent: 'center', containerType: 'inline-size' } as ViewStyle,
  name: { fontFamily: WORDS_STRONG, lineHeight: '1.1em' as unknown as number, textAlign: 'center' },
});
