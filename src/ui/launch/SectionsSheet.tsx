import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { playing, storeSection } from '@/instrument/launches';
import { selectSet, selectTracks } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { Feathers } from '../shared/Feathers';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { NameField } from '../shared/NameField';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { WholeNumber } from '../shared/WholeNumber';
import { useTokens } from '../theme/theme';
import { WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { MAX_TIMES } from '@/core/document/limits';
import type { Track } from '@/core/document/track';
import type { Section } from '@/core/document/section';
import { sectionMoved, sectionRemoved, sectionStored } from '@/store/sectionsSlice';

/** The set's sections: what is in them, what they are called, and what follows them. */
export default function SectionsSheet() {
  const store = useStore() as Store;
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const sections = useAppSelector((state) => selectSet(state).sections);
  const [chosen, setChosen] = useState<number | null>(null);
  const section = sections.find(({ id }) => id === chosen) ?? sections[0];
  const storePlaying = () => {
    const name = storeSection(store, instrument);
    setChosen(selectSet(store.getState()).sections.at(-1)?.id ?? null);
    dispatch(noticed(`What plays now is stored as “${name}”.`, true));
  };
  return (
    <Sheet title="Sections" about="Patterns that are launched as one, and what follows on them.">
      {sections.length === 0 && (
        <Words>
          A section is a set of patterns that are launched as one. Let play what you want together, and store it.
        </Words>
      )}
      <View role="group" aria-label="Sections to edit" style={styles.list}>
        {sections.map(({ id, name }) => (
          <ControlButton
            key={id}
            label={`Edit section ${name}`}
            text={name}
            pressed={id === section?.id}
            onPress={() => setChosen(id)}
          />
        ))}
        <ControlButton label="Store what plays" icon="plus" text="Store what plays" onPress={storePlaying} />
      </View>
      {section && <SectionEditor key={section.id} section={section} />}
    </Sheet>
  );
}

function SectionEditor({ section }: { section: Section }) {
  const store = useStore() as Store;
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const tracks = useAppSelector(selectTracks);
  const { sections } = useAppSelector(selectSet);
  const { id, name, rounds, then } = section;
  const change = (part: Partial<Section>) => dispatch(sectionStored({ ...section, ...part }));
  const followers = [
    { value: 'none', name: 'It goes on' },
    ...sections.map((other) => ({
      value: String(other.id),
      name: other.id === id ? `${other.name} again` : other.name,
    })),
    { value: 'stop', name: 'All stop' },
  ];
  const follow = (value: string) => {
    const { then: _, ...rest } = section;
    const next = value === 'none' ? undefined : value === 'stop' ? ('stop' as const) : Number(value);
    dispatch(sectionStored({ ...rest, ...(next !== undefined && { then: next }) }));
  };
  return (
    <>
      <NameField key={name} label="Section name" name={name} onName={(text) => change({ name: text.trim() })} />
      <Feathers value={section.colour} onChoose={(colour) => change({ colour })} />
      <SheetTitle>What plays in it</SheetTitle>
      {tracks.map((track) => (
        <Part key={track.id} track={track} section={section} onChange={change} />
      ))}
      <SheetTitle>What follows</SheetTitle>
      <View style={styles.line}>
        <WholeNumber
          label="Rounds"
          caption="Rounds"
          value={rounds}
          min={1}
          max={MAX_TIMES}
          onChange={(value) => change({ rounds: value })}
        />
        <Choice
          label="Then"
          caption="then"
          value={then === undefined ? 'none' : String(then)}
          options={followers}
          grow
          onChoose={follow}
          style={styles.grow}
        />
      </View>
      <Words>A round is the longest loop in it, made up to whole bars.</Words>
      <KeyRow
        keys={[
          { label: `Store in ${name}`, text: 'Store what plays here', act: () => change({ parts: playing(store, instrument) }) }, // prettier-ignore
        ]}
      />
      <KeyRow
        keys={[
          { label: 'Section earlier', icon: 'arrow-left', disabled: sections[0]?.id === id, act: () => dispatch(sectionMoved({ id, by: -1 })) }, // prettier-ignore
          { label: 'Section later', icon: 'arrow-right', disabled: sections.at(-1)?.id === id, act: () => dispatch(sectionMoved({ id, by: 1 })) }, // prettier-ignore
          {
            label: 'Remove section',
            text: 'Remove',
            act: () => {
              dispatch(sectionRemoved(id));
              dispatch(noticed(`“${name}” is removed.`, true));
            },
          },
        ]}
      />
    </>
  );
}

/** What a section does with one track. */
function Part(props: { track: Track; section: Section; onChange: (part: Partial<Section>) => void }) {
  const { track, section, onChange } = props;
  const tokens = useTokens();
  const part = section.parts.find((p) => p.track === track.id);
  const value = part === undefined ? 'leave' : part.plays === null ? 'stop' : String(part.plays);
  const options = [
    { value: 'leave', name: 'As it is' },
    { value: 'stop', name: 'Stop' },
    ...(track.chain ? [{ value: 'chain', name: 'Chain' }] : []),
    ...track.patterns.flatMap((pattern, slot) => (pattern ? [{ value: String(slot), name: `${slot + 1}  ${pattern.name}` }] : [])), // prettier-ignore
  ];
  const choose = (next: string) => {
    const others = section.parts.filter((p) => p.track !== track.id);
    const plays = next === 'stop' ? null : next === 'chain' ? next : Number(next);
    onChange({ parts: next === 'leave' ? others : [...others, { track: track.id, plays }] });
  };
  return (
    <View style={styles.line}>
      <Text style={[styles.track, { color: tokens.wing }]}>{track.name}</Text>
      <Choice
        label={`${track.name} plays`}
        value={value}
        options={options}
        grow
        onChoose={choose}
        style={styles.grow}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  line: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  track: { width: grown(90), fontFamily: WORDS, fontSize: grown(17) },
  grow: { flexGrow: 1 },
});
