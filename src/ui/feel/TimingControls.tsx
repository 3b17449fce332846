import { View } from 'react-native';
import { AS_PLAYED, type Feel } from '@/core/quantize/feel';
import { msToTicks, ticksToMs } from '@/core/time/ticks';
import { GRIDS, gridTicks } from '@/core/quantize/grid';
import { MOST_SWING, STRAIGHT, swingWords } from '@/core/quantize/swing';
import { ControlButton } from '../shared/ControlButton';
import { Segments } from '../shared/Segments';
import { Strip } from '../shared/Strip';

interface Props {
  /** What is set for the scope itself, if anything. */
  feel: Feel | undefined;
  tempo: number;
  /** Grid to begin with when only strength or swing is touched, ticks. */
  fallbackGrid: number;
  /** How many more hits a Feel would cover. */
  coveredWith: (feel: Feel) => number;
  onGrid: (feel: Feel) => void;
  onFeel: (feel: Feel | undefined, gesture?: string) => void;
}

const KINDS = ['', 'T', 'D'] as const;
const SWUNG = [
  { value: gridTicks('1/8'), name: '1/8' },
  { value: gridTicks('1/16'), name: '1/16' },
];
const MOST_SPARE_MS = 50;

/** Grid, strength, swing, and how far off a hit must be to be pulled at all. */
export function TimingControls({ feel, tempo, fallbackGrid, coveredWith, onGrid, onFeel }: Props) {
  const base: Feel = feel && feel.grid > 0 ? feel : { grid: fallbackGrid, strength: 1 };
  const withGrid = (grid: number): Feel => ({ ...base, grid });
  const note = (grid: number) => {
    const count = coveredWith(withGrid(grid));
    return count > 0 ? `${count} meet` : '';
  };
  const swing = base.swing ?? { unit: SWUNG[1]!.value, ratio: STRAIGHT };
  const setSwing = (next: typeof swing, gesture?: string) => {
    const { swing: _, ...straight } = base;
    onFeel(next.ratio === STRAIGHT ? straight : { ...base, swing: next }, gesture);
  };
  const spareMs = Math.round(ticksToMs(base.spare ?? 0, tempo));
  return (
    <>
      {KINDS.map((kind) => (
        <Segments
          key={kind}
          label="Feel grid"
          value={feel?.grid ?? null}
          numeric
          options={GRIDS.filter(({ name }) => (/[TD]$/.exec(name)?.[0] ?? '') === kind).map(({ name, ticks }) => ({
            value: ticks,
            name,
            note: note(ticks),
          }))}
          onChoose={(grid) => onGrid(withGrid(grid))}
        />
      ))}
      <View style={{ flexDirection: 'row', gap: 4 }}>
        <ControlButton
          label="Feel as played"
          text="As played"
          pressed={feel?.grid === 0}
          onPress={() => onFeel(AS_PLAYED)}
          style={{ flexGrow: 1 }}
        />
        <ControlButton
          label="Remove Feel"
          text="Remove Feel"
          disabled={!feel}
          onPress={() => onFeel(undefined)}
          style={{ flexGrow: 1 }}
        />
      </View>
      <Strip
        label="Strength"
        value={base.strength}
        unit="%"
        onChange={(strength, gesture) => onFeel({ ...base, strength }, gesture)}
      />
      <View style={{ flexDirection: 'row', gap: 4, alignItems: 'center' }}>
        <Segments
          label="Swing on"
          value={swing.unit}
          options={SWUNG}
          numeric
          onChoose={(unit) => setSwing({ ...swing, unit })}
        />
        <View style={{ flex: 1 }}>
          <Strip
            label="Swing"
            value={swing.ratio}
            min={STRAIGHT}
            max={MOST_SWING}
            step={0.001}
            unit="%"
            note={swingWords(swing.ratio)}
            onChange={(ratio, gesture) =>
              setSwing({ ...swing, ratio: Math.abs(ratio - 2 / 3) < 0.0016 ? 2 / 3 : ratio }, gesture)
            }
          />
        </View>
      </View>
      <Strip
        label="Pull only hits further than"
        value={spareMs}
        max={MOST_SPARE_MS}
        step={1}
        scale={1}
        unit="ms"
        onChange={(ms, gesture) => {
          const { spare: _, ...all } = base;
          onFeel(ms === 0 ? all : { ...base, spare: msToTicks(ms, tempo) }, gesture);
        }}
      />
    </>
  );
}
