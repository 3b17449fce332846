import { useEffect, useRef, useState } from 'react';
import { CONTROL_NAMES, CONTROL_RANGES, type Control } from '@/core/document/moves';
import { movePoints } from '@/core/edit/editMoves';
import { lanesOf } from '@/core/document/lanes';
import { selectControls, selectPattern, selectShown, selectTrack } from '@/store/selectors';
import { ridesWriteSet, type RidesWrite } from '@/store/settingsSlice';
import { laneChosen } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { Segments } from '../shared/Segments';
import { Sheet } from '../shared/Sheet';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';
import { controlWords, SHOWN_CONTROLS } from '../steps/valueWords';

const WRITES: { value: RidesWrite; name: string }[] = [
  { value: 'touch', name: 'While moved' },
  { value: 'latch', name: 'From then on' },
  { value: 'over', name: 'Over all' },
];

/** The controls of one pad under the hand: held, they take the place of what the pattern moves; while recording, they are its Moves. */
export function MovesSheet() {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const pattern = useAppSelector(selectPattern);
  const track = useAppSelector(selectShown);
  const pad = useAppSelector((state) => state.steps.pad);
  const writes = useAppSelector((state) => state.settings.ridesWrite);
  const recording = useAppSelector((state) => state.session.recording);
  const controls = useAppSelector(selectControls);
  const pads = lanesOf(useAppSelector(selectTrack));
  const [held, setHeld] = useState<Partial<Record<Control, number>>>({});
  // A hand that leaves the sheet leaves its controls.
  const leave = useRef(() => {});
  useEffect(() => {
    leave.current = () => (Object.keys(held) as Control[]).forEach((c) => instrument.rides.letGo(track, pad, c));
  });
  useEffect(() => () => leave.current(), []);
  const letGo = (control: Control) => {
    instrument.rides.release(track, pad, control);
    setHeld(({ [control]: _, ...rest }) => rest);
  };
  const letAllGo = () => (Object.keys(held) as Control[]).forEach(letGo);
  return (
    <Sheet
      title="Moves"
      about="Ride pitch, filter or level of a sound while it plays; recorded, the pattern repeats it."
    >
      <Choice
        label="Moves of"
        caption="Moves of"
        value={String(pad)}
        options={pads.map(({ name }, i) => ({ value: String(i), name }))}
        onChoose={(value) => {
          letAllGo();
          dispatch(laneChosen(Number(value)));
        }}
      />
      <Words>
        {recording
          ? 'Recording: what you ride while it plays is written into the pattern.'
          : 'Ride a strip to hear it; let go and the pattern has it again. Arm Record to write it down.'}
      </Words>
      <Segments
        label="While recording, write"
        caption="Write"
        value={writes}
        options={WRITES}
        onChoose={(way) => dispatch(ridesWriteSet(way))}
      />
      {controls.map((control) => {
        const { min, max, neutral, stepped } = CONTROL_RANGES[control];
        const points = pattern ? movePoints(pattern, pad, control) : [];
        const value = held[control] ?? points[0]?.value ?? neutral;
        const shown = control === 'rate' ? { scale: 1, unit: '' } : SHOWN_CONTROLS[control];
        const state = held[control] !== undefined ? 'held' : points.length > 0 ? `${points.length} points` : '';
        return (
          <Strip
            key={control}
            label={CONTROL_NAMES[control]}
            maps={{ do: 'turn', control, pad }}
            value={value}
            min={min}
            max={max}
            step={stepped ? 1 : control === 'pitch' ? 0.1 : 0.01}
            scale={shown.scale}
            unit={shown.unit}
            note={control === 'rate' ? [controlWords(control, value), state].filter(Boolean).join(', ') : state}
            onChange={(next, _, timeStamp) => {
              instrument.rides.ride(track, pad, control, next, timeStamp);
              setHeld((now) => ({ ...now, [control]: next }));
            }}
            onRelease={() => letGo(control)}
          />
        );
      })}
      <ControlButton
        label="Let go of all"
        text="Let go of all"
        disabled={Object.keys(held).length === 0}
        onPress={letAllGo}
      />
    </Sheet>
  );
}
