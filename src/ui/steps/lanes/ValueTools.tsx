import { counted } from '@/core/counted';
import { usePatternEdit } from '../../shared/usePatternEdit';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { STROKES, tidyValue, VALUE_KINDS, VALUE_RANGES, valueOf, type StrokeShape } from '@/core/edit/values'; // prettier-ignore
import { selectSet, selectTrack } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { foldToggled } from '@/store/settingsSlice';
import { kindShown, selectStepTicks, selectSteps, selectValueTargets, shapeChosen } from '@/store/stepsSlice'; // prettier-ignore
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../../shared/Choice';
import { ControlButton } from '../../shared/ControlButton';
import { NumberField } from '../../shared/NumberField';
import { PopMenu } from '../../shared/PopMenu';
import { gestureName } from '../../shared/useDrag';
import type { IconName } from '../../theme/icons';
import { MuteSolo } from '../MuteSolo';
import { KIND_NAMES, numberText, shownValue, typedValue } from '../valueWords';
import type { Pattern } from '@/core/document/pattern';
import type { StepLane } from '@/core/document/stepLanes';

const KINDS = VALUE_KINDS.map((value) => ({ value, name: KIND_NAMES[value] }));
const SHAPE_NAMES: Record<StrokeShape, string> = { free: 'Draw freely', line: 'Draw a line', curve: 'Draw a curve' };
const SHAPE_ICONS: Record<StrokeShape, IconName> = { free: 'draw', line: 'vector-line', curve: 'sine-wave' };

interface Props {
  pattern: Pattern;
  /** The lane touched last. */
  lane: StepLane;
  height: number;
  /** Mute and solo stand at the labels. */
  roomy: boolean;
  /** The value lane can be folded away: without it there is nothing to draw on, with it no room for mute and solo. */
  foldable: boolean;
}

/** Above the value lane: which value, the number of what is chosen, and how a finger draws. */
export function ValueTools({ pattern, lane: { name, place }, height, roomy, foldable }: Props) {
  const dispatch = useAppDispatch();
  const edit = usePatternEdit();
  const track = useAppSelector(selectTrack);
  const { kind, shape } = useAppSelector(selectSteps);
  const step = useAppSelector(selectStepTicks);
  const targets = useAppSelector(selectValueTargets);
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const unfolded = useAppSelector((state) => state.settings.unfolded.values);
  const shown = shownValue(kind, tempo, step);
  const { min, max, neutral } = VALUE_RANGES[kind];
  const values = useMemo(() => {
    const ids = new Set(targets);
    return pattern.hits.filter((hit) => ids.has(hit.id)).map((hit): [number, number] => [hit.id, valueOf(hit, kind)]);
  }, [pattern, targets, kind]);
  const mean = values.length > 0 ? values.reduce((sum, [, value]) => sum + value, 0) / values.length : neutral;
  const set = (next: (value: number) => number) => {
    if (values.length === 0) return;
    const changed = values.map(([id, value]): [number, number] => [id, next(value)]);
    edit({ kind: 'values', of: kind, values: changed, over: step }, gestureName('number'));
  };
  const stepBy =
    kind === 'pitch' || kind === 'glide' ? 1 : kind === 'odds' || kind === 'swell' ? 0.05 : VALUE_RANGES[kind].step;
  return (
    <View style={[styles.tools, { height }]}>
      {!roomy && !(foldable && unfolded) && place.pitch === 0 && <MuteSolo name={name} pad={place.pad} gates={track} />}
      <Choice
        label="Value"
        caption={name}
        value={kind}
        options={KINDS}
        grow={!roomy}
        onChoose={(value) => dispatch(kindShown(value))}
        style={styles.choice}
      />
      <NumberField
        label={KIND_NAMES[kind]}
        caption={`${counted(values.length, 'hit')}${shown.unit && `, ${shown.unit}`}`}
        value={Number(numberText(mean, shown))}
        min={Number(numberText(min, shown))}
        max={Number(numberText(max, shown))}
        text={numberText(mean, shown)}
        valueText={`${numberText(mean, shown)} ${shown.unit}`}
        onStep={(steps) => set((value) => (kind === 'roll' ? nextRoll(value, steps) : value + steps * stepBy))}
        onType={(text) => {
          const typed = typedValue(text, shown);
          if (!Number.isFinite(typed)) {
            dispatch(noticed(`${KIND_NAMES[kind]} “${text.trim()}” is not a number.`));
            return false;
          }
          const value = Math.min(max, Math.max(min, typed));
          if (Math.abs(value - typed) > 1e-9) {
            dispatch(
              noticed(
                `${KIND_NAMES[kind]} goes from ${numberText(min, shown)} to ${numberText(max, shown)} ${shown.unit}.`,
              ),
            );
          }
          set(() => value);
          return true;
        }}
        style={styles.number}
      />
      {foldable && (
        <ControlButton
          label="Value lane"
          icon={unfolded ? 'chevron-down' : 'chevron-up'}
          expanded={unfolded}
          onPress={() => dispatch(foldToggled('values'))}
        />
      )}
      {(unfolded || !foldable) && (
        <PopMenu
          label="Draw"
          description={SHAPE_NAMES[shape]}
          icon={SHAPE_ICONS[shape]}
          items={STROKES.map((value) => ({
            title: SHAPE_NAMES[value],
            icon: SHAPE_ICONS[value],
            chosen: value === shape,
            act: () => dispatch(shapeChosen(value)),
          }))}
        />
      )}
    </View>
  );
}

/** The next roll that there is. */
function nextRoll(strokes: number, steps: number): number {
  let next = strokes;
  for (let i = 0; i < Math.abs(steps); i++) {
    const from = next;
    for (let by = 1; next === from && by < 4; by++) next = tidyValue('roll', from + Math.sign(steps) * by);
  }
  return next;
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 4, alignItems: 'center', paddingHorizontal: 4 },
  choice: { flexGrow: 1, minWidth: 64 },
  number: { flexGrow: 1, flexBasis: 0, minWidth: 72, maxWidth: 200 },
});
