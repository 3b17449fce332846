import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { CHECK_CLICKS, LEAD_IN_CLICKS, readLatency, TAPS_NEEDED, type LatencyReading } from '@/core/time/latency';
import { deviceSet } from '@/store/devicesSlice';
import { latencySet, INPUT_DEVICES, MOST_CORRECTION_MS, type InputDevice } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { useStrokes } from '../devices/useStrokes';
import { deviceOf } from '../pads/PadGrid';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { NumberField } from '../shared/NumberField';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';

const DEVICE_NAMES: Record<InputDevice, string> = { touch: 'Touch', pen: 'Pen', mouse: 'Mouse', keys: 'Keys' };

/** What is tapped with: an input of this device, or a controller by its name. */
type Tapper = InputDevice | { controller: string };
const nameOf = (tapper: Tapper) => (typeof tapper === 'string' ? DEVICE_NAMES[tapper] : tapper.controller);

interface Result {
  device: Tapper;
  reading: LatencyReading | null;
  taps: number;
  /** The correction in force while it was read, ms. */
  corrected: number;
}

/** The latency check: taps along with eight clicks tell how much later a device reports a touch than it happened. */
export default function LatencySheet() {
  const tokens = useTokens();
  const instrument = useInstrument();
  const dispatch = useAppDispatch();
  const corrections = useAppSelector((state) => state.settings.latencyMs);
  const controllers = useAppSelector((state) => state.devices.known);
  const correctionOf = (tapper: Tapper) =>
    typeof tapper === 'string'
      ? (corrections[tapper] ?? 0)
      : (controllers.find(({ name }) => name === tapper.controller)?.latencyMs ?? 0);
  const correctionNow = useRef(correctionOf);
  useEffect(() => {
    correctionNow.current = correctionOf;
  });
  const [running, setRunning] = useState(false);
  const [tapped, setTapped] = useState(0);
  const [results, setResults] = useState<Result[]>([]);
  const taps = useRef<{ ms: number; device: Tapper }[]>([]);

  const start = () => {
    taps.current = [];
    setTapped(0);
    setRunning(true);
    instrument.latencyClicks.start();
  };
  const tap = (timeStamp: number, device: Tapper) => {
    taps.current.push({ ms: timeStamp - correctionNow.current(device), device });
    setTapped(taps.current.length);
  };
  // Controllers tap with whatever they strike.
  useStrokes(({ device, at }) => running && tap(at, { controller: device }));

  // The last click is heard a while after it is told of, and its tap may come later still.
  useEffect(() => {
    if (!running) return undefined;
    const finish = () => {
      const { heardAt: checkClicks } = instrument.latencyClicks;
      if (checkClicks.length < LEAD_IN_CLICKS + CHECK_CLICKS) return;
      const last = checkClicks[checkClicks.length - 1]!;
      const half = (last - checkClicks[checkClicks.length - 2]!) / 2;
      if (window.performance.now() < last + half) return;
      setRunning(false);
      const device = mostUsed(taps.current.map((t) => t.device));
      const own = taps.current.filter((t) => nameOf(t.device) === nameOf(device)).map((t) => t.ms);
      const corrected = correctionNow.current(device);
      const reading = readLatency(checkClicks, own);
      setResults((before) => [{ device, reading, taps: own.length, corrected }, ...before]);
    };
    const look = setInterval(finish, 50);
    return () => clearInterval(look);
  }, [running, instrument]);
  useEffect(() => () => instrument.latencyClicks.stop(), [instrument]);

  // Keys tap too, wherever the focus is.
  useEffect(() => {
    if (!running) return undefined;
    const key = (event: KeyboardEvent) => {
      if (event.repeat || event.key === 'Escape' || event.key === 'Tab') return;
      event.preventDefault();
      event.stopPropagation();
      tap(event.timeStamp, 'keys');
    };
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  }, [running]);

  const [result, ...before] = results;
  // What the correction changed is told by the last reading without it.
  const earlier = before.find(
    (r) => nameOf(r.device) === nameOf(result!.device) && r.corrected !== result!.corrected && r.reading,
  );
  return (
    <Sheet title="Latency check" about="Measures how late this device tells of your touch, and takes that off.">
      <Words>
        Some devices tell of a touch later than it happened. Tap along with {CHECK_CLICKS} clicks; the first{' '}
        {LEAD_IN_CLICKS} give the tempo. Use what you play with: the glass, the mouse, a key or a controller.
      </Words>
      <ControlButton
        tone="primary"
        label="Start latency check"
        text={running ? 'Listen and tap' : results.length > 0 ? 'Check again' : 'Start'}
        disabled={running}
        onPress={start}
        style={{ minHeight: 52 }}
      />
      <View
        role="button"
        aria-label="Tap here"
        aria-disabled={!running}
        onPointerDown={(event) => {
          if (!running) return;
          const native = event.nativeEvent as unknown as PointerEvent;
          tap(native.timeStamp, deviceOf(native));
        }}
        style={[
          styles.tap,
          { backgroundColor: running ? tokens.warm : tokens.slate, borderColor: running ? tokens.breast : tokens.rule },
        ]}
      >
        <Text style={[styles.tapWord, { color: running ? tokens.wing : tokens.cap }]}>
          {running ? `Tap here: ${tapped}` : 'Tap here when it clicks'}
        </Text>
      </View>
      {result && (
        <Outcome
          result={result}
          earlier={earlier}
          onUse={(ms) => {
            const { device } = result;
            if (typeof device === 'string') dispatch(latencySet({ device, ms }));
            else dispatch(deviceSet({ name: device.controller, change: { latencyMs: ms } }));
          }}
          inForce={correctionOf(result.device)}
        />
      )}
      <SheetTitle>Corrections, ms</SheetTitle>
      <View style={styles.row}>
        {INPUT_DEVICES.map((device) => (
          <NumberField
            key={device}
            label={`${DEVICE_NAMES[device]} correction`}
            caption={DEVICE_NAMES[device]}
            value={corrections[device] ?? 0}
            min={-MOST_CORRECTION_MS}
            max={MOST_CORRECTION_MS}
            text={String(corrections[device] ?? 0)}
            valueText={`${corrections[device] ?? 0} ms`}
            onStep={(steps) => dispatch(latencySet({ device, ms: (corrections[device] ?? 0) + steps }))}
            onType={(text) => {
              const ms = Number(text.replace(',', '.').replace('−', '-'));
              if (!Number.isFinite(ms) || text.trim() === '') return false;
              dispatch(latencySet({ device, ms }));
              return true;
            }}
            style={styles.grow}
          />
        ))}
      </View>
    </Sheet>
  );
}

