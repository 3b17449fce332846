import { usePatternEdit } from '../../shared/usePatternEdit';
import { useState } from 'react';
import { useStore } from 'react-redux';
import type { Edit } from '@/core/edit/edit';
import { hitsInLoop, hitsWithin } from '@/core/edit/select';
import { evenedOut, scattered, VALUE_RANGES, valueOf } from '@/core/edit/values';
import { inLane, laneName } from '@/core/document/stepLanes';
import { random } from '@/core/random';
import { strumOf } from '@/core/edit/strum';
import { MOST_STRUM, noteIn, type Tones } from '@/core/document/tones';
import { msToTicks, ticksPerBar, ticksToMs } from '@/core/time/ticks';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { noticed, sheetShown } from '@/store/sessionSlice';
import {
  buildChord,
  copy,
  cut,
  duplicate,
  erase,
  laneMove,
  pasteAtCursor,
  pasteAtPlayhead,
} from '@/instrument/stepEdits';
import {
  hitsSelected,
  selectLane,
  selectSelected,
  selectSteps,
  selectStepTicks,
  selectTargets,
} from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { useInstrument } from '../../shared/InstrumentContext';
import { KeyRow } from '../../shared/KeyRow';
import { NumberField } from '../../shared/NumberField';
import { Sheet } from '../../shared/Sheet';
import { Strip } from '../../shared/Strip';
import { Words } from '../../shared/Words';
import { KIND_NAMES } from '../valueWords';
import { PADS } from '@/core/document/limits';
import { patternCleared } from '@/store/patternsSlice';

const MOST_FREE = 960;
/** ms between two notes of a chord: as much as one pad strums. */
const STRUM = { min: -MOST_STRUM, max: MOST_STRUM };
let seeds = 0;

