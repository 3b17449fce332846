import { useState } from 'react';
import { View } from 'react-native';
import type { Device } from '@/core/midi/device';
import {
  BENCH_SCHEME,
  LEVEL_SCHEME,
  readScheme,
  readTemplate,
  templateText,
  type LightScheme,
} from '@/core/midi/lights';
import { deviceSet } from '@/store/devicesSlice';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { NameField } from '../shared/NameField';
import { Segments } from '../shared/Segments';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';

/** Letters of a line of a scheme at most. */
const LONGEST = 400;

const KINDS = [
  { value: 'none', name: 'Not' },
  { value: 'level', name: 'Mono' },
  { value: 'table', name: 'Colours' },
  { value: 'sysex', name: 'RGB' },
] as const;
type Kind = (typeof KINDS)[number]['value'];

const FIRST: Record<Exclude<Kind, 'none'>, LightScheme> = {
  level: LEVEL_SCHEME,
  table: BENCH_SCHEME,
  sysex: { kind: 'sysex', template: [0x7d, 'note', 'red', 'green', 'blue'] },
};

/** How a device is lit: by velocities in one colour, by a table of its own colours, or by a system exclusive message of its own. */
export function LightsPanel({ device }: { device: Device }) {
  const dispatch = useAppDispatch();
  const { name, lights } = device;
  const set = (scheme: LightScheme | null) => dispatch(deviceSet({ name, change: { lights: scheme } }));
  return (
    <View style={{ gap: 4 }}>
      <Segments
        label={`Lights of ${name}`}
        caption="Lit"
        value={lights?.kind ?? 'none'}
        options={KINDS}
        onChoose={(kind) => set(kind === 'none' ? null : FIRST[kind])}
      />
      {lights?.kind === 'level' && (
        <>
          <Strip
            label="Dim"
            value={lights.dim}
            min={0}
            max={127}
            step={1}
            scale={1}
            onChange={(dim) => set({ ...lights, dim })}
          />
          <Strip
            label="Bright"
            value={lights.bright}
            min={0}
            max={127}
            step={1}
            scale={1}
            onChange={(bright) => set({ ...lights, bright })}
          />
        </>
      )}
      {lights?.kind === 'table' && (
        <>
          <Words>
            The velocity that lights each colour: slate, russet, moss, straw, heather, teal, rose, sand, white, red.
          </Words>
          {(['dim', 'bright'] as const).map((which) => (
            <SchemeField
              key={which}
              label={which === 'dim' ? 'Dim colours' : 'Bright colours'}
              text={lights[which].join(' ')}
              read={(text) => {
                const numbers = text.trim().split(/[\s,]+/).map(Number); // prettier-ignore
                const scheme = readScheme({ ...lights, [which]: numbers });
                if (!scheme) throw new Error('Ten numbers from 0 to 127 are needed, one for each colour.');
                set(scheme);
              }}
            />
          ))}
        </>
      )}
      {lights?.kind === 'sysex' && (
        <>
          <Words>
            The bytes of its message in hexadecimal, with note, red, green and blue where those stand; without F0 and
            F7.
          </Words>
          <SchemeField
            label="Light message"
            text={templateText(lights.template)}
            read={(text) => set({ kind: 'sysex', template: readTemplate(text) })}
          />
        </>
      )}
    </View>
  );
}

/** A line of a scheme that is typed. What cannot be read is said, and the old one stays. */
function SchemeField({ label, text, read }: { label: string; text: string; read: (text: string) => void }) {
  const dispatch = useAppDispatch();
  const [tries, setTries] = useState(0);
  return (
    <NameField
      key={`${text} ${tries}`}
      label={label}
      caption={label}
      most={LONGEST}
      name={text}
      onName={(typed) => {
        try {
          read(typed);
        } catch (error) {
          dispatch(noticed((error as Error).message));
          setTries(tries + 1);
        }
      }}
    />
  );
}
