import { memo } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { CHAIN } from '@/core/launch/launchState';
import type { Meter } from '@/core/time/ticks';
import { touchChain } from '@/instrument/launches';
import { sheetShown } from '@/store/sessionSlice';
import { selectSet } from '@/store/selectors';
import { useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { fitted } from '../theme/fitText';
import { useTokens } from '../theme/theme';
import { FEATHERS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { Gate } from './Gate';
import { CARD, PatternCard } from './PatternCard';
import { TrackLevel } from './TrackLevel';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';
import type { Track } from '@/core/document/track';
import { trackShown } from '@/store/stageSlice';

const HEAD_WIDTH = 98;

interface OfTrack {
  trackId: number;
  /** Its place in the list. */
  place: number;
}

/** One track: its name and level, mute and solo, and its patterns as cards. */
export const TrackRow = memo(function TrackRow({ track, meter }: { track: Track; meter: Meter }) {
  const own = FEATHERS[track.colour]!.colour;
  const { id: trackId, name } = track;
  const place = useAppSelector((state) => selectSet(state).order.indexOf(trackId));
  return (
    <div role="group" aria-label={`Track ${name}`} style={row}>
      <div style={{ ...tone, background: own }} aria-hidden />
      <View style={styles.head}>
        <TrackLevel track={track}>
          <TrackName track={track} place={place} />
        </TrackLevel>
        <View style={styles.gates}>
          <Gate tracks={[trackId]} name={name} place={place} which="mute" />
          <Gate tracks={[trackId]} name={name} place={place} which="solo" />
        </View>
      </View>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={styles.cards}>
        {track.chain && <ChainCard trackId={trackId} place={place} name={name} colour={own} />}
        {track.patterns.map((pattern, slot) => (
          <PatternCard
            key={slot}
            trackId={trackId}
            place={place}
            trackName={name}
            slot={slot}
            pattern={pattern}
            colour={FEATHERS[pattern?.colour ?? track.colour]!.colour}
            meter={meter}
            notes={track.tones !== undefined}
          />
        ))}
      </ScrollView>
    </div>
  );
});

/** The track's name, which opens what there is to set of it. */
function TrackName({ track, place }: { track: Track; place: number }) {
  const tokens = useTokens();
  const store = useStore() as Store;
  return (
    <ControlButton
      label={`Track settings ${track.name}`}
      maps={{ do: 'showTrack', row: place }}
      onPress={() => {
        store.dispatch(trackShown(track.id));
        store.dispatch(sheetShown('track'));
      }}
      style={styles.name}
    >
      <Text
        numberOfLines={2}
        style={[styles.word, fitted(track.name, HEAD_WIDTH - 16, { least: 12, most: 18 }), { color: tokens.wing }]}
      >
        {track.name}
      </Text>
    </ControlButton>
  );
}

/** The track's chain, launched like a pattern. */
function ChainCard({ trackId, place, name, colour }: OfTrack & { name: string; colour: string }) {
  const store = useStore() as Store;
  const tokens = useTokens();
  const instrument = useInstrument();
  const [link, tick] = useLaunch(({ launcher: { live } }) => {
    const waits = live.nextTick[trackId]! < Infinity && live.next[trackId] === CHAIN;
    return `${live.link[trackId]} ${waits ? live.nextTick[trackId] : Infinity}`;
  }).split(' ');
  const beats = useBeatsLeft(Number(tick));
  const on = Number(link) >= 0;
  return (
    <ControlButton
      label={`${name} chain`}
      maps={{ do: 'chain', row: place }}
      caption="Chain"
      text={beats === null ? (on ? `at ${Number(link) + 1}` : 'Start') : String(beats)}
      pressed={on}
      description={beats === null ? (on ? `playing, link ${Number(link) + 1}` : 'not playing') : `queued${inBeats(beats)}`} // prettier-ignore
      onTap={() => touchChain(store, instrument, trackId)}
      style={[
        styles.chain,
        { borderColor: beats !== null ? tokens.straw : on ? colour : tokens.edge },
        beats !== null && { borderStyle: 'dashed' },
      ]}
    />
  );
}

const row = {
  display: 'flex',
  height: grown(CARD.height + 8),
  flex: 'none',
  alignItems: 'center',
  // Rows out of sight cost nothing.
  contentVisibility: 'auto',
  containIntrinsicSize: `auto ${grown(CARD.height + 8)}`,
} as const;
const tone = { width: 5, height: grown(CARD.height), borderRadius: 3, marginRight: 3, flex: 'none' } as const;

const styles = StyleSheet.create({
  head: { width: grown(HEAD_WIDTH), height: grown(CARD.height), justifyContent: 'space-between' },
  name: { alignItems: 'flex-start', height: grown(44), paddingHorizontal: 4, backgroundColor: 'transparent', borderColor: 'transparent' }, // prettier-ignore
  word: { fontFamily: WORDS_STRONG },
  gates: { flexDirection: 'row', gap: 4 },
  cards: { gap: 6, paddingHorizontal: 8, alignItems: 'center' },
  chain: { width: grown(64), height: grown(CARD.height) },
});