/** All edits of chosen hits, or of the lane touched last while nothing is chosen. The music goes on. */
export function EditSheet() {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const pattern = useAppSelector(selectPattern);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const track = useAppSelector(selectTrack);
  const { tones } = track;
  const { kind, clip, cursor } = useAppSelector(selectSteps);
  const step = useAppSelector(selectStepTicks);
  const selected = useAppSelector(selectSelected);
  const ids = useAppSelector(selectTargets);
  const editPattern = usePatternEdit();
  const [free, setFree] = useState(10);
  const [range, setRange] = useState(10);
  const lane = useAppSelector(selectLane);
  const name = laneName(track, lane);
  const isHere = inLane(track, lane);
  const edit = (what: Edit) => () => editPattern(what);
  const select = (chosen: number[]) => () => dispatch(hitsSelected(chosen));
  const barOf = () => {
    const bar = ticksPerBar(meter);
    const start = Math.floor((cursor?.tick ?? 0) / bar) * bar;
    return hitsWithin(pattern, Array.from({ length: PADS }, (_, i) => i), start, start + bar); // prettier-ignore
  };
  const values = () => {
    const set = new Set(ids);
    return new Map(pattern.hits.filter((hit) => set.has(hit.id)).map((hit) => [hit.id, valueOf(hit, kind)]));
  };
  const setValues = (next: Map<number, number>) => edit({ kind: 'values', of: kind, values: [...next], over: step })();
  const { min, max } = VALUE_RANGES[kind];
  const none = ids.length === 0;
  const move = (ticks: number) => edit({ kind: 'move', ids, ticks, lanes: 0 });
  const climb = (lanes: number) => () => edit(laneMove(store.getState(), ids, lanes))();
  const rotate = (ticks: number) => edit({ kind: 'rotate', ids, ticks });
  return (
    <Sheet title="Edit" about="Move, copy, turn and vary what is chosen." half>
      <Words>
        {selected.length > 0
          ? `For the ${selected.length} chosen ${selected.length === 1 ? 'hit' : 'hits'}`
          : `For all of ${name}: nothing is chosen`}
      </Words>
      <KeyRow
        caption="Choose"
        keys={[
          { label: 'Choose lane', text: 'Lane', act: select(hitsInLoop(pattern, isHere)) },
          { label: 'Choose bar', text: 'Bar', act: () => select(barOf())() },
          { label: 'Choose everything', text: 'Everything', act: select(hitsInLoop(pattern)) },
          { label: 'Choose nothing', text: 'Nothing', disabled: selected.length === 0, act: select([]) },
        ]}
      />
      <KeyRow
        caption="Clip"
        keys={[
          { text: 'Cut', disabled: none, act: () => cut(store) },
          {
            text: 'Copy',
            disabled: none,
            act: () => {
              const count = copy(store);
              dispatch(noticed(`Copied ${count} ${count === 1 ? 'hit' : 'hits'}.`));
            },
          },
          { label: 'Paste at cursor', text: 'Paste', disabled: !clip, act: () => pasteAtCursor(store, instrument) },
          {
            label: 'Paste at playhead',
            text: 'At playhead',
            disabled: !clip,
            act: () => pasteAtPlayhead(store, instrument),
          },
          { text: 'Duplicate', disabled: none, act: () => duplicate(store, instrument) },
        ]}
      />
      <KeyRow
        caption="Move"
        keys={[
          { label: 'Move earlier by a step', icon: 'arrow-left', disabled: none, act: move(-step) },
          { label: 'Move later by a step', icon: 'arrow-right', disabled: none, act: move(step) },
          { label: 'Move a lane up', icon: 'arrow-up', disabled: none, act: climb(1) },
          { label: 'Move a lane down', icon: 'arrow-down', disabled: none, act: climb(-1) },
        ]}
      />
      <KeyRow
        caption="Rotate"
        keys={[
          { label: 'Rotate left', icon: 'rotate-left', disabled: none, act: rotate(-step) },
          { label: 'Rotate right', icon: 'rotate-right', disabled: none, act: rotate(step) },
        ]}
      />
      <NumberField
        label="Free amount"
        caption="Free amount, ticks (960 to the quarter)"
        value={free}
        min={1}
        max={MOST_FREE}
        text={String(free)}
        onStep={(steps) => setFree(Math.min(MOST_FREE, Math.max(1, free + steps)))}
        onType={(text) => {
          const typed = Number(text.replace(',', '.'));
          if (!(typed > 0)) {
            dispatch(noticed(`Free amount “${text.trim()}” is not a number of ticks above 0.`));
            return false;
          }
          setFree(Math.min(MOST_FREE, typed));
          return true;
        }}
      />
      <KeyRow
        caption="Freely"
        keys={[
          { label: 'Move earlier freely', text: 'Earlier', disabled: none, act: move(-free) },
          { label: 'Move later freely', text: 'Later', disabled: none, act: move(free) },
          { label: 'Rotate left freely', text: 'Turn left', disabled: none, act: rotate(-free) },
          { label: 'Rotate right freely', text: 'Turn right', disabled: none, act: rotate(free) },
        ]}
      />
      <KeyRow
        caption="Pitch"
        keys={[-12, -1, 1, 12].map((semitones) => ({
          label: `${Math.abs(semitones)} ${Math.abs(semitones) === 1 ? 'semitone' : 'semitones'} ${semitones > 0 ? 'up' : 'down'}`,
          text: semitones > 0 ? `+${semitones}` : String(semitones),
          disabled: none,
          act: edit({ kind: 'transpose', ids, semitones }),
        }))}
      />
      {tones && (
        <>
          <KeyRow
            caption="Notes"
            keys={[
              { label: 'Scale step down', text: 'Step −', steps: -1, by: 'step' as const },
              { label: 'Scale step up', text: 'Step +', steps: 1, by: 'step' as const },
              { label: 'Octave down', text: 'Octave −', steps: -12, by: 'semitone' as const },
              { label: 'Octave up', text: 'Octave +', steps: 12, by: 'semitone' as const },
            ].map(({ label, text, steps, by }) => ({
              label,
              text,
              disabled: none,
              act: edit({ kind: 'notes', ids, tones, by, steps }),
            }))}
          />
          <KeyRow
            caption="Chords"
            keys={[
              {
                label: 'Build chord',
                text: 'Three notes',
                disabled: none,
                act: () => buildChord(store, instrument, 'triad'),
              },
              {
                label: 'Build seventh chord',
                text: 'Four notes',
                disabled: none,
                act: () => buildChord(store, instrument, 'seventh'),
              },
            ]}
          />
          <StrumStrip tones={tones} ids={ids} />
        </>
      )}
      <KeyRow
        caption="Time"
        keys={[
          { text: 'Reverse', disabled: none, act: edit({ kind: 'reverse', ids, step }) },
          { text: 'Half time', disabled: none, act: edit({ kind: 'stretch', ids, factor: 2, step }) },
          { text: 'Double time', disabled: none, act: edit({ kind: 'stretch', ids, factor: 0.5, step }) },
          { text: 'Dotted', disabled: none, act: edit({ kind: 'dot', ids }) },
          { text: 'Legato', disabled: none, act: edit({ kind: 'legato', ids }) },
          { text: 'Staccato', disabled: none, act: edit({ kind: 'staccato', ids }) },
        ]}
      />
      <NumberField
        label="Randomise by"
        caption={`Randomise ${KIND_NAMES[kind].toLowerCase()} by at most, % of its range`}
        value={range}
        min={1}
        max={100}
        text={String(range)}
        onStep={(steps) => setRange(Math.min(100, Math.max(1, range + steps)))}
        onType={(text) => {
          const typed = Number(text.replace('%', '').replace(',', '.'));
          if (!(typed > 0 && typed <= 100)) {
            dispatch(noticed(`Randomise by “${text.trim()}”: a number from 1 to 100 is needed.`));
            return false;
          }
          setRange(typed);
          return true;
        }}
      />
      <KeyRow
        caption={KIND_NAMES[kind]}
        keys={[
          { text: 'Even out', disabled: none, act: () => setValues(evenedOut(values(), 0.5)) },
          {
            text: 'Randomise',
            disabled: none,
            act: () => setValues(scattered(values(), ((max - min) * range) / 200, random(++seeds * 7919))),
          },
        ]}
      />
      <KeyRow
        caption="Clear"
        keys={[
          { label: 'Clear lane', text: name, act: () => erase(store, hitsInLoop(pattern, isHere), name) },
          {
            label: 'Clear pattern',
            text: 'Whole pattern',
            act: () => {
              dispatch(patternCleared({ place: instrument.placeOf() }));
              dispatch(noticed('Pattern cleared.', true));
            },
          },
          { text: 'Feel', act: () => dispatch(sheetShown('feel')) },
        ]}
      />
    </Sheet>
  );
}

/** How the chords among what is chosen are strummed. */
function StrumStrip({ tones, ids }: { tones: Tones; ids: number[] }) {
  const edit = usePatternEdit();
  const pattern = useAppSelector(selectPattern);
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const ticks = strumOf(pattern, new Set(ids), noteIn(tones));
  if (ticks === null) return null;
  const ms = Math.round(ticksToMs(ticks, tempo));
  return (
    <Strip
      label="Strum"
      value={Math.min(STRUM.max, Math.max(STRUM.min, ms))}
      {...STRUM}
      step={1}
      scale={1}
      unit="ms"
      note={ms === 0 ? 'all at once' : ms > 0 ? 'from the lowest up' : 'from the highest down'}
      onChange={(next, gesture) => edit({ kind: 'strum', ids, tones, ticks: msToTicks(next, tempo) }, gesture)}
    />
  );
}
