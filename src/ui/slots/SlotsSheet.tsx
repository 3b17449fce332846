import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { counted } from '@/core/counted';
import { freeSlot, hasRoom } from '@/core/edit/slots';
import type { Meter } from '@/core/time/ticks';
import { selectPattern, selectPlace, selectSet, selectTrack, selectTracks } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { slotCleared, slotColoured, slotCopied, slotRenamed, slotsAdded, slotsSwapped } from '@/store/slotsSlice';
import { slotOpened } from '@/store/stageSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Feathers } from '../shared/Feathers';
import { HitsPicture } from '../shared/HitsPicture';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { PopMenu } from '../shared/PopMenu';
import { NameField } from '../shared/NameField';
import { Sheet } from '../shared/Sheet';
import { TrackChoice } from './TrackChoice';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { FEATHERS, NUMBERS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { MAX_SLOTS } from '@/core/document/limits';
import type { Track } from '@/core/document/track';
import { loopBars, type Pattern } from '@/core/document/pattern';

/** What the next touched slot is for; null opens it. */
type Aim = 'copy' | 'swap' | null;

const AIM_WORDS = {
  copy: 'Touch the slot to copy to. What is there gives way; Undo brings it back.',
  swap: 'Touch the slot to change places with.',
};

/** A track's pattern slots, each with a picture of its hits, and what can be done with the one that is open. */
export function SlotsSheet() {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const track = useAppSelector(selectTrack);
  const pattern = useAppSelector(selectPattern);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const [aim, setAim] = useState<Aim>(null);
  const place = useAppSelector(selectPlace);
  const { slot } = place;
  // What is open may be an empty slot, in which nothing was made yet.
  const isEmpty = !track.patterns[slot];

  const openSlot = (to: number) => dispatch(slotOpened({ track: track.id, slot: to }));
  const copyTo = (to: number, open: boolean) => {
    const firstId = instrument.reserveIds(pattern.hits.length);
    dispatch(slotCopied({ place, to, firstId, label: open ? 'variation' : 'copy' }));
    if (open) openSlot(to);
    const name = selectTrack(store.getState()).patterns[to]?.name;
    dispatch(noticed(open ? `“${name}” is open.` : `Copied to slot ${to + 1} as “${name}”.`, true));
  };
  const touch = (to: number) => {
    if (aim && to === slot) return setAim(null);
    if (aim === 'copy' && !isEmpty) copyTo(to, false);
    else if (aim === 'swap') dispatch(slotsSwapped({ ...place, to }));
    else openSlot(to);
    setAim(null);
  };
  return (
    <Sheet title={`Patterns of ${track.name}`} about="The patterns of one track: open one, copy it, or begin another.">
      <TrackChoice />
      <View style={styles.slots}>
        {track.patterns.map((held, i) => (
          <SlotCard
            key={i}
            slot={i}
            pattern={held}
            meter={meter}
            colour={FEATHERS[held?.colour ?? track.colour]!.colour}
            isOpen={i === slot}
            onPress={() => touch(i)}
          />
        ))}
      </View>
      {aim && <Words>{AIM_WORDS[aim]}</Words>}
      {pattern && (
        <>
          <NameField
            key={`${slot} ${pattern.name}`}
            label="Pattern name"
            name={pattern.name}
            onName={(name) => dispatch(slotRenamed({ ...place, name }))}
          />
          <KeyRow
            keys={[
              {
                label: 'Variation',
                text: 'Variation',
                disabled: pattern.hits.length === 0 || !hasRoom(track),
                act: () => copyTo(freeSlot(track, slot), true),
              },
              {
                label: 'Copy to slot',
                text: 'Copy to …',
                pressed: aim === 'copy',
                disabled: isEmpty,
                act: () => setAim(aim === 'copy' ? null : 'copy'),
              },
              {
                label: 'Swap with slot',
                text: 'Swap with …',
                pressed: aim === 'swap',
                act: () => setAim(aim === 'swap' ? null : 'swap'),
              },
              {
                label: 'Clear slot',
                text: 'Clear',
                disabled: isEmpty,
                act: () => {
                  dispatch(slotCleared(place));
                  dispatch(noticed(`Slot ${slot + 1} cleared.`, true));
                },
              },
            ]}
          />
          {!isEmpty && <CopyToTrack />}
          <Feathers
            value={pattern.colour ?? track.colour}
            onChoose={(colour) => dispatch(slotColoured({ ...place, colour }))}
          />
        </>
      )}
      <KeyRow
        keys={[
          {
            text: 'New pattern',
            disabled: !hasRoom(track),
            act: () => {
              const free = track.patterns.findIndex((held, i) => i !== slot && (held?.hits.length ?? 0) === 0);
              if (free < 0) dispatch(slotsAdded({ track: track.id }));
              openSlot(free < 0 ? track.patterns.length : free);
            },
          },
          {
            text: 'More slots',
            disabled: track.patterns.length >= MAX_SLOTS,
            act: () => dispatch(slotsAdded({ track: track.id })),
          },
        ]}
      />
    </Sheet>
  );
}

/** The pattern is copied to another track: notes keep their pitch, all else its pads. */
function CopyToTrack() {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const place = useAppSelector(selectPlace);
  const { hits, name } = useAppSelector(selectPattern);
  const others = useAppSelector(selectTracks).filter(({ id }) => id !== place.track);
  if (others.length === 0) return null;
  const copy = (track: Track) => {
    const to = freeSlot(track, 0);
    if (to >= MAX_SLOTS) return dispatch(noticed(`${track.name} has no slot left for it.`));
    const firstId = instrument.reserveIds(hits.length);
    dispatch(slotCopied({ place, to, onto: track.id, firstId, label: 'copy' }));
    return dispatch(noticed(`“${name}” is copied to slot ${to + 1} of ${track.name}.`, true));
  };
  return (
    <PopMenu
      grow
      label="Copy to track"
      text="Copy to a track …"
      items={others.map((track) => ({ title: track.name, act: () => void copy(track) }))}
    />
  );
}

interface CardProps {
  slot: number;
  pattern: Pattern | null;
  meter: Meter;
  colour: string;
  isOpen: boolean;
  onPress: () => void;
}

function SlotCard({ slot, pattern, meter, colour, isOpen, onPress }: CardProps) {
  const tokens = useTokens();
  const bars = pattern ? Math.round(loopBars(pattern, meter) * 100) / 100 : 0;
  const words = pattern ? `${pattern.name}, ${counted(bars, 'bar')}, ${counted(pattern.hits.length, 'hit')}` : 'empty';
  return (
    <ControlButton
      label={`Slot ${slot + 1}`}
      description={words}
      pressed={isOpen}
      onPress={onPress}
      style={[
        styles.card,
        !pattern && !isOpen && { borderColor: tokens.rule, borderStyle: 'dashed', backgroundColor: 'transparent' },
      ]}
    >
      <View style={styles.face}>
        <View style={styles.head}>
          <Text style={[styles.number, { color: tokens.cap }]}>{slot + 1}</Text>
          {pattern && <View style={[styles.chip, { backgroundColor: colour }]} />}
        </View>
        {pattern ? <HitsPicture pattern={pattern} colour={colour} height={26} /> : <View style={styles.empty} />}
        <Text numberOfLines={1} style={[styles.name, { color: pattern ? tokens.wing : tokens.cap }]}>
          {pattern?.name ?? 'empty'}
        </Text>
      </View>
    </ControlButton>
  );
}

const styles = StyleSheet.create({
  slots: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
  card: { width: '23%', flexGrow: 1, minWidth: 78, paddingHorizontal: 4, paddingVertical: 4, alignItems: 'stretch' },
  face: { flex: 1, minWidth: 66, gap: 2 },
  head: { flexDirection: 'row', justifyContent: 'space-between', alignItems: 'center' },
  number: { fontFamily: NUMBERS, fontSize: grown(11), lineHeight: grown(14) },
  chip: { width: 14, height: 6, borderRadius: 3 },
  empty: { height: grown(26) },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(15), lineHeight: grown(18) },
});
