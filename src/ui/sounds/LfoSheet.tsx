import { StyleSheet, View } from 'react-native';
import { FIRST_LFO, FIRST_REACH, LFO_HZ, LFO_NOTES, LFO_REACH, LFO_SHAPES, LFO_TARGETS, MOST_LFOS, type Lfo, type LfoNote, type LfoShape, type LfoTarget } from '@/core/document/lfo'; // prettier-ignore
import { soundChanged } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Choice } from '../shared/Choice';
import { KeyRow } from '../shared/KeyRow';
import { Segments } from '../shared/Segments';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Strip } from '../shared/Strip';
import { LfoPicture } from './LfoPicture';
import { useSound } from './useSound';

const TARGETS: Record<LfoTarget, string> = {
  pitch: 'Pitch',
  filter: 'Filter',
  level: 'Level',
  pan: 'Pan',
  decay: 'Decay',
};
const SHAPES: Record<LfoShape, string> = {
  sine: 'Sine',
  triangle: 'Triangle',
  sawUp: 'Saw up',
  sawDown: 'Saw down',
  square: 'Square',
  random: 'Random steps',
};
const IN_HZ = 'Hz';
const RATES = [...LFO_NOTES.map((value) => ({ value: value as string, name: value as string })), { value: IN_HZ, name: 'in Hz' }]; // prettier-ignore

/** Up to two slow waves that move something of a sound. */
export function LfoSheet() {
  const dispatch = useAppDispatch();
  const { track, pad, name, settings } = useSound();
  const lfos = settings.lfos ?? [];
  const set = (next: Lfo[], gesture?: string) =>
    dispatch(soundChanged({ track, pad, change: { lfos: next.length > 0 ? next : undefined }, label: 'LFO', ...(gesture && { gesture }) })); // prettier-ignore
  return (
    <Sheet title="LFO" about={`Slow waves that move ${name}, locked to the song or begun by each stroke.`}>
      {lfos.map((lfo, i) => (
        <LfoPanel
          key={i}
          number={i + 1}
          lfo={lfo}
          onChange={(change, gesture) =>
            set(
              lfos.map((one, j) => (j === i ? { ...one, ...change } : one)),
              gesture,
            )
          }
          onReplace={(next) => set(lfos.map((one, j) => (j === i ? next : one)))}
          onRemove={() => set(lfos.filter((_, j) => j !== i))}
        />
      ))}
      {lfos.length < MOST_LFOS && (
        <KeyRow
          keys={[
            { text: lfos.length === 0 ? 'Add a wave' : 'Add another wave', act: () => void set([...lfos, FIRST_LFO]) },
          ]}
        />
      )}
    </Sheet>
  );
}

interface PanelProps {
  number: number;
  lfo: Lfo;
  onChange: (change: Partial<Lfo>, gesture?: string) => void;
  onReplace: (lfo: Lfo) => void;
  onRemove: () => void;
}

function LfoPanel({ number, lfo, onChange, onReplace, onRemove }: PanelProps) {
  const { moves, shape, note, hz, low, high, start } = lfo;
  const reach = LFO_REACH[moves];
  const named = (what: string) => `Wave ${number} ${what}`;
  const setRate = (value: string) => {
    const { note: _, hz: __, ...rest } = lfo;
    onReplace(value === IN_HZ ? { ...rest, hz: 2 } : { ...rest, note: value as LfoNote });
  };
  return (
    <>
      <SheetTitle>{`Wave ${number}`}</SheetTitle>
      <LfoPicture lfo={lfo} />
      <Segments
        label={named('moves')}
        value={moves}
        options={LFO_TARGETS.map((value) => ({ value, name: TARGETS[value] }))}
        onChoose={(target) => onReplace({ ...lfo, moves: target, ...FIRST_REACH[target] })}
      />
      <View style={styles.row}>
        <Choice
          label={named('shape')}
          caption="Shape"
          value={shape}
          options={LFO_SHAPES.map((value) => ({ value, name: SHAPES[value] }))}
          grow
          onChoose={(next) => onChange({ shape: next })}
        />
        <Choice
          label={named('rate')}
          caption="A cycle lasts"
          value={note ?? IN_HZ}
          options={RATES}
          grow
          onChoose={setRate}
        />
        <ControlButton label={`Remove wave ${number}`} text="Remove" onPress={onRemove} />
      </View>
      {note === undefined && (
        <Strip
          label={named('speed')}
          value={hz ?? 1}
          min={LFO_HZ.min}
          max={LFO_HZ.max}
          step={0.02}
          scale={1}
          unit="Hz"
          onChange={(next, gesture) => onChange({ hz: next }, gesture)}
        />
      )}
      <Strip
        label={named('from')}
        value={low}
        min={reach.min}
        max={reach.max}
        step={reach.step}
        scale={moves === 'pan' ? 100 : 1}
        unit={moves === 'pan' ? '%' : reach.unit}
        onChange={(next, gesture) => onChange({ low: next }, gesture)}
      />
      <Strip
        label={named('to')}
        value={high}
        min={reach.min}
        max={reach.max}
        step={reach.step}
        scale={moves === 'pan' ? 100 : 1}
        unit={moves === 'pan' ? '%' : reach.unit}
        onChange={(next, gesture) => onChange({ high: next }, gesture)}
      />
      <Segments
        label={named('begins')}
        caption="Begins"
        value={start}
        options={[
          { value: 'song', name: 'With the song' },
          { value: 'stroke', name: 'With the stroke' },
        ]}
        onChoose={(next) => onChange({ start: next })}
      />
    </>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', gap: 6 } });
