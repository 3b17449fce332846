import { ECHO_MS, ECHO_TIMES, FIRST_ECHO, type Echo, type EchoTime } from '@/core/document/mix';
import { echoSet } from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { Segments } from '../shared/Segments';
import { SheetTitle } from '../shared/Sheet';
import { ValueStrip } from '../shared/ValueStrip';
import { msScale, SHARE_SCALE } from './mixScales';

const TIMES = [
  ...(Object.keys(ECHO_TIMES) as EchoTime[]).map((time) => ({ value: time as string, name: time as string })),
  { value: 'ms', name: 'In ms' },
];

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
  const share = (of: 'feedback' | 'tone' | 'width', caption: string) => (
    <ValueStrip
      label={`Echo ${of}`}
      caption={caption}
      value={echo[of]}
      own={FIRST_ECHO[of]}
      scale={SHARE_SCALE}
      onSet={(value, gesture) => change({ [of]: value ?? FIRST_ECHO[of] }, gesture)}
    />
  );
  return (
    <>
      <SheetTitle>Echo</SheetTitle>
      <Choice
        label="Echo time"
        caption="Comes after"
        numeric
        value={typeof time === 'number' ? 'ms' : time}
        options={TIMES}
        onChoose={(value) => change({ time: value === 'ms' ? 375 : (value as EchoTime) })}
      />
      {typeof time === 'number' && (
        <ValueStrip
          label="Echo ms"
          caption="Time"
          value={time}
          own={375}
          scale={msScale(ECHO_MS)}
          onSet={(value, gesture) => change({ time: value ?? 375 }, gesture)}
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
