import { useState } from 'react';
import { View } from 'react-native';
import { FIRST_FADER, FIRST_KNOB } from '@/core/midi/layouts';
import type { BenchDevice } from '@/midi/bench/benchDevice';
import { Choice } from '../shared/Choice';
import { Strip } from '../shared/Strip';
import { useBenchDevice } from './useBenchDevice';

const COUNTS = [
  { value: 'place', name: '7 bits' },
  { value: 'fine', name: '14 bits' },
] as const;
type Counts = (typeof COUNTS)[number]['value'];

/** Eight knobs and eight faders. They go where the app sends them, as motor faders and rings of light do. */
export function KnobPanel({ device }: { device: BenchDevice }) {
  const [counts, setCounts] = useState<Counts>('place');
  return (
    <View style={{ gap: 4 }}>
      <Choice label="Knobs count in" caption="They send" value={counts} options={COUNTS} onChoose={setCounts} />
      {Array.from({ length: 16 }, (_, i) => (
        <Knob
          key={i}
          device={device}
          name={i < 8 ? `Knob ${i + 1}` : `Fader ${i - 7}`}
          control={i < 8 ? FIRST_KNOB + i : FIRST_FADER + i - 8}
          fine={counts === 'fine'}
        />
      ))}
    </View>
  );
}

function Knob({ device, name, control, fine }: { device: BenchDevice; name: string; control: number; fine: boolean }) {
  const told = useBenchDevice(device, () => device.values.get(control) ?? -1);
  const [moved, setMoved] = useState({ value: 0, told: -1 });
  // Where it was moved last: by the hand, or by the app since.
  const value = told >= 0 && told !== moved.told ? told / 127 : moved.value;
  const most = fine ? 16383 : 127;
  return (
    <Strip
      label={name}
      value={value}
      step={1 / most}
      scale={most}
      onChange={(next, _, at) => {
        setMoved({ value: next, told });
        const sent = Math.round(next * most);
        device.send({ type: 'control', channel: 1, control, value: fine ? sent >> 7 : sent }, at);
        if (fine) device.send({ type: 'control', channel: 1, control: control + 32, value: sent & 127 }, at);
      }}
    />
  );
}
