import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import type { SampleAudio } from '@/core/sample/levels';
import { SAMPLE_RATE } from '@/core/sample/levels';
import { levelled, loudestOf, trimmed } from '@/core/sample/take';
import { audioPeaks } from '@/core/sample/tidy';
import { RECORD_STARTS, SampleRecorder, type RecordStart } from '@/instrument/sampleRecorder';
import { useAppDispatch, type Store } from '@/store/store';
import { sheetClosed } from '@/store/sessionSlice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { Segments } from '../shared/Segments';
import { Sheet } from '../shared/Sheet';
import { useFrame } from '../shared/useFrame';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS } from '../theme/tokens';
import { grown } from '../theme/type';
import { hearAudio } from './hearAudio';
import { takeRecording } from './sampleActs';
import { SoundPicture } from './SoundPicture';
import { useSound } from './useSound';

const STARTS: Record<RecordStart, string> = { hand: 'By hand', bar: 'Next bar' };
const COLUMNS = 96;

/** A recording from the microphone, for the chosen pad. The microphone is open only as long as this sheet is. */
export function RecordSheet() {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { name } = useSound();
  const [recorder] = useState(() => new SampleRecorder(store, instrument));
  useEffect(() => {
    void recorder.open();
    return () => recorder.close();
  }, [recorder]);
  return (
    <Sheet
      title="Record sample"
      about={`What the microphone hears becomes the sound of this pad, in the place of ${name}. With headphones the beat stays out of it.`}
    >
      <Recorder recorder={recorder} />
    </Sheet>
  );
}

function Recorder({ recorder }: { recorder: SampleRecorder }) {
  const [start, setStart] = useState<RecordStart>('hand');
  const [endsItself, setEndsItself] = useState(true);
  const now = useSyncExternalStore(recorder.subscribe, recorder.now);
  if (now.state === 'failed') return <Words>{now.problem}</Words>;
  if (now.state === 'done') return <Recorded recorder={recorder} audio={now.audio} />;
  const isOn = now.state === 'recording' || now.state === 'waiting';
  return (
    <>
      <Meter recorder={recorder} />
      <Segments
        label="Starts"
        caption="Starts"
        value={start}
        options={RECORD_STARTS.map((value) => ({ value, name: STARTS[value] }))}
        onChoose={setStart}
      />
      <ControlButton
        label="Stops when it is silent"
        text="Stops when it is silent"
        pressed={endsItself}
        onPress={() => setEndsItself(!endsItself)}
      />
      <ControlButton
        label={isOn ? 'Stop recording the sample' : 'Start recording the sample'}
        text={isOn ? 'Stop' : 'Record'}
        tone={isOn ? 'primary' : 'record'}
        disabled={now.state === 'opening'}
        onPress={() => (isOn ? recorder.stop() : recorder.start(start, endsItself))}
      />
      {now.state === 'opening' && <Words>The browser asks whether it may use the microphone.</Words>}
    </>
  );
}

/** How loud it is, and how long: drawn on the frame. */
function Meter({ recorder }: { recorder: SampleRecorder }) {
  const tokens = useTokens();
  const bar = useRef<View>(null);
  const time = useRef<HTMLSpanElement>(null);
  const shown = useRef(0);
  useFrame(() => {
    // A meter falls slowly, so that it can be read.
    shown.current = Math.max(recorder.level, shown.current * 0.94);
    const dB = 20 * Math.log10(Math.max(1e-4, shown.current));
    (bar.current as unknown as HTMLElement).style.width = `${Math.max(0, Math.min(100, 100 + (dB * 100) / 60))}%`;
    (bar.current as unknown as HTMLElement).style.backgroundColor = dB > -1 ? tokens.berry : tokens.moss;
    const readout = time.current!;
    const words = meterWords(recorder, dB);
    if (readout.textContent !== words) readout.textContent = words;
  }, true);
  return (
    <View role="img" aria-label="Level of the microphone" style={[styles.meter, { backgroundColor: tokens.deep }]}>
      <View ref={bar} style={styles.level} />
      <span ref={time} style={{ ...READOUT, color: tokens.wing }} />
    </View>
  );
}

/** Beats until it begins, or how long it is; and how loud, in dB below full scale. */
function meterWords(recorder: SampleRecorder, dB: number): string {
  const { state } = recorder.now();
  const loud = dB > -1 ? 'too loud' : dB > -80 ? `${dB.toFixed(0)} dB` : '– dB';
  if (state === 'waiting') return `in ${recorder.beatsLeft} · ${loud}`;
  return state === 'recording' ? `${recorder.seconds.toFixed(1)} s · ${loud}` : loud;
}

/** What was recorded: heard, trimmed, levelled, taken or left. */
function Recorded({ recorder, audio }: { recorder: SampleRecorder; audio: SampleAudio }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { track, pad } = useSound();
  const seconds = audio.channels[0]!.length / SAMPLE_RATE;
  const peaks = useMemo(() => ({ peaks: audioPeaks(audio, COLUMNS), seconds }), [audio, seconds]);
  const loudest = 20 * Math.log10(Math.max(1e-5, loudestOf(audio)));
  const heard = useRef<() => void>(() => undefined);
  useEffect(() => () => heard.current(), []);
  const hear = () => {
    heard.current();
    heard.current = hearAudio(audio);
  };
  const take = () => {
    void takeRecording(store, instrument, audio, { track, pad }).then((isTaken) => {
      if (isTaken) dispatch(sheetClosed());
    });
  };
  return (
    <>
      <View
        role="img"
        aria-label={`Recording, ${seconds.toFixed(2)} s, loudest ${loudest.toFixed(0)} dB`}
        style={[styles.picture, { backgroundColor: tokens.deep }]}
      >
        <SoundPicture peaks={peaks} columns={COLUMNS} color={tokens.wing} />
        <Text style={[styles.time, { color: tokens.wing }]}>{`${seconds.toFixed(2)} s  ${loudest.toFixed(0)} dB`}</Text>
      </View>
      <KeyRow
        keys={[
          { label: 'Hear recording', text: 'Hear', act: hear },
          { label: 'Trim', text: 'Trim', act: () => recorder.become(trimmed(audio)) },
          { label: 'Level it', text: 'Level', act: () => recorder.become(levelled(audio)) },
        ]}
      />
      <KeyRow
        keys={[
          { label: 'Take it', text: 'Take it', act: take },
          { label: 'Record again', text: 'Again', act: () => recorder.become(null) },
        ]}
      />
    </>
  );
}

const READOUT = {
  position: 'relative',
  padding: '0 12px',
  textAlign: 'right',
  fontFamily: NUMBERS,
  fontSize: grown(18),
} as const;
const styles = StyleSheet.create({
  meter: { height: 56, borderRadius: RADIUS, overflow: 'hidden', justifyContent: 'center' },
  level: { position: 'absolute', left: 0, top: 0, bottom: 0, width: 0, opacity: 0.55 },
  time: { fontFamily: NUMBERS, fontSize: grown(18), lineHeight: grown(24), paddingHorizontal: 12, textAlign: 'right' },
  picture: { height: 120, borderRadius: RADIUS, overflow: 'hidden', paddingHorizontal: 8 },
});
