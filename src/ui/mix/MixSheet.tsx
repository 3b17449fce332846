import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { ECHO_MS, ECHO_TIMES, FIRST_ECHO, type Echo, type EchoTime } from '@/core/document/mix';
import { echoSet } from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { mixWritesToggled } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Gate } from '../launch/Gate';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { ValueStrip } from '../shared/ValueStrip';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { ChannelPanel } from './ChannelPanel';
import { LevelStrip } from './LevelStrip';
import { selectChannels, type ShownChannel } from './mixChannels';
import { msScale, SHARE_SCALE } from './mixScales';

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
  const { kind, name, tracks } = shown;
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

const TIMES = [
  ...(Object.keys(ECHO_TIMES) as EchoTime[]).map((time) => ({ value: time as string, name: time as string })),
  { value: 'ms', name: 'In ms' },
];

/** The echo that all channels send to. */
function EchoStrips() {
  const dispatch = useAppDispatch();
  const echo = useAppSelector((state) => selectSet(state).mix?.echo ?? FIRST_ECHO);
  const { time } = echo;
  const change = (changed: Partial<Echo>, gesture = `echo ${Object.keys(changed).join()}`) =>
    dispatch(echoSet({ change: changed, gesture }));
  const share = (of: 'feedback' | 'tone' | 'width', caption: string) => (
    <ValueStrip
      label={`Echo ${of}`}
      caption={caption}
      value={echo[of]}
      own={FIRST_ECHO[of]}
      scale={SHARE_SCALE}
      onSet={(value, gesture) => change({ [of]: value ?? FIRST_ECHO[of] }, gesture)}
    />
  );
  return (
    <>
      <SheetTitle>Echo</SheetTitle>
      <Choice
        label="Echo time"
        caption="Comes after"
        numeric
        value={typeof time === 'number' ? 'ms' : time}
        options={TIMES}
        onChoose={(value) => change({ time: value === 'ms' ? 375 : (value as EchoTime) })}
      />
      {typeof time === 'number' && (
        <ValueStrip
          label="Echo ms"
          caption="Time"
          value={time}
          own={375}
          scale={msScale(ECHO_MS)}
          onSet={(value, gesture) => change({ time: value ?? 375 }, gesture)}
        />
      )}
      {share('feedback', 'Comes again')}
      {share('tone', 'Bright')}
      {share('width', 'From side to side')}
    </>
  );
}

const figures = { fontFamily: NUMBERS, fontSize: grown(13), lineHeight: `${grown(17)}px` } as const;

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 4, alignItems: 'center' },
  loudness: { height: TOUCH, borderRadius: RADIUS, paddingHorizontal: 10, justifyContent: 'center', alignItems: 'center' },
  caption: { fontFamily: WORDS, fontSize: grown(13), lineHeight: grown(15) },
}); // prettier-ignore
