import { StyleSheet, View } from 'react-native';
import { lanesOf } from '@/core/document/lanes';
import {
  ANY_PAD,
  FIRST_GROUP_CHANNEL,
  MIX_CONTROL_NAMES,
  MIX_RANGES,
  type DuckKey,
  type MixControl,
} from '@/core/document/mix';
import { tracksOf } from '@/core/document/set';
import { equaliserDb } from '@/core/measure/equaliserCurve';
import { compressedLevel } from '@/core/sound/mix/compressorCurve';
import {
  channelSent,
  channelTurned,
  duckedBySet,
  groupColoured,
  groupNamed,
  groupRemoved,
  mayGoTo,
} from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { Feathers } from '../shared/Feathers';
import { NameField } from '../shared/NameField';
import { StripGroup } from '../sounds/StripGroup';
import { useTokens } from '../theme/theme';
import { FEATHERS } from '../theme/tokens';
import { CurvePicture } from '../shared/CurvePicture';
import type { ShownChannel } from './mixChannels';
import { mixScale } from './mixScales';
import { PadWays } from './PadWays';
import { RiddenStrip } from './RiddenStrip';
import { useNewGroup } from './useNewGroup';
import { useMixTurn } from './useMixTurn';

type Turned = Exclude<MixControl, 'level'>;

const EQUALISER = ['low', 'bell', 'bellHz', 'bellQ', 'high'] as const;
const DUCKING = ['duck', 'duckTime'] as const;
const COMPRESSOR = ['ratio', 'threshold', 'attack', 'release', 'knee', 'makeUp'] as const;

/** All there is to set of one channel beside its level. */
export function ChannelPanel({ shown }: { shown: ShownChannel }) {
  const tokens = useTokens();
  const { name, kind, colour } = shown;
  const own = kind === 'whole' ? tokens.cap : FEATHERS[colour]!.colour;
  return (
    <View role="group" aria-label={`Channel ${name}`} style={[styles.panel, { borderColor: own }]}>
      {kind !== 'whole' && (
        <>
          <TurnStrip control="pan" shown={shown} />
          <TurnStrip control="room" shown={shown} />
          <TurnStrip control="echo" shown={shown} />
        </>
      )}
      <TurnStrip control="filter" shown={shown} />
      <TurnStrip control="drive" shown={shown} />
      <StripGroup name="Equaliser" of={name}>
        <EqualiserCurve shown={shown} />
        {EQUALISER.map((control) => (
          <TurnStrip key={control} control={control} shown={shown} />
        ))}
      </StripGroup>
      <StripGroup name="Compressor" of={name}>
        <CompressorCurve shown={shown} />
        {COMPRESSOR.map((control) => (
          <TurnStrip key={control} control={control} shown={shown} />
        ))}
      </StripGroup>
      <StripGroup name="Ducking" of={name}>
        <DuckedBy shown={shown} />
        {shown.settings.duckedBy &&
          DUCKING.map((control) => <TurnStrip key={control} control={control} shown={shown} />)}
      </StripGroup>
      {kind !== 'whole' && <GoesTo shown={shown} />}
      {kind === 'track' && <PadWays track={shown.channel} />}
      {kind === 'group' && <GroupKeys shown={shown} />}
    </View>
  );
}

function TurnStrip({ control, shown }: { control: Turned; shown: ShownChannel }) {
  const dispatch = useAppDispatch();
  const { channel, name, settings } = shown;
  const { neutral } = MIX_RANGES[control];
  const caption = MIX_CONTROL_NAMES[control];
  const word = control === 'pan' ? 'pan' : caption;
  const hand = useMixTurn(channel, control, settings[control] ?? neutral, (value, gesture) =>
    dispatch(channelTurned({ channel, control, value: value === neutral ? null : value, gesture })),
  );
  return (
    <RiddenStrip label={`${name} ${word}`} caption={caption} own={neutral} scale={mixScale(control)} hand={hand} />
  );
}

/** dB from the middle of the picture to its edge, and Hz from its left end to its right one. */
const EDGE_DB = 18;
const [LEFT_HZ, RIGHT_HZ] = [30, 18000];

