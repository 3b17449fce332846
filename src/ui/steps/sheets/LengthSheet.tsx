import { usePatternEdit } from '../../shared/usePatternEdit';
import { useState } from 'react';
import { useStore } from 'react-redux';
import { fitLength, MOST_BARS } from '@/core/edit/length';
import { hitsInLoop } from '@/core/edit/select';
import { isWindowed, windowOf } from '@/core/sequence/loopWindow';
import { ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { selectPattern, selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { windowOnSet, type WindowTime } from '@/store/settingsSlice';
import { selectStepTicks } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { useInstrument } from '../../shared/InstrumentContext';
import { KeyRow } from '../../shared/KeyRow';
import { NumberField } from '../../shared/NumberField';
import { Segments } from '../../shared/Segments';
import { Sheet, SheetTitle } from '../../shared/Sheet';
import { Words } from '../../shared/Words';
import { MAX_HITS, SHORTEST_LOOP } from '@/core/document/limits';
import type { Pattern } from '@/core/document/pattern';

const UNITS = [
  { value: 'bar', name: 'Bars' },
  { value: 'beat', name: 'Beats' },
  { value: 'step', name: 'Steps' },
] as const;
type Unit = (typeof UNITS)[number]['value'];

const TIMES: { value: WindowTime; name: string }[] = [
  { value: 'now', name: 'On the spot' },
  { value: 'beat', name: 'Next beat' },
  { value: 'bar', name: 'Next bar' },
];

/** How long the pattern is, and which stretch of it goes round. */
export function LengthSheet() {
  const pattern = useAppSelector(selectPattern);
  return (
    <Sheet title="Length" about="How long the pattern is, and the stretch of it that goes round." half>
      {pattern ? <OfPattern pattern={pattern} /> : <Words>There is no pattern here.</Words>}
    </Sheet>
  );
}

function OfPattern({ pattern }: { pattern: Pattern }) {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const meter = useAppSelector((state) => selectSet(state).meter);
  const windowOn = useAppSelector((state) => state.settings.windowOn);
  const step = useAppSelector(selectStepTicks);
  const [unit, setUnit] = useState<Unit>('bar');
  const one = { bar: ticksPerBar(meter), beat: ticksPerBeat(meter), step }[unit];
  const window = windowOf(pattern);
  const edit = usePatternEdit();
  const tooMany = pattern.hits.length + hitsInLoop(pattern).length > MAX_HITS;
  const field = (label: string, ticks: number, least: number, most: number, set: (ticks: number) => void) => (
    <NumberField
      label={label}
      caption={`${label}, ${unit}s`}
      value={inUnits(ticks, one)}
      min={inUnits(least, one)}
      max={inUnits(most, one)}
      text={String(inUnits(ticks, one))}
      valueText={`${inUnits(ticks, one)} ${unit}s`}
      onStep={(steps) => set(Math.min(most, Math.max(least, ticks + steps * one)))}
      onType={(text) => {
        const typed = Number(text.replace(',', '.'));
        if (text.trim() === '' || !Number.isFinite(typed)) {
          dispatch(noticed(`${label} “${text.trim()}” is not a number of ${unit}s.`));
          return false;
        }
        const wanted = typed * one;
        const fitted = Math.round(Math.min(most, Math.max(least, wanted)));
        if (Math.abs(fitted - wanted) > 1) {
          dispatch(noticed(`${label} can be from ${inUnits(least, one)} to ${inUnits(most, one)} ${unit}s.`));
        }
        set(fitted);
        return true;
      }}
    />
  );
  const setWindow = (start: number, length: number) => edit({ kind: 'window', window: { start, length } });
  const most = fitLength(Infinity, meter);
  return (
    <>
      <Segments label="Unit" caption="In" value={unit} options={UNITS} onChoose={setUnit} />
      {field('Pattern length', pattern.length, SHORTEST_LOOP, most, (length) =>
        edit({ kind: 'length', length: fitLength(length, meter) }),
      )}
      <KeyRow
        caption="Length"
        keys={[
          {
            label: 'Halve',
            text: 'Halve',
            disabled: pattern.length / 2 < SHORTEST_LOOP,
            act: () => edit({ kind: 'length', length: fitLength(pattern.length / 2, meter) }),
          },
          {
            label: 'Double with repeat',
            text: 'Double, repeat',
            disabled: pattern.length * 2 > most || tooMany,
            act: () => {
              const now = selectPattern(store.getState());
              if (now) edit({ kind: 'double', firstId: instrument.reserveIds(now.hits.length) });
            },
          },
          {
            label: 'Double with empty',
            text: 'Double, empty',
            disabled: pattern.length * 2 > most,
            act: () => edit({ kind: 'doubleEmpty' }),
          },
        ]}
      />
      <Words>{`From a sixteenth to ${MOST_BARS} bars. What lies beyond a shorter length waits on the tape.`}</Words>
      <SheetTitle>Loop window</SheetTitle>
      {field('Window start', window.start, 0, pattern.length - SHORTEST_LOOP, (start) =>
        setWindow(start, Math.min(window.length, pattern.length - start)),
      )}
      {field('Window length', window.length, SHORTEST_LOOP, pattern.length, (length) =>
        setWindow(window.start, length),
      )}
      <KeyRow
        keys={[
          {
            text: 'Whole again',
            disabled: !isWindowed(pattern),
            act: () => edit({ kind: 'window', window: null }),
          },
          {
            text: 'Crop to window',
            disabled: !isWindowed(pattern),
            act: () => {
              edit({ kind: 'crop', ...window });
              dispatch(noticed('Cropped. The rest waits on the tape.', true));
            },
          },
        ]}
      />
      <Segments
        label="A moved window takes over"
        caption="Takes over"
        value={windowOn}
        options={TIMES}
        onChoose={(time) => dispatch(windowOnSet(time))}
      />
    </>
  );
}

function inUnits(ticks: number, one: number): number {
  return Math.round((ticks / one) * 1000) / 1000;
}
