import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { deviceForgotten } from '@/store/devicesSlice';
import { mappingSet, noticed, sheetClosed, sheetShown, type ClockHeard, type MidiState } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { useControllers } from './ControllersContext';
import { DeviceCard } from './DeviceCard';
import { MonitorLog } from './MonitorLog';
import { ALL_OF_ITS_WORDS } from '../theme/type';

const GROW = { flexGrow: 1, flexBasis: 130, minWidth: ALL_OF_ITS_WORDS } as const;
const ROW = { flexDirection: 'row', gap: 4, flexWrap: 'wrap' } as const;

/** What is plugged in, what it does, and what arrives from it. */
export default function DevicesSheet() {
  const dispatch = useAppDispatch();
  const controllers = useControllers();
  const midi = useAppSelector((state) => state.session.midi);
  const plugged = useAppSelector((state) => state.session.plugged);
  const known = useAppSelector((state) => state.devices.known);
  const clock = useAppSelector((state) => state.session.clock);
  const [open, setOpen] = useState<string | null>(null);
  const away = known.filter(({ name }) => !plugged.some((device) => device.name === name));
  const panic = () => {
    controllers.panic();
    dispatch(noticed('All notes are off, here and in what is plugged in.'));
  };
  const map = () => {
    dispatch(sheetClosed());
    dispatch(mappingSet(true));
  };
  return (
    <Sheet title="Devices" about="Controllers to play with, what each of them does, and what arrives from it.">
      <View style={ROW}>
        {midi.state !== 'open' && (
          <ControlButton
            tone="primary"
            label="Connect controllers"
            text={midi.state === 'asking' ? 'The browser asks …' : 'Connect controllers'}
            disabled={midi.state === 'asking'}
            onPress={() => void controllers.open()}
            style={GROW}
          />
        )}
        <ControlButton
          label="Map a control"
          text="Map a control"
          disabled={plugged.length === 0}
          onPress={map}
          style={GROW}
        />
        <ControlButton
          label="Panic"
          text="Panic"
          description="All notes off, here and in what is plugged in"
          onPress={panic}
          style={GROW}
        />
      </View>
      <Words>{stateWords(midi, plugged.length)}</Words>
      {clock && <Words>{clockWords(clock)}</Words>}
      {plugged.map(({ name, sends, hears }) => {
        const device = known.find((one) => one.name === name);
        return (
          device && (
            <DeviceCard
              key={name}
              device={device}
              sends={sends}
              hears={hears}
              isOpen={open === name}
              onOpen={() => setOpen(open === name ? null : name)}
            />
          )
        );
      })}
      <View style={ROW}>
        <ControlButton
          label="All maps"
          text="What each control works"
          onPress={() => dispatch(sheetShown('map'))}
          style={GROW}
        />
        <ControlButton
          label="Bench"
          text="Bench"
          onPress={() => {
            dispatch(sheetClosed());
            router.push('/bench');
          }}
          style={GROW}
        />
      </View>
      <SheetTitle>What arrives</SheetTitle>
      <MonitorLog />
      {away.length > 0 && <SheetTitle>Not plugged in</SheetTitle>}
      {away.map(({ name, bindings }) => (
        <View key={name} style={[ROW, { alignItems: 'center', flexWrap: 'nowrap' }]}>
          <View style={{ flex: 1 }}>
            <Words>{bindings.length === 0 ? name : `${name}: ${bindings.length} controls mapped`}</Words>
          </View>
          <ControlButton label={`Forget ${name}`} text="Forget" onPress={() => dispatch(deviceForgotten(name))} />
        </View>
      ))}
    </Sheet>
  );
}

function clockWords({ device, tempo, steadyMs, free }: ClockHeard): string {
  if (free) return `The clock of ${device} is silent just now: the song goes on at ${tempo} BPM.`;
  return `The song follows ${device} at ${tempo} BPM, steady within ${steadyMs} ms.`;
}

function stateWords({ state, problem }: MidiState, plugged: number): string {
  if (problem) return problem;
  if (plugged > 0) return 'Each device plays as it is set here; what is mapped works what it is mapped to.';
  if (state === 'open') return 'Nothing is plugged in yet. Plug a controller in, and it stands here.';
  return 'Browsers ask before they give controllers to a page: connect, and allow it.';
}
