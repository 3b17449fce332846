import { View } from 'react-native';
import { lanesOf } from '@/core/document/lanes';
import { MAX_TRACKS, PADS } from '@/core/document/limits';
import type { Device, OutTrack } from '@/core/midi/device';
import { selectTracks } from '@/store/selectors';
import { deviceSet } from '@/store/devicesSlice';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { NameField } from '../shared/NameField';

const CHANNELS = Array.from({ length: 16 }, (_, i) => ({ value: String(i + 1), name: String(i + 1) }));
/** Drums lie on channel 10 (General MIDI). */
const DRUM_CHANNEL = 10;

/** What a device gets to hear: the song's clock, and tracks that play it. */
export function OutPanel({ device }: { device: Device }) {
  const dispatch = useAppDispatch();
  const tracks = useAppSelector(selectTracks);
  const { name, outs, clocked } = device;
  const set = (change: Partial<Pick<Device, 'outs' | 'clocked'>>) => dispatch(deviceSet({ name, change }));
  const change = (at: number, changed: Partial<OutTrack>) =>
    set({ outs: outs.map((out, i) => (i === at ? { ...out, ...changed } : out)) });
  const free = Array.from({ length: MAX_TRACKS }, (_, row) => row).find((row) => !outs.some((out) => out.row === row));
  const trackName = (row: number) => `${row + 1}${tracks[row] ? ` ${tracks[row].name}` : ''}`;
  return (
    <View style={{ gap: 4 }}>
      <View style={{ flexDirection: 'row', gap: 4 }}>
        <ControlButton
          label={`${name} gets the clock`}
          caption="Gets the clock"
          text={clocked ? 'Yes' : 'No'}
          pressed={clocked}
          onPress={() => set({ clocked: !clocked })}
          style={{ flexGrow: 1, flexBasis: 0 }}
        />
        <ControlButton
          label={`A track plays ${name}`}
          text="A track plays it"
          icon="plus"
          disabled={free === undefined}
          onPress={() => {
            const channel = tracks[free!]?.tones ? 1 : DRUM_CHANNEL;
            set({ outs: [...outs, { row: free!, channel, moves: true }] });
          }}
          style={{ flexGrow: 1, flexBasis: 0 }}
        />
      </View>
      {outs.map((out, at) => (
        <View key={at} role="group" aria-label={`Track ${trackName(out.row)} plays ${name}`} style={{ gap: 4 }}>
          <View style={{ flexDirection: 'row', gap: 4, flexWrap: 'wrap' }}>
            <Choice
              label="Track that plays"
              caption="Track"
              grow
              value={String(out.row)}
              options={Array.from({ length: MAX_TRACKS }, (_, row) => ({ value: String(row), name: trackName(row) }))}
              onChoose={(row) => change(at, { row: Number(row) })}
            />
            <Choice
              label="Channel that it plays on"
              caption="Channel"
              grow
              value={String(out.channel)}
              options={CHANNELS}
              onChoose={(channel) => change(at, { channel: Number(channel) })}
            />
            <ControlButton
              label="Moves as control changes"
              caption="Moves"
              text={out.moves ? 'Sent' : 'Not sent'}
              pressed={out.moves}
              onPress={() => change(at, { moves: !out.moves })}
              style={{ flexGrow: 1 }}
            />
            <ControlButton
              label="Play it no more"
              icon="close"
              onPress={() => set({ outs: outs.filter((_, i) => i !== at) })}
            />
          </View>
          <NoteField
            out={out}
            own={tracks[out.row] ? lanesOf(tracks[out.row]!).map(({ note }) => note) : []}
            onNotes={(notes) => change(at, { notes })}
          />
        </View>
      ))}
    </View>
  );
}

/** The note of each pad, pad 1 first; emptied, the pads' own. */
function NoteField(props: { out: OutTrack; own: readonly number[]; onNotes: (notes: number[]) => void }) {
  const { out, own, onNotes } = props;
  const dispatch = useAppDispatch();
  const text = (out.notes ?? own).join(' ');
  return (
    <NameField
      key={text}
      label="Notes of the pads"
      caption="Notes of the pads, 1 to 16"
      most={16 * 4}
      name={text}
      onName={(typed) => {
        const notes = typed.trim().split(/[\s,]+/).map(Number); // prettier-ignore
        const isNote = (note: number) => Number.isInteger(note) && note >= 0 && note <= 127;
        if (notes.length === PADS && notes.every(isNote)) onNotes(notes);
        else dispatch(noticed('Sixteen notes from 0 to 127 are needed, pad 1 first.'));
      }}
    />
  );
}
