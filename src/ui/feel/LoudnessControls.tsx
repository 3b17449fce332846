import { View } from 'react-native';
import { GHOST, UNTREATED, type Loudness } from '@/core/document/loudness';
import { ticksPerBar, ticksPerBeat, type Meter } from '@/core/time/ticks';
import { ControlButton } from '../shared/ControlButton';
import { Strip } from '../shared/Strip';

interface Props {
  /** What is set for the scope itself, if anything. */
  loudness: Loudness | undefined;
  meter: Meter;
  onLoudness: (loudness: Loudness | undefined, gesture?: string) => void;
}

const USUAL_ACCENT = 0.6;

/** Velocities evened out, scaled, accented, or brought down to ghost notes; the struck ones are kept. */
export function LoudnessControls({ loudness, meter, onLoudness }: Props) {
  const base = loudness ?? UNTREATED;
  const bar = ticksPerBar(meter);
  const beat = ticksPerBeat(meter);
  const accents = base.accents?.bar === bar ? base.accents : { bar, at: [], amount: USUAL_ACCENT };
  const change = (part: Partial<Loudness>, gesture?: string) => onLoudness({ ...base, ...part }, gesture);
  const accent = (at: number[], gesture?: string, amount = accents.amount) => {
    const { accents: _, ...none } = base;
    onLoudness(at.length === 0 ? none : { ...base, accents: { bar, at, amount } }, gesture);
  };
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 4 }}>
        <ControlButton label="Level all" text="Level all" onPress={() => change({ even: 1 })} style={{ flexGrow: 1 }} />
        <ControlButton label="Ghost notes" text="Ghost notes" onPress={() => change(GHOST)} style={{ flexGrow: 1 }} />
        <ControlButton
          label="Remove loudness"
          text="Remove"
          disabled={!loudness}
          onPress={() => onLoudness(undefined)}
          style={{ flexGrow: 1 }}
        />
      </View>
      <Strip label="Even out" value={base.even} unit="%" onChange={(even, gesture) => change({ even }, gesture)} />
      <Strip
        label="To velocity"
        value={base.level}
        min={1 / 127}
        step={1 / 127}
        scale={127}
        onChange={(level, gesture) => change({ level }, gesture)}
      />
      <Strip
        label="Scale"
        value={base.scale}
        max={2}
        unit="%"
        onChange={(scale, gesture) => change({ scale }, gesture)}
      />
      <View role="group" aria-label="Accents" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        {Array.from({ length: meter.beats }, (_, i) => {
          const on = accents.at.includes(i * beat);
          const without = accents.at.filter((tick) => tick !== i * beat);
          return (
            <ControlButton
              key={i}
              label={`Accent beat ${i + 1}`}
              text={`Beat ${i + 1}`}
              pressed={on}
              onPress={() => accent(on ? without : [...without, i * beat].sort((a, b) => a - b))}
              style={{ flexGrow: 1 }}
            />
          );
        })}
      </View>
      {accents.at.length > 0 && (
        <Strip
          label="Accent"
          value={accents.amount}
          unit="%"
          onChange={(amount, gesture) => accent(accents.at, gesture, amount)}
        />
      )}
    </>
  );
}
