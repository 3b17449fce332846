import { usePatternEdit } from '../../shared/usePatternEdit';
import { VALUE_KINDS, VALUE_RANGES, valueOf, type ValueKind } from '@/core/edit/values';
import { stepWords } from '@/core/edit/steps';
import { laneKeys, laneName } from '@/core/document/stepLanes';
import { passOf } from '@/core/sequence/soundingHits';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { sheetClosed } from '@/store/sessionSlice';
import { selectSteps, selectStepTicks } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../../shared/ControlButton';
import { Segments } from '../../shared/Segments';
import { Sheet } from '../../shared/Sheet';
import { Strip } from '../../shared/Strip';
import { Words } from '../../shared/Words';
import { KIND_NAMES, shownValue } from '../valueWords';
import { ROLL_STROKES } from '@/core/document/roll';
import type { Hit } from '@/core/document/hit';

const ROLLS = [1, ...ROLL_STROKES].map((strokes) => ({
  value: strokes,
  name: strokes === 1 ? 'None' : String(strokes),
}));

/** One step, opened by a long press: everything that can be set of its hit. */
export function StepSheet() {
  const pattern = useAppSelector(selectPattern);
  const { hit: id } = useAppSelector(selectSteps);
  const hit = pattern?.hits.find((h) => h.id === id);
  return (
    <Sheet title="Step" about="One hit: how hard, how high, how often, and how it rolls.">
      {hit ? <OfHit hit={hit} /> : <Words>This hit is no longer there.</Words>}
    </Sheet>
  );
}

function OfHit({ hit }: { hit: Hit }) {
  const dispatch = useAppDispatch();
  const edit = usePatternEdit();
  const pattern = useAppSelector(selectPattern);
  const { tempo, meter } = useAppSelector(selectSet);
  const track = useAppSelector(selectTrack);
  const step = useAppSelector(selectStepTicks);
  const { sounding, covered } = passOf(pattern);
  const tick = [...sounding, ...covered].find((h) => h.id === hit.id)?.tick ?? 0;
  const set = (kind: ValueKind, value: number, gesture?: string) => {
    edit({ kind: 'values', of: kind, values: [[hit.id, value]], over: step }, gesture);
  };
  return (
    <>
      <Words>{`${laneName(track, laneKeys(track)(hit))}, ${stepWords(tick, step, meter)}`}</Words>
      {VALUE_KINDS.map((kind) => {
        const value = valueOf(hit, kind);
        if (kind === 'roll') {
          return (
            <Segments
              key={kind}
              label="Roll"
              caption="Roll"
              value={value}
              options={ROLLS}
              onChoose={(v) => set('roll', v)}
            />
          );
        }
        if ((kind === 'swell' || kind === 'glide') && !hit.roll) return null;
        const { min, max, step: fine } = VALUE_RANGES[kind];
        const { scale, unit } = shownValue(kind, tempo, step);
        return (
          <Strip
            key={kind}
            label={KIND_NAMES[kind]}
            value={value}
            min={min}
            max={max}
            step={fine}
            scale={scale}
            unit={unit}
            onChange={(next, gesture) => set(kind, next, gesture)}
          />
        );
      })}
      <ControlButton
        label="Erase this hit"
        text="Erase this hit"
        onPress={() => {
          edit({ kind: 'erase', ids: [hit.id] });
          dispatch(sheetClosed());
        }}
      />
    </>
  );
}
