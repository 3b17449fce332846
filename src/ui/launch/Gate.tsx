import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { AS_IT_IS } from '@/core/launch/launchState';
import { touchMuteSolo } from '@/instrument/launches';
import type { Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';

interface Props {
  trackId: number;
  /** Its place in the list. */
  place: number;
  /** Its name. */
  track: string;
  which: 'mute' | 'solo';
}

/** Mutes or solos a track when *Drop on* says; meanwhile it counts the beats. */
export function Gate({ trackId, place, track, which }: Props) {
  const store = useStore() as Store;
  const tokens = useTokens();
  const instrument = useInstrument();
  const [is, waits, tick] = useLaunch(({ launcher: { live } }) => {
    const [now, next] = which === 'mute' ? [live.muted, live.nextMute] : [live.soloed, live.nextSolo];
    return `${now[trackId]} ${next[trackId]} ${live.muteSoloTick[trackId]}`;
  }).split(' ');
  const beats = useBeatsLeft(Number(waits) === AS_IT_IS ? Infinity : Number(tick));
  const word = which === 'mute' ? 'Mute' : 'Solo';
  return (
    <ControlButton
      label={`${word} ${track}`}
      maps={{ do: which, row: place }}
      pressed={is === '1'}
      description={beats === null ? (is === '1' ? 'on' : 'off') : `changes${inBeats(beats)}`}
      onTap={() => touchMuteSolo(store, instrument, trackId, which)}
      style={[styles.gate, beats !== null && { borderStyle: 'dashed', borderColor: tokens.straw }]}
    >
      <Text style={[styles.gateWord, { color: tokens.wing }]}>{beats === null ? word : String(beats)}</Text>
    </ControlButton>
  );
}

const styles = StyleSheet.create({
  gate: { width: 46, minWidth: 44, height: 44, paddingHorizontal: 0, borderRadius: RADIUS - 4 },
  gateWord: { fontFamily: WORDS_STRONG, fontSize: 15, lineHeight: 20 },
});
