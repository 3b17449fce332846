import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { mixWritesToggled } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Gate } from '../launch/Gate';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { ChannelPanel } from './ChannelPanel';
import { EchoStrips } from './EchoStrips';
import { LevelStrip } from './LevelStrip';
import { selectChannels, type ShownChannel } from './mixChannels';
import { MutePads } from './MutePads';
import { RoomStrips } from './RoomStrips';

/** ms between two looks at the loudness: quick enough for a number that is read. */
const LOUDNESS_MS = 250;

/** The mix: the levels of all tracks, groups and the whole, each with what its channel does one touch away. */
export function MixSheet() {
  const { meters } = useInstrument();
  useEffect(() => meters.watch(), [meters]);
  const channels = useAppSelector(selectChannels);
  const [open, setOpen] = useState<number | null>(null);
  const rows = (kind: ShownChannel['kind']) =>
    channels.filter((shown) => shown.kind === kind).map((shown, place) => (
      <ChannelRow
        key={shown.channel}
        shown={shown}
        place={place}
        isOpen={open === shown.channel}
        onOpen={() => setOpen(open === shown.channel ? null : shown.channel)}
      />
    )); // prettier-ignore
  const hasGroups = channels.some(({ kind }) => kind === 'group');
  return (
    <Sheet
      title="Mix"
      about="How loud everything is, where it lies, and what it goes through."
      action={<LoudnessKey />}
    >
      {rows('track')}
      <WriteKey />
      {hasGroups && <SheetTitle>Groups</SheetTitle>}
      {rows('group')}
      <SheetTitle>All of it</SheetTitle>
      {rows('whole')}
      <EchoStrips />
      <RoomStrips />
    </Sheet>
  );
}

interface RowProps {
  shown: ShownChannel;
  place: number;
  isOpen: boolean;
  onOpen: () => void;
}

function ChannelRow({ shown, place, isOpen, onOpen }: RowProps) {
  const { kind, name, tracks, pads } = shown;
  // Controllers know tracks by their places.
  const mapped = kind === 'track' ? place : null;
  return (
    <>
      <View role="group" aria-label={`Mix of ${name}`} style={styles.row}>
        <LevelStrip shown={shown} place={mapped} isOpen={isOpen} onOpen={onOpen} />
        {tracks.length > 0 && (
          <>
            <Gate tracks={tracks} name={name} place={mapped} which="mute" />
            <Gate tracks={tracks} name={name} place={mapped} which="solo" />
          </>
        )}
        {tracks.length === 0 && pads.length > 0 && <MutePads name={name} pads={pads} />}
      </View>
      {isOpen && <ChannelPanel shown={shown} />}
    </>
  );
}

/** Whether what is turned here becomes Moves while recording. */
function WriteKey() {
  const dispatch = useAppDispatch();
  const writes = useAppSelector((state) => state.session.mixWrites);
  return (
    <>
      <ControlButton
        label="Write Moves"
        text="Write Moves"
        icon="chart-timeline-variant"
        pressed={writes}
        onPress={() => dispatch(mixWritesToggled())}
      />
      {writes && <Words>While you record, what you turn here becomes Moves of the pattern that plays.</Words>}
    </>
  );
}

/** Loudness of what leaves the app, and the way to reset all peaks. */
function LoudnessKey() {
  const tokens = useTokens();
  const { meters } = useInstrument();
  const number = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const look = () => {
      const { shortTerm } = meters;
      if (number.current) number.current.textContent = shortTerm > -70 ? `${shortTerm.toFixed(1)} LUFS` : 'silent';
    };
    look();
    const timer = setInterval(look, LOUDNESS_MS);
    return () => clearInterval(timer);
  }, [meters]);
  return (
    <View role="status" aria-label="Loudness" aria-live="off" style={[styles.loudness, { backgroundColor: tokens.slate }]}>
      <Text style={[styles.caption, { color: tokens.cap }]}>Loudness</Text>
      <div ref={number} style={{ ...figures, color: tokens.wing }} />
    </View>
  ); // prettier-ignore
}

const figures = { fontFamily: NUMBERS, fontSize: grown(13), lineHeight: `${grown(17)}px` } as const;

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 4, alignItems: 'center' },
  loudness: { height: TOUCH, borderRadius: RADIUS, paddingHorizontal: 10, justifyContent: 'center', alignItems: 'center' },
  caption: { fontFamily: WORDS, fontSize: grown(13), lineHeight: grown(15) },
}); // prettier-ignore