function Outcome({
  result,
  earlier,
  inForce,
  onUse,
}: {
  result: Result;
  earlier: Result | undefined;
  inForce: number;
  onUse: (ms: number) => void;
}) {
  const { device, reading, taps, corrected } = result;
  const name = typeof device === 'string' ? nameOf(device).toLowerCase() : nameOf(device);
  if (!reading) {
    return <Words>{`Only ${taps} of the taps met a click; ${TAPS_NEEDED} are needed. Try once more.`}</Words>;
  }
  const found = Math.round(reading.offsetMs * 10) / 10;
  const total = Math.round((corrected + reading.offsetMs) * 10) / 10;
  const helped = earlier?.reading
    ? Math.abs(reading.offsetMs) < Math.abs(earlier.reading.offsetMs)
      ? ` The correction helped: it was ${Math.round(earlier.reading.offsetMs)} ms before.`
      : ` The correction did not help: it was ${Math.round(earlier.reading.offsetMs)} ms before.`
    : '';
  return (
    <>
      <Text role="status" style={{ display: 'none' }}>{`${found} ms`}</Text>
      <Words>
        {`${reading.taps} taps by ${name}: ${Math.abs(found)} ms ${found < 0 ? 'before' : 'after'} the click, steady within ${Math.round(reading.steadyMs)} ms.${helped}`}
      </Words>
      <ControlButton
        label="Use this correction"
        text={inForce === total ? `Corrected by ${total} ms` : `Correct ${name} by ${total} ms`}
        disabled={inForce === total}
        onPress={() => onUse(total)}
      />
    </>
  );
}

function mostUsed(devices: readonly Tapper[]): Tapper {
  const count = (device: Tapper) => devices.filter((other) => nameOf(other) === nameOf(device)).length;
  return devices.reduce<Tapper>((most, device) => (count(device) > count(most) ? device : most), INPUT_DEVICES[0]);
}

const styles = StyleSheet.create({
  tap: {
    height: 160,
    borderRadius: RADIUS,
    borderWidth: 2,
    alignItems: 'center',
    justifyContent: 'center',
    touchAction: 'none',
    userSelect: 'none',
    cursor: 'pointer',
  } as ViewStyle,
  tapWord: { fontFamily: WORDS_STRONG, fontSize: grown(22), lineHeight: grown(28), userSelect: 'none' },
  row: { flexDirection: 'row', gap: 4 },
  grow: { flexGrow: 1, flexBasis: 0, minWidth: 60 },
});
