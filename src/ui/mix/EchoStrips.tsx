import { ECHO_MS, FIRST_ECHO, type Echo, type EchoTime } from '@/core/document/mix';
import { ECHO_TIME_NAMES } from '@/core/document/returns';
import { echoSet } from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { Segments } from '../shared/Segments';
import { SheetTitle } from '../shared/Sheet';
import { ValueStrip } from '../shared/ValueStrip';
import { msScale } from './mixScales';
import { ReturnStrip } from './ReturnStrip';
import { useReturnTurn } from './useMixTurn';

const TIMES = [
  ...ECHO_TIME_NAMES.map((time) => ({ value: time as string, name: time as string })),
  { value: 'ms', name: 'In ms' },
];

/** What it is at first when it is told in ms. */
const FIRST_MS = 375;

/** How it comes to another time, or another tempo. */
const ARRIVALS = [
  { value: 'fades', name: 'Fades' },
  { value: 'bends', name: 'Pitch bends' },
] as const;

/** The echo that all channels send to. */
export function EchoStrips() {
  const dispatch = useAppDispatch();
  const echo = useAppSelector((state) => selectSet(state).mix?.echo ?? FIRST_ECHO);
  const { time } = echo;
  const change = (changed: Partial<Echo>, gesture = `echo ${Object.keys(changed).join()}`) =>
    dispatch(echoSet({ change: changed, gesture }));
  const setTime = (place: number) => change({ time: ECHO_TIME_NAMES[place]! });
  const hand = useReturnTurn({ on: 'echo', control: 'time' }, ECHO_TIME_NAMES.indexOf(time as EchoTime), setTime);
  const choose = (value: string) => {
    const place = ECHO_TIME_NAMES.indexOf(value as EchoTime);
    if (place < 0) return change({ time: FIRST_MS });
    // What is chosen is not held: it is a step in the Moves, or what holds where nothing moves it.
    if (!hand.writes) return setTime(place);
    hand.turn(place);
    hand.letGo();
  };
  const share = (control: 'feedback' | 'tone' | 'width', caption: string) => (
    <ReturnStrip
      moved={{ on: 'echo', control }}
      caption={caption}
      setting={echo[control]}
      onSet={(value, gesture) => change({ [control]: value }, gesture)}
    />
  );
  return (
    <>
      <SheetTitle>Echo</SheetTitle>
      <Choice
        label="Echo time"
        caption={hand.moves ? 'Comes after · Moves' : 'Comes after'}
        numeric
        value={typeof time === 'number' ? 'ms' : time}
        options={TIMES}
        onChoose={choose}
      />
      {typeof time === 'number' && (
        <ValueStrip
          label="Echo ms"
          caption="Time"
          value={time}
          own={FIRST_MS}
          scale={msScale(ECHO_MS)}
          onSet={(value, gesture) => change({ time: value ?? FIRST_MS }, gesture)}
        />
      )}
      <Segments
        label="To a new time"
        caption="To a new time"
        options={ARRIVALS}
        value={echo.tape ? 'bends' : 'fades'}
        onChoose={(value) => change({ tape: value === 'bends' ? true : undefined })}
      />
      {share('feedback', 'Comes again')}
      {share('tone', 'Bright')}
      {share('width', 'From side to side')}
    </>
  );
}
