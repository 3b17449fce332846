import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { AS_IT_IS } from '@/core/launch/launchState';
import { touchMuteSolo } from '@/instrument/launches';
import type { Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';

interface Props {
  /** Ids of the track, or of all tracks of a group, one at least. */
  tracks: readonly number[];
  /** Name of the track or the group. */
  name: string;
  /** Place of the track in the list; null for a group, which no device can have. */
  place: number | null;
  which: 'mute' | 'solo';
}

/** Mutes or solos a track, or all of a group, when *Drop on* says; meanwhile it counts the beats. */
export function Gate({ tracks, name, place, which }: Props) {
  const store = useStore() as Store;
  const tokens = useTokens();
  const instrument = useInstrument();
  const [is, tick] = useLaunch(({ launcher: { live } }) => {
    const [now, next] = which === 'mute' ? [live.muted, live.nextMute] : [live.soloed, live.nextSolo];
    const waiting = tracks.filter((track) => next[track] !== AS_IT_IS);
    return `${tracks.every((track) => now[track] === 1)} ${Math.min(...waiting.map((track) => live.muteSoloTick[track]!))}`;
  }).split(' ');
  const isOn = is === 'true';
  const beats = useBeatsLeft(Number(tick));
  const word = which === 'mute' ? 'Mute' : 'Solo';
  return (
    <ControlButton
      label={`${word} ${name}`}
      maps={place === null ? undefined : { do: which, row: place }}
      pressed={isOn}
      description={beats === null ? (isOn ? 'on' : 'off') : `changes${inBeats(beats)}`}
      onTap={() => touchMuteSolo(store, instrument, tracks, which)}
      style={[GATE, beats !== null && { borderStyle: 'dashed', borderColor: tokens.straw }]}
    >
      <Text style={[gateWord, { color: tokens.wing }]}>{beats === null ? word : String(beats)}</Text>
    </ControlButton>
  );
}

/** The form of keys beside a channel. */
export const GATE = {
  width: grown(46),
  minWidth: 44,
  height: grown(44),
  paddingHorizontal: 0,
  borderRadius: RADIUS - 4,
} as const;

export const gateWord = { fontFamily: WORDS_STRONG, fontSize: grown(15), lineHeight: grown(20) } as const;
