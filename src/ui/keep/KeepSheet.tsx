import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { counted } from '@/core/counted';
import { KEEP_BARS } from '@/core/document/limits';
import type { Beat } from '@/core/quantize/estimateBeat';
import { clampTempo, formatTempo, parseTempo } from '@/core/time/tempo';
import { MAX_TEMPO, MIN_TEMPO, ticksPerBar } from '@/core/time/ticks';
import { gridTicks } from '@/core/quantize/grid';
import { keep, keepWindow, lookBack } from '@/instrument/keepPattern';
import { selectSet } from '@/store/selectors';
import { noticed, sheetClosed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { NumberField } from '../shared/NumberField';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { PlayedPicture } from './PlayedPicture';

/** The least by which the first beat is moved, ms. */
const HAIR_MS = 10;

/** Keep: what was just played, armed or not, becomes a pattern. */
export function KeepSheet() {
  const instrument = useInstrument();
  const store = useStore() as Store;
  const dispatch = useAppDispatch();
  const { meter, inputQuantize } = useAppSelector(selectSet);
  // What lies there when the sheet is opened, and again after each stroke.
  const [keepable, setKeepable] = useState(() => lookBack(instrument, store.getState()));
  const [beat, setBeat] = useState<Beat | null>(keepable.beat);
  const [shown, setShown] = useState<number>(2);
  const [shift, setShift] = useState(0);
  useEffect(
    () =>
      instrument.performance.onSounded(({ live }) => {
        if (!live) return;
        // After the stroke has been added to what was just played.
        queueMicrotask(() => {
          const next = lookBack(instrument, store.getState());
          setKeepable(next);
          setBeat(next.beat);
        });
      }),
    [instrument, store],
  );

  const { anchor } = instrument.performance;
  const now = anchor.playing ? instrument.performance.tickHeard(window.performance.now()) : null;
  const grid = gridTicks(inputQuantize.grid);
  const windowOf = (bars: number) => keepWindow(keepable, beat, { bars, shift, meter, grid, now });
  const view = windowOf(shown);
  const canKeep = keepable.withSong ? keepable.strokes.length > 0 : beat !== null;
  const take = (bars: number) => {
    if (keep(store, instrument, windowOf(bars), keepable.withSong ? null : beat) > 0) dispatch(sheetClosed());
  };
  return (
    <Sheet title="Keep" about="What you just played becomes a pattern, recorded or not.">
      <Words>{sentence(keepable.strokes.length, keepable.withSong, beat)}</Words>
      {keepable.strokes.length > 0 && (
        <PlayedPicture placed={view.placed} from={view.from} length={view.length} bar={ticksPerBar(meter)} />
      )}
      <View role="menu" aria-label="Keep" style={styles.row}>
        {KEEP_BARS.map((bars) => (
          <ControlButton
            key={bars}
            role="menuitem"
            maps={{ do: 'keep', bars }}
            tone={bars === shown ? 'primary' : 'plain'}
            label={`Keep ${counted(bars, 'bar')}`}
            caption="Keep"
            text={counted(bars, 'bar')}
            disabled={!canKeep}
            onPress={() => take(bars)}
            style={styles.keep}
          />
        ))}
      </View>
      {canKeep && (
        <>
          <SheetTitle>Which bars</SheetTitle>
          <View style={styles.row}>
            <ControlButton
              label="A bar earlier"
              text="A bar earlier"
              onPress={() => setShift(shift - 1)}
              style={styles.grow}
            />
            <ControlButton
              label="A bar later"
              text="A bar later"
              onPress={() => setShift(shift + 1)}
              style={styles.grow}
            />
          </View>
          <View style={styles.row}>
            {KEEP_BARS.map((bars) => (
              <ControlButton
                key={bars}
                label={`Show ${bars}`}
                text={`Show ${bars}`}
                pressed={bars === shown}
                onPress={() => setShown(bars)}
                style={styles.grow}
              />
            ))}
          </View>
        </>
      )}
      {!keepable.withSong && beat && <BeatControls beat={beat} onBeat={setBeat} />}
    </Sheet>
  );
}

/** What an estimate is taken for when it is wrong, each a touch away: shuffles for three to two, off-beats for an eighth. */
const TEMPO_FACTORS = [
  { label: 'Halve estimated tempo', text: '÷2', factor: 1 / 2 },
  { label: 'Two thirds of estimated tempo', text: '×2/3', factor: 2 / 3 },
  { label: 'One and a half times estimated tempo', text: '×3/2', factor: 3 / 2 },
  { label: 'Double estimated tempo', text: '×2', factor: 2 },
];

function BeatControls({ beat, onBeat }: { beat: Beat; onBeat: (beat: Beat) => void }) {
  const dispatch = useAppDispatch();
  const beatMs = 60000 / beat.tempo;
  const moves = [
    { name: 'a beat', text: 'beat', ms: beatMs },
    { name: 'an eighth', text: 'eighth', ms: beatMs / 2 },
    { name: `${HAIR_MS} ms`, text: `${HAIR_MS} ms`, ms: HAIR_MS },
  ];
  const shown = formatTempo(Math.round(beat.tempo * 10) / 10);
  return (
    <>
      <SheetTitle>Tempo and first beat</SheetTitle>
      <NumberField
        label="Estimated tempo"
        caption="BPM"
        value={Number(shown)}
        min={MIN_TEMPO}
        max={MAX_TEMPO}
        text={shown}
        onStep={(steps) => onBeat({ ...beat, tempo: clampTempo(beat.tempo + steps / 10) })}
        onType={(text) => {
          const read = parseTempo(text);
          if ('error' in read) dispatch(noticed(read.error));
          else onBeat({ ...beat, tempo: read.bpm });
          return 'bpm' in read;
        }}
      />
      <View style={styles.row}>
        {TEMPO_FACTORS.map(({ label, text, factor }) => (
          <ControlButton
            key={label}
            label={label}
            text={text}
            disabled={beat.tempo * factor < MIN_TEMPO || beat.tempo * factor > MAX_TEMPO}
            onPress={() => onBeat({ ...beat, tempo: beat.tempo * factor })}
            style={styles.grow}
          />
        ))}
      </View>
      {([-1, 1] as const).map((way) => (
        <View key={way} style={styles.row}>
          {moves.map(({ name, text, ms }) => (
            <ControlButton
              key={name}
              label={`First beat ${name} ${way < 0 ? 'earlier' : 'later'}`}
              text={`${way < 0 ? '−' : '+'} ${text}`}
              onPress={() => onBeat({ ...beat, firstBeatMs: beat.firstBeatMs + way * ms })}
              style={styles.grow}
            />
          ))}
        </View>
      ))}
    </>
  );
}

function sentence(strokes: number, withSong: boolean, beat: Beat | null): string {
  if (strokes === 0) return 'Nothing was played yet. Whatever you tap on the pads is remembered here, armed or not.';
  const count = counted(strokes, 'stroke');
  if (withSong) return `${count} played with the song. Keep the last bars of them as a pattern.`;
  if (beat)
    return `${count} played freely, at about ${formatTempo(Math.round(beat.tempo))} BPM. Keeping them sets the tempo.`;
  return `${count} played freely: too few to tell a tempo from. Four or more will do.`;
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  keep: { flexGrow: 1, flexBasis: 0, minWidth: 72, minHeight: 60 },
  grow: { flexGrow: 1, minWidth: 56 },
});
