import { useEffect, useRef, useState } from 'react';
import { counted } from '@/core/counted';
import { MIX_CONTROL_NAMES } from '@/core/document/mix';
import {
  CONTROL_NAMES,
  isOfReturn,
  isSameMoved,
  movedName,
  movedRange,
  type Moved,
  type MovePoint,
} from '@/core/document/moves';
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
import { mixScale, returnScale } from '../mix/mixScales';
import { movedScale } from '../steps/movedScale';
import { SHOWN_CONTROLS, type Shown } from '../steps/valueWords';
import { selectMovableChannels, type MovableChannel } from './mixMoved';

const WRITES: { value: RidesWrite; name: string }[] = [
  { value: 'touch', name: 'While moved' },
  { value: 'latch', name: 'From then on' },
  { value: 'over', name: 'Over all' },
];

/** What the hand has. */
interface Held {
  moved: Moved;
  value: number;
}

/** The controls of one pad, or of a channel, under the hand: held, they take the place of what the pattern moves; while recording, they are its Moves. */
export function MovesSheet() {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const pattern = useAppSelector(selectPattern);
  const track = useAppSelector(selectShown);
  const pad = useAppSelector((state) => state.steps.pad);
  const writes = useAppSelector((state) => state.settings.ridesWrite);
  const recording = useAppSelector((state) => state.session.recording);
  const controls = useAppSelector(selectControls);
  const channels = useAppSelector(selectMovableChannels);
  const pads = lanesOf(useAppSelector(selectTrack));
  const [on, setOn] = useState<MovableChannel['on'] | null>(null);
  const [held, setHeld] = useState<readonly Held[]>([]);
  // A hand that leaves the sheet leaves its controls.
  const leave = useRef(() => {});
  useEffect(() => {
    leave.current = () => held.forEach(({ moved }) => instrument.rides.letGo(track, moved));
  });
  useEffect(() => () => leave.current(), []);
  const letGo = (moved: Moved) => {
    instrument.rides.release(track, moved);
    setHeld((now) => now.filter((one) => !isSameMoved(one.moved, moved)));
  };
  const letAllGo = () => held.forEach(({ moved }) => letGo(moved));
  const channel = channels.find((one) => one.on === on);
  const shown: readonly Moved[] = channel?.moved ?? controls.map((control) => ({ pad, control }));
  return (
    <Sheet
      title="Moves"
      about="Ride a sound, a track, the echo or the room while it plays; recorded, the pattern repeats it."
    >
      <Choice
        label="Moves of"
        caption="Moves of"
        value={channel?.on ?? String(pad)}
        options={[
          ...channels.map(({ on: value, name }) => ({
            value: value as string,
            name: value === 'track' ? `All of ${name}` : name,
          })),
          ...pads.map(({ name }, i) => ({ value: String(i), name })),
        ]}
        onChoose={(value) => {
          letAllGo();
          const chosen = channels.find((one) => one.on === value);
          setOn(chosen?.on ?? null);
          if (!chosen) dispatch(laneChosen({ pad: Number(value) }));
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
      {shown.map((moved) => (
        <MoveStrip
          key={movedName(moved)}
          moved={moved}
          points={pattern ? movePoints(pattern, moved) : []}
          own={(channel && 'on' in moved ? channel.settings[moved.control] : undefined) ?? movedRange(moved).neutral}
          held={held.find((one) => isSameMoved(one.moved, moved))?.value}
          onRide={(value, timeStamp) => {
            instrument.rides.ride(track, moved, value, timeStamp);
            setHeld((now) => [...now.filter((one) => !isSameMoved(one.moved, moved)), { moved, value }]);
          }}
          onLetGo={() => letGo(moved)}
        />
      ))}
      <ControlButton label="Let go of all" text="Let go of all" disabled={held.length === 0} onPress={letAllGo} />
    </Sheet>
  );
}

interface StripProps {
  moved: Moved;
  /** Of its Move, none without one. */
  points: readonly MovePoint[];
  /** What it is where nothing moves it. */
  own: number;
  /** Where the hand has it; undefined: no hand is on it. */
  held: number | undefined;
  onRide: (value: number, timeStamp: number) => void;
  onLetGo: () => void;
}

function MoveStrip({ moved, points, own, held, onRide, onLetGo }: StripProps) {
  const { min, max, stepped } = movedRange(moved);
  const value = held ?? points[0]?.value ?? own;
  const state = held !== undefined ? 'held' : points.length > 0 ? counted(points.length, 'point') : '';
  const shown = shownOf(moved);
  return (
    <Strip
      label={nameOf(moved)}
      maps={'pad' in moved ? { do: 'turn', control: moved.control, pad: moved.pad } : undefined}
      value={value}
      min={min}
      max={max}
      step={stepped ? 1 : moved.control === 'pitch' ? 0.1 : 0.01}
      scale={shown.scale}
      unit={shown.unit}
      note={stepped ? [movedScale(moved).words(value), state].filter(Boolean).join(', ') : state}
      onChange={(next, _, timeStamp) => onRide(next, timeStamp)}
      onRelease={onLetGo}
    />
  );
}

/** Within the sheet of what it is of. */
function nameOf(moved: Moved): string {
  if ('pad' in moved) return CONTROL_NAMES[moved.control];
  return isOfReturn(moved) ? movedName(moved) : MIX_CONTROL_NAMES[moved.control];
}

/** Shares in percent, all else as it is told; what is stepped by the number of its step. */
function shownOf(moved: Moved): Pick<Shown, 'scale' | 'unit'> {
  if (movedRange(moved).stepped) return { scale: 1, unit: '' };
  if ('pad' in moved) return SHOWN_CONTROLS[moved.control as keyof typeof SHOWN_CONTROLS];
  if (moved.control === 'level') return { scale: 100, unit: '%' };
  const { number, unit } = (isOfReturn(moved) ? returnScale(moved) : mixScale(moved.control)).shown(1);
  return { scale: number, unit };
}
