import { useState } from 'react';
import { View } from 'react-native';
import { bindingKey, newBinding, type Binding } from '@/core/midi/binding';
import type { Device } from '@/core/midi/device';
import { sourceWords, type Source } from '@/core/midi/source';
import { UPPER_LAYERS, type Target } from '@/core/midi/target';
import { bound } from '@/store/devicesSlice';
import { mappingSet, sheetClosed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { WholeNumber } from '../shared/WholeNumber';
import { Words } from '../shared/Words';
import { BindingLine } from './BindingLine';
import { FunctionPicker } from './FunctionPicker';

const KINDS: { value: Source['kind']; name: string }[] = [
  { value: 'control', name: 'Control' },
  { value: 'note', name: 'Note' },
  { value: 'program', name: 'Program' },
  { value: 'bend', name: 'Pitch bend' },
  { value: 'pressure', name: 'Pressure' },
];

/** What each control of each device works, in every detail; and mapping by numbers, without moving anything. */
export default function MapSheet() {
  const dispatch = useAppDispatch();
  const known = useAppSelector((state) => state.devices.known);
  const [open, setOpen] = useState<string | null>(null);
  const mapped = known.filter(({ bindings }) => bindings.length > 0);
  return (
    <Sheet title="Maps" about="What each control of a controller works. What is not mapped does what is usual for it.">
      <ControlButton
        label="Map a control"
        text="Map a control by moving it"
        onPress={() => {
          dispatch(sheetClosed());
          dispatch(mappingSet(true));
        }}
      />
      {mapped.length === 0 && <Words>Nothing is mapped yet.</Words>}
      {mapped.map((device) => (
        <View key={device.name} role="region" aria-label={`Map of ${device.name}`} style={{ gap: 4 }}>
          <SheetTitle>{device.name}</SheetTitle>
          {inOrder(device.bindings).map((binding) => {
            const key = `${device.name} ${bindingKey(binding)}`;
            return (
              <BindingLine
                key={key}
                device={device}
                binding={binding}
                isOpen={open === key}
                onOpen={() => setOpen(open === key ? null : key)}
              />
            );
          })}
        </View>
      ))}
      {known.length > 0 && <ByNumbers known={known} />}
    </Sheet>
  );
}

function inOrder(bindings: readonly Binding[]): Binding[] {
  return [...bindings].sort(
    (a, b) =>
      a.layer - b.layer ||
      a.source.kind.localeCompare(b.source.kind) ||
      a.source.channel - b.source.channel ||
      a.source.number - b.source.number,
  );
}

/** A control that is named by its number, for whom there is no way to move it. */
function ByNumbers({ known }: { known: readonly Device[] }) {
  const dispatch = useAppDispatch();
  const [name, setName] = useState(known[0]!.name);
  const [source, setSource] = useState<Source>({ kind: 'control', channel: 1, number: 20 });
  const [target, setTarget] = useState<Target>({ do: 'level', row: 0 });
  const [layer, setLayer] = useState(0);
  const device = known.some((one) => one.name === name) ? name : known[0]!.name;
  return (
    <>
      <SheetTitle>By number</SheetTitle>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        <Choice
          label="Device"
          caption="Device"
          grow
          value={device}
          options={known.map((one) => ({ value: one.name, name: one.name }))}
          onChoose={setName}
        />
        <Choice
          label="Kind of control"
          caption="Kind"
          grow
          value={source.kind}
          options={KINDS}
          onChoose={(kind) => setSource({ ...source, kind })}
        />
        <WholeNumber
          label="Number of the control"
          caption="Number"
          value={source.number}
          min={0}
          max={127}
          onChange={(number) => setSource({ ...source, number })}
        />
        <WholeNumber
          label="Channel of the control"
          caption="Channel"
          value={source.channel}
          min={1}
          max={16}
          onChange={(channel) => setSource({ ...source, channel })}
        />
        <WholeNumber
          label="Layer of the control"
          caption="Layer"
          value={layer + 1}
          min={1}
          max={UPPER_LAYERS + 1}
          onChange={(next) => setLayer(next - 1)}
        />
      </View>
      <FunctionPicker value={target} onChoose={setTarget} />
      <ControlButton
        label="Map this"
        text={`Map ${sourceWords(source).toLowerCase()}`}
        onPress={() => dispatch(bound({ name: device, binding: newBinding(source, target, layer) }))}
      />
    </>
  );
}
