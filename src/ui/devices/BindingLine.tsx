import { StyleSheet, View } from 'react-native';
import { alsoWorks, bindingKey, type Binding, type Press, type Takeover } from '@/core/midi/binding';
import type { Device } from '@/core/midi/device';
import type { Encoding } from '@/core/midi/encodings';
import { sourceWords } from '@/core/midi/source';
import { FUNCTIONS, targetWords, UPPER_LAYERS } from '@/core/midi/target';
import { bound, unbound } from '@/store/devicesSlice';
import { useAppDispatch } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS } from '../theme/tokens';

const ENCODING_NAMES: { value: Encoding; name: string }[] = [
  { value: 'absolute', name: 'Place, 7 bits' },
  { value: 'fine', name: 'Place, 14 bits' },
  { value: 'twosComplement', name: 'Steps 1 / 127' },
  { value: 'offsetBinary', name: 'Steps 65 / 63' },
  { value: 'signMagnitude', name: 'Steps 1 / 65' },
];
const TAKEOVER_NAMES: { value: Takeover; name: string }[] = [
  { value: 'pickUp', name: 'Picks up' },
  { value: 'jump', name: 'Jumps there' },
  { value: 'relative', name: 'Moves it along' },
];
const PRESS_NAMES: { value: Press; name: string }[] = [
  { value: 'momentary', name: 'While held' },
  { value: 'toggle', name: 'On and off' },
];
const LAYERS = Array.from({ length: UPPER_LAYERS + 1 }, (_, i) => ({ value: String(i), name: String(i + 1) }));

interface Props {
  device: Device;
  binding: Binding;
  isOpen: boolean;
  onOpen: () => void;
}

/** One control and what it works, with how it does. */
export function BindingLine({ device, binding, isOpen, onOpen }: Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { name } = device;
  const { source, target, layer, long, press, encoding, takeover, from, to, bend } = binding;
  const key = bindingKey(binding);
  const others = alsoWorks(device.bindings, binding);
  const words = `${sourceWords(source)}: ${targetWords(target)}`;
  const change = (changed: Partial<Binding>) => {
    const { long: wasLong, ...rest } = { ...binding, ...changed };
    const next = { ...rest, ...(wasLong && { long: true }) };
    // Another layer or way to press is another binding.
    if (bindingKey(next) !== key) dispatch(unbound({ name, key }));
    dispatch(bound({ name, binding: next }));
  };
  const { kind } = FUNCTIONS[target.do];
  const isKnob = source.kind !== 'note' && source.kind !== 'program';
  return (
    <View style={[styles.line, { borderColor: tokens.rule }]}>
      <View style={styles.row}>
        <ControlButton
          label={words}
          text={targetWords(target)}
          caption={`${sourceWords(source)}${layer > 0 ? `, layer ${layer + 1}` : ''}${long ? ', held long' : ''}`}
          footnote={
            others.length > 0 ? `Works too: ${others.map((other) => targetWords(other.target)).join(', ')}` : ''
          }
          expanded={isOpen}
          onPress={onOpen}
          style={styles.head}
        />
        <ControlButton label={`Unmap ${words}`} icon="close" onPress={() => dispatch(unbound({ name, key }))} />
      </View>
      {isOpen && (
        <View style={styles.inside}>
          <View style={styles.row}>
            <Choice
              label="Layer"
              caption="Layer"
              grow
              value={String(layer)}
              options={LAYERS}
              onChoose={(value) => change({ layer: Number(value) })}
            />
            {kind !== 'value' && kind !== 'strike' && (
              <ControlButton
                label="Only held long"
                caption="Only"
                text={long ? 'Held long' : 'Pressed'}
                pressed={long === true}
                onPress={() => change({ long: !long })}
                style={styles.grow}
              />
            )}
            {(kind === 'switch' || kind === 'hold' || !isKnob) && (
              <Choice
                label="Button"
                caption="Button"
                grow
                value={press}
                options={PRESS_NAMES}
                onChoose={(value) => change({ press: value })}
              />
            )}
          </View>
          {kind === 'value' && (
            <>
              {isKnob && (
                <View style={styles.row}>
                  <Choice
                    label="Counts"
                    caption="Sends"
                    grow
                    value={encoding}
                    options={ENCODING_NAMES}
                    onChoose={(value) => change({ encoding: value })}
                  />
                  <Choice
                    label="Takes over"
                    caption="Where they differ"
                    grow
                    value={takeover}
                    options={TAKEOVER_NAMES}
                    onChoose={(value) => change({ takeover: value })}
                  />
                </View>
              )}
              <Strip label="From" value={from} unit="%" onChange={(value) => change({ from: value })} />
              <Strip label="To" value={to} unit="%" onChange={(value) => change({ to: value })} />
              <Strip
                label="Curve"
                value={bend}
                min={-1}
                max={1}
                step={0.05}
                onChange={(value) => change({ bend: value })}
              />
              <ControlButton label="Turn round" text="Turn round" onPress={() => change({ from: to, to: from })} />
            </>
          )}
          {kind === 'strike' && <Words>A pad is struck as hard as the control is.</Words>}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  line: { borderWidth: 1, borderRadius: RADIUS, padding: 2, gap: 4 },
  row: { flexDirection: 'row', flexWrap: 'nowrap', gap: 4, alignItems: 'center' },
  head: { flex: 1, alignItems: 'flex-start', backgroundColor: 'transparent', borderColor: 'transparent' },
  inside: { gap: 4, padding: 4 },
  grow: { flexGrow: 1, flexBasis: 0 },
});
