import { useState } from 'react';
import { View } from 'react-native';
import type { ClockSource } from '@/midi/bench/clockSource';
import { ControlButton } from '../shared/ControlButton';
import { Strip } from '../shared/Strip';

/** A clock that another instrument would send, as unsteady as it is set. */
export function ClockPanel({ source }: { source: ClockSource }) {
  const [running, setRunning] = useState(source.isRunning);
  const [, setChanged] = useState(0);
  const set = (change: () => void) => {
    change();
    setChanged((count) => count + 1);
  };
  return (
    <View style={{ gap: 4 }}>
      <ControlButton
        label={running ? 'Stop the clock' : 'Start the clock'}
        text={running ? 'Stop the clock' : 'Start the clock'}
        pressed={running}
        onPress={() => {
          if (running) source.stop();
          else source.start();
          setRunning(source.isRunning);
        }}
      />
      <Strip
        label="Clock tempo"
        value={source.tempo}
        min={40}
        max={240}
        step={1}
        scale={1}
        unit="BPM"
        onChange={(bpm) => set(() => (source.tempo = bpm))}
      />
      <Strip
        label="Clock jitter"
        value={source.jitterMs}
        min={0}
        max={10}
        step={0.5}
        scale={1}
        unit="ms"
        onChange={(ms) => set(() => (source.jitterMs = ms))}
      />
      <Strip
        label="Ticks lost"
        value={source.lost}
        min={0}
        max={0.2}
        step={0.01}
        unit="%"
        onChange={(lost) => set(() => (source.lost = lost))}
      />
    </View>
  );
}
