import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { counted } from '@/core/counted';
import { lanesOf } from '@/core/document/lanes';
import type { Track } from '@/core/document/track';
import { drumName } from '@/core/formats/gmDrums';
import { keysOf, padOf, PART_PLAYERS, type PartChoice, type PartPlayer } from '@/core/formats/midiSet';
import type { MidiPart } from '@/core/formats/readMidi';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { HitsPicture } from '../shared/HitsPicture';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { FEATHERS, RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';

interface Props {
  part: MidiPart;
  choice: PartChoice;
  /** The track that it becomes, while it is taken. */
  track: Track | undefined;
  onChange: (change: Partial<PartChoice>) => void;
}

const PLAYER_NAMES: Record<PartPlayer, string> = { drums: 'Drums', bass: 'Bass', keys: 'Keys' };
const NONE = 'none';

/** One part of a MIDI file: whether it comes in, what plays it, and, of drums, which pad plays which key. */
export function IncomingPart({ part, choice, track, onChange }: Props) {
  const tokens = useTokens();
  const [isOpen, setOpen] = useState(false);
  const { name, channel, notes } = part;
  const pattern = track?.patterns.find((one) => one !== null && one.hits.length > 0);
  const isDrums = choice.player === 'drums';
  return (
    <View role="group" aria-label={name} style={[styles.part, { backgroundColor: tokens.deep }]}>
      <View style={styles.row}>
        <View style={styles.words}>
          <Text style={[styles.name, { color: tokens.wing }]}>{name}</Text>
          <Words>{`Channel ${channel + 1}, ${counted(notes.length, 'note')}`}</Words>
        </View>
        <ControlButton
          label={`Take ${name}`}
          text={choice.taken ? 'Comes in' : 'Stays away'}
          pressed={choice.taken}
          onPress={() => onChange({ taken: !choice.taken })}
        />
      </View>
      {pattern && (
        <HitsPicture
          pattern={pattern}
          colour={FEATHERS[track!.colour]?.colour ?? tokens.breast}
          height={28}
          notes={!isDrums}
        />
      )}
      {choice.taken && (
        <View style={styles.row}>
          <Choice
            label={`What plays ${name}`}
            caption="Played by"
            value={choice.player}
            options={PART_PLAYERS.map((player) => ({ value: player, name: PLAYER_NAMES[player] }))}
            onChoose={(player) => onChange({ player })}
            grow
          />
          {isDrums && (
            <ControlButton
              label={`Pads of ${name}`}
              text="Pads"
              expanded={isOpen}
              pressed={isOpen}
              onPress={() => setOpen(!isOpen)}
            />
          )}
        </View>
      )}
      {isOpen && isDrums && choice.taken && <Pads {...{ part, choice, track, onChange }} />}
    </View>
  );
}

/** Which pad plays each key of a drum part. */
function Pads({ part, choice, track, onChange }: Props) {
  const lanes = track ? lanesOf(track) : [];
  const options = [
    { value: NONE, name: 'Left out' },
    ...lanes.map((lane, pad) => ({ value: String(pad), name: `${pad + 1}  ${lane.name}` })),
  ];
  return (
    <View style={styles.pads}>
      {keysOf(part).map((key) => (
        <Choice
          key={key}
          label={`Pad of ${drumName(key)}`}
          caption={drumName(key)}
          value={String(padOf(key, choice) ?? NONE)}
          options={options}
          onChoose={(value) => onChange({ pads: { ...choice.pads, [key]: value === NONE ? null : Number(value) } })}
          grow
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { borderRadius: RADIUS, padding: 8, gap: 6 },
  row: { flexDirection: 'row', gap: 4, alignItems: 'center' },
  words: { flex: 1, minWidth: 0 },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(22) },
  pads: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
});
