import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { freeTrackId } from '@/core/document/set';
import { selectSet, selectTrack } from '@/store/selectors';
import { noticed, sheetShown } from '@/store/sessionSlice';
import { channelLevelSet } from '@/store/mixSlice';
import { chainSet } from '@/store/sectionsSlice';
import { trackColoured, trackDuplicated, trackMoved, trackNamed, trackRemoved } from '@/store/tracksSlice'; // prettier-ignore
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { Feathers } from '../shared/Feathers';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { NameField } from '../shared/NameField';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';
import { WholeNumber } from '../shared/WholeNumber';
import { NotesOfTrack } from './NotesOfTrack';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { MAX_LINKS, MAX_TIMES, MAX_TRACKS } from '@/core/document/limits';
import type { Chain, Track } from '@/core/document/track';

/** All there is to set of the shown track. */
export default function TrackSheet() {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const track = useAppSelector(selectTrack);
  const set = useAppSelector(selectSet);
  const { id, name } = track;
  const duplicate = () => {
    const count = track.patterns.reduce((sum, pattern) => sum + (pattern?.hits.length ?? 0), 0);
    dispatch(trackDuplicated({ track: id, as: freeTrackId(set), firstId: instrument.reserveIds(count) }));
    dispatch(noticed(`${name} is there twice.`, true));
  };
  const remove = () => {
    dispatch(trackRemoved({ track: id }));
    dispatch(noticed(`${name} is removed.`, true));
  };
  return (
    <Sheet title={`Track ${name}`} about="A track’s name, colour, sound and place.">
      <NameField
        key={`${id} ${name}`}
        label="Track name"
        name={name}
        onName={(text) => dispatch(trackNamed({ track: id, name: text }))}
      />
      <Strip
        label="Level"
        maps={{ do: 'level', row: set.order.indexOf(id) }}
        value={track.level}
        unit="%"
        onChange={(level) => dispatch(channelLevelSet({ channel: id, level }))}
      />
      <Feathers value={track.colour} onChoose={(colour) => dispatch(trackColoured({ track: id, colour }))} />
      <NotesOfTrack track={track} />
      <ChainEditor track={track} />
      <SheetTitle>The track</SheetTitle>
      <KeyRow
        keys={[
          { text: 'Patterns', act: () => dispatch(sheetShown('slots')) },
          { label: 'Duplicate track', text: 'Duplicate', disabled: set.order.length >= MAX_TRACKS, act: duplicate },
          { label: 'Track up', icon: 'arrow-up', disabled: set.order[0] === id, act: () => dispatch(trackMoved({ track: id, by: -1 })) }, // prettier-ignore
          { label: 'Track down', icon: 'arrow-down', disabled: set.order.at(-1) === id, act: () => dispatch(trackMoved({ track: id, by: 1 })) }, // prettier-ignore
          { label: 'Remove track', text: 'Remove', disabled: set.order.length === 1, act: remove },
        ]}
      />
    </Sheet>
  );
}

/** Patterns of the track in a row, to be launched as one. */
function ChainEditor({ track }: { track: Track }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { id, patterns } = track;
  const chain: Chain = track.chain ?? { links: [], again: true };
  const set = (part: Partial<Chain>) => dispatch(chainSet({ track: id, chain: { ...chain, ...part } }));
  const options = patterns.flatMap((pattern, slot) => (pattern ? [{ value: String(slot), name: `${slot + 1}  ${pattern.name}` }] : [])); // prettier-ignore
  const change = (i: number, link: Partial<Chain['links'][number]>) =>
    set({ links: chain.links.map((old, k) => (k === i ? { ...old, ...link } : old)) });
  const last = chain.links.at(-1)?.slot ?? -1;
  const following = options.find(({ value }) => Number(value) > last) ?? options[0];
  return (
    <>
      <SheetTitle>Chain</SheetTitle>
      {chain.links.length === 0 && (
        <Words>Patterns in a row, each as often as you say. Launch it by its card in the track’s row.</Words>
      )}
      {chain.links.map(({ slot, times }, i) => (
        <View key={i} style={styles.line}>
          <Text style={[styles.number, { color: tokens.cap }]}>{i + 1}</Text>
          <Choice
            label={`Link ${i + 1}`}
            value={String(slot)}
            options={options}
            grow
            onChoose={(value) => change(i, { slot: Number(value) })}
            style={styles.grow}
          />
          <WholeNumber
            label={`Times of link ${i + 1}`}
            caption="Times"
            value={times}
            min={1}
            max={MAX_TIMES}
            onChange={(value) => change(i, { times: value })}
          />
          <ControlButton
            label={`Remove link ${i + 1}`}
            icon="close"
            onPress={() => set({ links: chain.links.filter((_, k) => k !== i) })}
          />
        </View>
      ))}
      <KeyRow
        keys={[
          {
            label: 'Add link',
            text: 'Add a pattern',
            disabled: !following || chain.links.length >= MAX_LINKS,
            act: () => following && set({ links: [...chain.links, { slot: Number(following.value), times: 1 }] }),
          },
          {
            label: 'Chain begins again',
            text: chain.again ? 'Then from the start' : 'Then the last goes on',
            pressed: chain.again,
            disabled: chain.links.length === 0,
            act: () => set({ again: !chain.again }),
          },
        ]}
      />
    </>
  );
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  grow: { flexGrow: 1 },
  number: { width: grown(20), fontFamily: WORDS, fontSize: grown(16) },
});
