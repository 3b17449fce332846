import { View, StyleSheet } from 'react-native';
import { DROPS } from '@/core/document/launching';
import { lanesOf } from '@/core/document/lanes';
import { KEEP_BARS, MAX_SLOTS, MAX_TRACKS } from '@/core/document/limits';
import { CONTROL_NAMES, CONTROLS } from '@/core/document/moves';
import {
  FUNCTION_GROUPS,
  FUNCTION_NAMES,
  FUNCTIONS,
  UPPER_LAYERS,
  type FunctionGroup,
  type FunctionName,
  type Part,
  type Target,
} from '@/core/midi/target';
import { DROP_NAMES } from '@/instrument/launches';
import { selectSet, selectTrack, selectTracks } from '@/store/selectors';
import { PLACES } from '@/store/settingsSlice';
import { useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { WholeNumber } from '../shared/WholeNumber';

/** What a part is when its function was only just chosen. */
const FIRST: Required<Omit<Target, 'do'>> = { row: 0, pad: 0, slot: 0, section: 0, control: 'filter', drop: 'bar', bars: 2, place: 'pads', layer: 1 }; // prettier-ignore

/** A function as it is when it was only just chosen. */
export function firstTarget(name: FunctionName): Target {
  const target: Target = { do: name };
  for (const part of FUNCTIONS[name].needs ?? []) Object.assign(target, { [part]: FIRST[part] });
  return target;
}

const SHOWN = 'shown';
const CHOSEN = 'chosen';

interface Props {
  value: Target;
  onChoose: (target: Target) => void;
  /** Whether a function is offered; all are if nothing is said. */
  offers?: (name: FunctionName) => boolean;
}

/** Chooses one of all functions, and what it is about. */
export function FunctionPicker({ value, onChoose, offers = () => true }: Props) {
  const { group, needs = [], may = [] } = FUNCTIONS[value.do];
  const ofGroup = (name: FunctionGroup) => FUNCTION_NAMES.filter((one) => FUNCTIONS[one].group === name && offers(one));
  return (
    <View role="group" aria-label="Function" style={styles.rows}>
      <View style={styles.row}>
        <Choice
          label="Functions of"
          caption="Of"
          grow
          value={group}
          options={FUNCTION_GROUPS.filter((name) => ofGroup(name).length > 0).map((name) => ({ value: name, name }))}
          onChoose={(name) => onChoose(firstTarget(ofGroup(name)[0]!))}
        />
        <Choice
          label="Function"
          caption="Function"
          grow
          value={value.do}
          options={ofGroup(group).map((name) => ({ value: name, name: functionWords(name) }))}
          onChoose={(name) => onChoose(firstTarget(name))}
        />
      </View>
      <View style={styles.row}>
        {[...needs, ...may].map((part) => (
          <PartPicker key={part} part={part} value={value} onChoose={onChoose} />
        ))}
      </View>
    </View>
  );
}

/** A function by itself, where its words say little without what they are about. */
function functionWords(name: FunctionName): string {
  const about: Partial<Record<FunctionName, string>> = {
    pad: 'Strike a pad',
    choosePad: 'Choose a pad',
    turn: 'Ride a control',
    padMute: 'Mute a pad',
    padSolo: 'Solo a pad',
    mute: 'Mute a track',
    solo: 'Solo a track',
    level: 'Level of a track',
    showTrack: 'Show a track',
    card: 'Launch a pattern',
    section: 'Launch a section',
    place: 'Open a place',
    layer: 'Layer, while held',
  };
  return about[name] ?? FUNCTIONS[name].words;
}

function PartPicker({ part, value, onChoose }: Pick<Props, 'value' | 'onChoose'> & { part: Part }) {
  const set = useAppSelector(selectSet);
  const tracks = useAppSelector(selectTracks);
  const pads = lanesOf(useAppSelector(selectTrack));
  const isNeeded = FUNCTIONS[value.do].needs?.includes(part) === true;
  /** Left out, the shown or chosen one is meant. */
  const choose = (next: string | number) => {
    const { [part]: _, ...rest } = value;
    onChoose((next === SHOWN || next === CHOSEN ? rest : { ...rest, [part]: next }) as Target);
  };
  const chooseNumber = (next: string) => choose(/^\d+$/.test(next) ? Number(next) : next);
  const numbered = (count: number, name: (i: number) => string) =>
    Array.from({ length: count }, (_, i) => ({ value: String(i), name: name(i) }));
  const now = value[part];
  switch (part) {
    case 'row':
      return (
        <Choice
          label="Track"
          caption="Track"
          grow
          value={now === undefined ? SHOWN : String(now)}
          options={[
            ...(isNeeded ? [] : [{ value: SHOWN, name: 'The shown one' }]),
            ...numbered(MAX_TRACKS, (i) => `${i + 1}${tracks[i] ? ` ${tracks[i].name}` : ''}`),
          ]}
          onChoose={chooseNumber}
        />
      );
    case 'pad':
      return (
        <Choice
          label="Pad"
          caption="Pad"
          grow
          value={now === undefined ? CHOSEN : String(now)}
          options={[
            ...(isNeeded ? [] : [{ value: CHOSEN, name: value.do === 'rate' ? 'All' : 'The chosen one' }]),
            ...numbered(pads.length, (i) => `${i + 1} ${pads[i]!.name}`),
          ]}
          onChoose={chooseNumber}
        />
      );
    case 'section':
      return (
        <Choice
          label="Section"
          caption="Section"
          grow
          value={String(now)}
          options={numbered(16, (i) => `${i + 1}${set.sections[i] ? ` ${set.sections[i].name}` : ''}`)}
          onChoose={chooseNumber}
        />
      );
    case 'slot':
      return (
        <WholeNumber
          label="Pattern"
          caption="Pattern"
          value={Number(now) + 1}
          min={1}
          max={MAX_SLOTS}
          onChange={(next) => choose(next - 1)}
        />
      );
    case 'control':
      return (
        <Choice
          label="Control"
          caption="Control"
          grow
          value={String(now)}
          options={CONTROLS.map((control) => ({ value: control as string, name: CONTROL_NAMES[control] }))}
          onChoose={choose}
        />
      );
    case 'drop':
      return (
        <Choice
          label="When"
          caption="When"
          grow
          value={String(now)}
          options={DROPS.map((drop) => ({ value: drop as string, name: DROP_NAMES[drop] }))}
          onChoose={choose}
        />
      );
    case 'bars':
      return (
        <Choice
          label="Bars"
          caption="Bars"
          grow
          value={String(now)}
          options={KEEP_BARS.map((bars) => ({ value: String(bars), name: String(bars) }))}
          onChoose={chooseNumber}
        />
      );
    case 'place':
      return (
        <Choice
          label="Place"
          caption="Place"
          grow
          value={String(now)}
          options={PLACES.map((place) => ({
            value: place as string,
            name: `${place[0]!.toUpperCase()}${place.slice(1)}`,
          }))}
          onChoose={choose}
        />
      );
    case 'layer':
      return (
        <Choice
          label="Layer"
          caption="Layer"
          grow
          value={String(now)}
          options={Array.from({ length: UPPER_LAYERS }, (_, i) => ({ value: String(i + 1), name: String(i + 2) }))}
          onChoose={chooseNumber}
        />
      );
  }
}

const styles = StyleSheet.create({
  rows: { gap: 4 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
});
