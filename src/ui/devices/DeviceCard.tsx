import { StyleSheet, View } from 'react-native';
import { MAX_TRACKS } from '@/core/document/limits';
import { MOST_LATENCY_MS, type Device, type DevicePlays } from '@/core/midi/device';
import { selectTracks } from '@/store/selectors';
import { clockFollowed, deviceForgotten, deviceMet, deviceSet } from '@/store/devicesSlice';
import { sheetShown } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { NumberField } from '../shared/NumberField';
import { useTokens } from '../theme/theme';
import { RADIUS } from '../theme/tokens';
import { LayoutPanel } from './LayoutPanel';
import { LightsPanel } from './LightsPanel';
import { MapFileKeys } from './MapFileKeys';
import { OutPanel } from './OutPanel';
import { VelocityPanel } from './VelocityPanel';

const PLAYS: { value: DevicePlays; name: string }[] = [
  { value: 'pads', name: 'The pads' },
  { value: 'shown', name: 'The shown track' },
  { value: 'track', name: 'One track' },
  { value: 'launch', name: 'Launches' },
  { value: 'nothing', name: 'Controls only' },
];
const CHANNELS = Array.from({ length: 17 }, (_, i) => ({ value: String(i), name: i === 0 ? 'All' : String(i) }));

interface Props {
  device: Device;
  sends: boolean;
  hears: boolean;
  isOpen: boolean;
  onOpen: () => void;
}

/** One device: what it plays, how its strokes are meant, and its map. */
export function DeviceCard({ device, sends, hears, isOpen, onOpen }: Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { name, plays, channel, bindings } = device;
  const words = sends ? PLAYS.find(({ value }) => value === plays)!.name : 'Hears only';
  return (
    <View role="region" aria-label={name} style={[styles.card, { borderColor: tokens.rule }]}>
      <ControlButton
        label={`Settings of ${name}`}
        text={name}
        footnote={`${words}${channel > 0 ? `, channel ${channel}` : ''}${hears && sends && device.lights ? ', lit' : ''}${bindings.length > 0 ? `, ${bindings.length} mapped` : ''}`}
        expanded={isOpen}
        onPress={onOpen}
        style={styles.head}
      />
      {isOpen && (
        <View style={styles.inside}>
          {sends && <PlaysPanel device={device} />}
          {hears && <LightsPanel device={device} />}
          {hears && <OutPanel device={device} />}
          <MapFileKeys device={device} />
          <ControlButton
            label={`Forget ${name}`}
            text="As if it were new"
            onPress={() => {
              dispatch(deviceForgotten(name));
              dispatch(deviceMet(name));
            }}
          />
        </View>
      )}
    </View>
  );
}

/** What its keys and pads do, and how its strokes are meant. */
function PlaysPanel({ device }: { device: Device }) {
  const dispatch = useAppDispatch();
  const tracks = useAppSelector(selectTracks);
  const { name, plays, row, channel, records, latencyMs, followed } = device;
  const change = (changed: Partial<Omit<Device, 'name'>>) => dispatch(deviceSet({ name, change: changed }));
  return (
    <>
      <View style={styles.row}>
        <Choice
          label={`${name} plays`}
          caption="Plays"
          grow
          value={plays}
          options={PLAYS}
          onChoose={(value) => change({ plays: value })}
        />
        {plays === 'track' && (
          <Choice
            label={`Track of ${name}`}
            caption="Track"
            grow
            value={String(row)}
            options={Array.from({ length: MAX_TRACKS }, (_, i) => ({
              value: String(i),
              name: `${i + 1}${tracks[i] ? ` ${tracks[i].name}` : ''}`,
            }))}
            onChoose={(value) => change({ row: Number(value) })}
          />
        )}
        <Choice
          label={`Channel of ${name}`}
          caption="Channel"
          grow
          value={String(channel)}
          options={CHANNELS}
          onChoose={(value) => change({ channel: Number(value) })}
        />
        <ControlButton
          label={`${name} is recorded`}
          caption="Recorded"
          text={records ? 'Yes' : 'Only plays'}
          pressed={records}
          onPress={() => change({ records: !records })}
          style={styles.grow}
        />
      </View>
      <VelocityPanel device={device} />
      {(plays === 'pads' || plays === 'launch') && <LayoutPanel device={device} />}
      <View style={styles.row}>
        <NumberField
          label={`Latency of ${name}`}
          caption="Late by, ms"
          value={latencyMs}
          min={-MOST_LATENCY_MS}
          max={MOST_LATENCY_MS}
          text={String(latencyMs)}
          valueText={`${latencyMs} ms`}
          onStep={(steps) => change({ latencyMs: clampedMs(latencyMs + steps) })}
          onType={(text) => {
            const ms = Number(text.replace(',', '.').replace('−', '-'));
            if (!Number.isFinite(ms) || text.trim() === '') return false;
            change({ latencyMs: clampedMs(ms) });
            return true;
          }}
          style={styles.grow}
        />
        <ControlButton
          label={`Latency check of ${name}`}
          text="Latency check"
          onPress={() => dispatch(sheetShown('latency'))}
          style={styles.grow}
        />
      </View>
      <ControlButton
        label={`The song follows the clock of ${name}`}
        text={followed ? 'The song follows its clock' : 'Its clock is not followed'}
        pressed={followed}
        onPress={() => dispatch(clockFollowed(followed ? null : name))}
      />
    </>
  );
}

function clampedMs(ms: number): number {
  return Math.round(Math.min(MOST_LATENCY_MS, Math.max(-MOST_LATENCY_MS, ms)) * 10) / 10;
}

const styles = StyleSheet.create({
  card: { borderWidth: 1, borderRadius: RADIUS, padding: 4, gap: 6 },
  head: { alignItems: 'flex-start', backgroundColor: 'transparent', borderColor: 'transparent' },
  inside: { gap: 8, padding: 4 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  grow: { flexGrow: 1, flexBasis: 110, minWidth: 100 },
});