function EqualiserCurve({ shown: { settings, name } }: { shown: ShownChannel }) {
  return (
    <CurvePicture
      label={`Equaliser of ${name}: what it adds from ${LEFT_HZ} Hz to ${RIGHT_HZ / 1000} kHz`}
      line="middle"
      curve={(place) => 0.5 + equaliserDb(settings, LEFT_HZ * (RIGHT_HZ / LEFT_HZ) ** place) / (2 * EDGE_DB)}
    />
  );
}

/** dB at the left and lower edge of the compressor's picture. */
const SOFTEST_DB = -60;

function CompressorCurve({ shown: { settings, name } }: { shown: ShownChannel }) {
  const of = (control: Turned) => settings[control] ?? MIX_RANGES[control].neutral;
  const [threshold, ratio, knee, makeUp] = [of('threshold'), of('ratio'), of('knee'), of('makeUp')];
  return (
    <CurvePicture
      label={`Compressor of ${name}: from ${SOFTEST_DB} to 0 dB`}
      line="diagonal"
      curve={(place) => 1 - (compressedLevel(SOFTEST_DB * (1 - place), threshold, ratio, knee) + makeUp) / SOFTEST_DB}
    />
  );
}

/** Where it goes: the whole mix, a group that there is, or a new one. */
function GoesTo({ shown }: { shown: ShownChannel }) {
  const dispatch = useAppDispatch();
  const set = useAppSelector(selectSet);
  const newGroup = useNewGroup();
  const { channel, kind, to } = shown;
  const groups = set.mix?.groups ?? [];
  const own = groups.find(({ id }) => FIRST_GROUP_CHANNEL + id === channel);
  const open = groups.filter(({ id }) => kind === 'track' || (own && mayGoTo(set, own, id)));
  const options = [
    { value: 'whole', name: 'The whole mix' },
    ...open.map(({ id, name }) => ({ value: String(id), name })),
    ...(newGroup && kind === 'track' ? [{ value: 'new', name: 'A new group' }] : []),
  ];
  const choose = (value: string) => {
    if (value === 'new') dispatch(channelSent({ channel, to: newGroup!() }));
    else dispatch(channelSent({ channel, to: value === 'whole' ? null : Number(value) }));
  };
  return (
    <Choice
      label="Goes to"
      caption="Goes to"
      value={to === undefined ? 'whole' : String(to)}
      options={options}
      onChoose={choose}
    />
  );
}

/** Which pad makes the channel duck: of a kit any of its pads, of notes all of them. */
function DuckedBy({ shown: { channel, settings } }: { shown: ShownChannel }) {
  const dispatch = useAppDispatch();
  const set = useAppSelector(selectSet);
  const keys = tracksOf(set).flatMap((track) => {
    const any = { key: { track: track.id, pad: ANY_PAD }, name: `All of ${track.name}` };
    if (track.tones) return [any];
    return [any, ...lanesOf(track).map(({ name }, pad) => ({ key: { track: track.id, pad }, name: `${track.name} · ${name}` }))]; // prettier-ignore
  });
  const valueOf = ({ track, pad }: DuckKey) => `${track} ${pad}`;
  return (
    <Choice
      label="Ducks under"
      caption="Ducks under"
      value={settings.duckedBy ? valueOf(settings.duckedBy) : 'none'}
      options={[{ value: 'none', name: 'Nothing' }, ...keys.map(({ key, name }) => ({ value: valueOf(key), name }))]}
      onChoose={(value) => {
        const key = keys.find((one) => valueOf(one.key) === value)?.key ?? null;
        dispatch(duckedBySet({ channel, key }));
      }}
    />
  );
}

function GroupKeys({ shown: { channel, name, colour } }: { shown: ShownChannel }) {
  const dispatch = useAppDispatch();
  const id = channel - FIRST_GROUP_CHANNEL;
  const remove = () => {
    dispatch(groupRemoved(id));
    dispatch(noticed(`${name} is removed; what went to it goes to the whole mix.`, true));
  };
  return (
    <>
      <NameField
        key={name}
        label="Group name"
        caption="Name of the group"
        name={name}
        onName={(text) => dispatch(groupNamed({ id, name: text }))}
      />
      <Feathers value={colour} onChoose={(next) => dispatch(groupColoured({ id, colour: next }))} />
      <ControlButton label={`Remove group ${name}`} text="Remove the group" onPress={remove} />
    </>
  );
}

const styles = StyleSheet.create({ panel: { borderLeftWidth: 4, paddingLeft: 10, gap: 5 } });
