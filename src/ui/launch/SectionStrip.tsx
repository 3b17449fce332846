import { memo } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { sectionState, storeSection, touchSection } from '@/instrument/launches';
import { selectSet } from '@/store/selectors';
import { noticed, sheetToggled } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { useTokens } from '../theme/theme';
import { FEATHERS, INK, NUMBERS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';
import type { Section } from '@/core/document/section';

/** The set's sections in a row, to be launched; and the way to store and edit them. */
export function SectionStrip() {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const sections = useAppSelector((state) => selectSet(state).sections);
  const open = useAppSelector((state) => state.session.sheet === 'sections');
  return (
    <ScrollView
      horizontal
      role="group"
      aria-label="Sections"
      showsHorizontalScrollIndicator={false}
      style={styles.strip}
      contentContainerStyle={styles.content}
    >
      {sections.map((section, place) => (
        <SectionKey key={section.id} section={section} place={place} />
      ))}
      <ControlButton
        label="Store section"
        icon="plus"
        text={sections.length === 0 ? 'Store section' : undefined}
        onPress={() => dispatch(noticed(`What plays now is stored as “${storeSection(store, instrument)}”.`, true))}
      />
      {sections.length > 0 && (
        <ControlButton
          label="Edit sections"
          icon="pencil-outline"
          pressed={open}
          onPress={() => dispatch(sheetToggled('sections'))}
        />
      )}
    </ScrollView>
  );
}

const SectionKey = memo(function SectionKey({ section, place }: { section: Section; place: number }) {
  const tokens = useTokens();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { id, name } = section;
  const [plays, comes] = useLaunch((performance) => {
    const state = sectionState(performance, id);
    return `${state.plays} ${state.comes}`;
  }).split(' ');
  const beats = useBeatsLeft(Number(comes));
  const on = plays === 'true';
  const { colour } = FEATHERS[section.colour]!;
  return (
    <ControlButton
      label={`Section ${name}`}
      maps={{ do: 'section', section: place }}
      pressed={on}
      description={beats === null ? (on ? 'playing' : 'not playing') : `queued${inBeats(beats)}`}
      onTap={() => touchSection(store, instrument, id)}
      style={[
        styles.section,
        { borderColor: colour },
        on && { backgroundColor: colour },
        beats !== null && { borderStyle: 'dashed', borderColor: tokens.straw },
      ]}
    >
      <Text numberOfLines={1} style={[styles.name, { color: on ? INK : tokens.wing }]}>
        {name}
      </Text>
      {beats !== null && (
        <Text style={[styles.beats, { backgroundColor: tokens.straw, color: tokens.onStraw }]}>{beats}</Text>
      )}
    </ControlButton>
  );
});

const styles = StyleSheet.create({
  strip: { flexGrow: 0, flexShrink: 0 },
  content: { gap: 6, paddingHorizontal: 8, paddingVertical: 2 },
  section: { borderRadius: 22, paddingHorizontal: 12 },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(21) },
  beats: {
    fontFamily: NUMBERS,
    fontSize: grown(13),
    lineHeight: grown(20),
    borderRadius: 6,
    paddingHorizontal: 5,
    overflow: 'hidden',
  },
});
