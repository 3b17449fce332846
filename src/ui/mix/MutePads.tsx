import { Text } from 'react-native-paper';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { padMuteToggled } from '@/store/tracksSlice';
import { GATE, gateWord } from '../launch/Gate';
import { ControlButton } from '../shared/ControlButton';
import { useTokens } from '../theme/theme';
import type { ShownChannel } from './mixChannels';

/** Mutes what patterns play on all pads of a group that only pads go to: at once, as in Steps. Of pads of which only some are, all will be. */
export function MutePads({ name, pads }: Pick<ShownChannel, 'name' | 'pads'>) {
  const dispatch = useAppDispatch();
  const tokens = useTokens();
  const { tracks } = useAppSelector(selectSet);
  const isMuted = ({ track, pad }: (typeof pads)[number]) => tracks[track]?.mutedPads?.includes(pad) === true;
  const isOn = pads.every(isMuted);
  return (
    <ControlButton
      label={`Mute ${name}`}
      pressed={isOn}
      description={isOn ? 'on' : 'off'}
      onTap={() => pads.filter((of) => isMuted(of) === isOn).forEach((of) => dispatch(padMuteToggled(of)))}
      style={GATE}
    >
      <Text style={[gateWord, { color: tokens.wing }]}>Mute</Text>
    </ControlButton>
  );
}
