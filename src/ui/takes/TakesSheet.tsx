import { counted } from '@/core/counted';
import { usePatternEdit } from '../shared/usePatternEdit';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { hitsPerBar, takesOf, type Take } from '@/core/edit/takes';
import { lanesOf, type Lane } from '@/core/document/lanes';
import { ticksPerBar, type Meter } from '@/core/time/ticks';
import { earlyLate, offsetsMs, trendWords } from '@/core/sequence/earlyLate';
import { gridTicks } from '@/core/quantize/grid';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { noticed, takeHeard } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { EarlyLate } from '../feel/EarlyLate';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { Segments } from '../shared/Segments';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS, WORDS_STRONG } from '../theme/tokens';
import { LOOP_BARS, MAX_HITS } from '@/core/document/limits';
import type { Pattern } from '@/core/document/pattern';
import { takeRemoved } from '@/store/patternsSlice';
import { grown } from '../theme/type';

/** Every pass that was recorded into the current pattern: heard alone, dropped; and the good bars cropped and doubled. */
export function TakesSheet() {
  const pattern = useAppSelector(selectPattern);
  const pads = lanesOf(useAppSelector(selectTrack));
  const { tempo, inputQuantize, meter } = useAppSelector(selectSet);
  const takes = pattern ? takesOf(pattern) : [];
  const grid = gridTicks(inputQuantize.grid);
  const offsets = (take: Take | undefined) => (take ? offsetsMs(pattern!, take.hits, grid, tempo) : []);
  return (
    <Sheet title="Takes" about="What you recorded, pass by pass: hear one alone, keep it, or throw it away.">
      {takes.length === 0 && (
        <Words>No takes yet. Press Record, then Play: each time round the loop in which you play becomes one.</Words>
      )}
      {pattern && takes.length > 0 && <EarlyLate name={`Take ${takes[0]!.take}`} offsets={offsets(takes[0])} />}
      {takes.map((take, i) => (
        <TakeLine key={take.take} take={take} pads={pads} trend={trendOf(offsets(take), offsets(before(takes, i)))} />
      ))}
      {pattern && <GoodBars pattern={pattern} meter={meter} />}
    </Sheet>
  );
}

/** The previous take with at least one of the same pads; takes without a common pad cannot be compared. */
function before(takes: readonly Take[], i: number): Take | undefined {
  return takes.slice(i + 1).find((earlier) => earlier.pads.some((pad) => takes[i]!.pads.includes(pad)));
}

function trendOf(now: readonly number[], earlier: readonly number[]): string {
  const sum = earlyLate(now);
  return sum ? trendWords(sum, earlyLate(earlier)) : 'beyond the loop';
}

function TakeLine({ take, pads, trend }: { take: Take; pads: readonly Lane[]; trend: string }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const heard = useAppSelector((state) => state.session.heardTake);
  const name = `take ${take.take}`;
  return (
    <View style={[styles.take, { backgroundColor: tokens.deep }]}>
      <Text style={[styles.number, { color: tokens.wing }]}>{take.take}</Text>
      <View style={styles.facts}>
        <Text numberOfLines={1} style={[styles.strong, { color: tokens.wing }]}>
          {take.pads.map((pad) => pads[pad]!.name).join(', ')} · {take.hits.length}{' '}
          {take.hits.length === 1 ? 'hit' : 'hits'}
        </Text>
        <Text style={[styles.words, { color: tokens.cap }]}>{trend}</Text>
      </View>
      <ControlButton
        label={`Hear ${name} alone`}
        text="Alone"
        pressed={heard === take.take}
        onPress={() => dispatch(takeHeard(heard === take.take ? null : take.take))}
      />
      <ControlButton
        label={`Drop ${name}`}
        text="Drop"
        onPress={() => {
          if (heard === take.take) dispatch(takeHeard(null));
          dispatch(takeRemoved({ place: instrument.placeOf(), take: take.take }));
          dispatch(noticed(`Dropped ${name}.`, true));
        }}
      />
    </View>
  );
}

function GoodBars({ pattern, meter }: { pattern: Pattern; meter: Meter }) {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const edit = usePatternEdit();
  const bar = ticksPerBar(meter);
  const perBar = hitsPerBar(pattern, bar);
  const [first, setFirst] = useState(0);
  const [count, setCount] = useState<number>(1);
  const start = Math.min(first, perBar.length - 1);
  const counts = LOOP_BARS.filter((n) => start + n <= perBar.length);
  const bars = counts.includes(count as (typeof LOOP_BARS)[number]) ? count : 1;
  const longest = LOOP_BARS[LOOP_BARS.length - 1]!;
  return (
    <>
      <SheetTitle>Good bars</SheetTitle>
      <Words>From bar</Words>
      <Segments
        label="First good bar"
        value={start}
        options={perBar.map((hits, i) => ({
          value: i,
          name: String(i + 1),
          note: counted(hits, 'hit'),
        }))}
        onChoose={setFirst}
      />
      <Words>How many</Words>
      <Segments
        label="Good bars"
        value={bars}
        options={counts.map((n) => ({ value: n as number, name: String(n) }))}
        onChoose={setCount}
      />
      <View style={styles.row}>
        <ControlButton
          label="Crop to these bars"
          text={bars === 1 ? `Crop to bar ${start + 1}` : `Crop to bars ${start + 1} to ${start + bars}`}
          disabled={perBar.length === bars}
          onPress={() => {
            edit({ kind: 'crop', start: start * bar, length: bars * bar });
            setFirst(0);
            dispatch(noticed('Cropped. The other bars wait on the tape.', true));
          }}
          style={styles.grow}
        />
        <ControlButton
          label="Double with repeat"
          text="Double with repeat"
          disabled={pattern.length * 2 > longest * bar || pattern.hits.length * 2 > MAX_HITS}
          onPress={() => {
            const firstId = instrument.reserveIds(pattern.hits.length);
            edit({ kind: 'double', firstId });
          }}
          style={styles.grow}
        />
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  take: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    borderRadius: RADIUS,
    paddingLeft: 12,
    paddingRight: 6,
    minHeight: 58,
  },
  number: { fontFamily: NUMBERS, fontSize: grown(16), minWidth: 24 },
  facts: { flex: 1, minWidth: 0, paddingVertical: 6 },
  strong: { fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(21) },
  words: { fontFamily: WORDS, fontSize: grown(16), lineHeight: grown(21), letterSpacing: 0.2 },
  row: { flexDirection: 'row', gap: 4 },
  grow: { flexGrow: 1 },
});
