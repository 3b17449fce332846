import { View, StyleSheet } from 'react-native';
import { PLAY_WAYS, type PlayWay } from '@/core/document/sound';
import { REPEAT_RATES, type GridName } from '@/core/quantize/grid';
import { recipeOf } from '@/core/sound/patch';
import { ratesOfKind } from '@/core/sequence/repeatRates';
import { soundChanged } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { Choice } from '../shared/Choice';
import { Segments } from '../shared/Segments';
import { Words } from '../shared/Words';
import type { ShownSound } from './useSound';

const WAYS: Record<PlayWay, string> = { once: 'To its end', held: 'While held', looped: 'Round, held' };
const AT_ONCE = [
  { value: 'one', name: 'One at a time' },
  { value: 'several', name: 'Several' },
] as const;
const RATES = REPEAT_RATES.map((value) => ({ value, name: value }));

/** How long a stroke lasts, and between which rates it repeats. */
export function PlayingKeys({ sound }: { sound: ShownSound }) {
  const dispatch = useAppDispatch();
  const { track, pad, kind, source, settings } = sound;
  const isSample = 'sample' in source;
  const isMono = settings.mono ?? recipeOf(source).isMono === true;
  const [slowest, fastest] = ratesOfKind(kind ?? undefined);
  const repeat = settings.repeat ?? { slowest, fastest };
  const setRepeat = (change: Partial<typeof repeat>) => {
    const next = { ...repeat, ...change };
    const order = (rate: GridName) => REPEAT_RATES.indexOf(rate);
    // One end that passes the other takes it along.
    if (order(next.slowest) > order(next.fastest)) {
      if (change.slowest) next.fastest = next.slowest;
      else next.slowest = next.fastest;
    }
    const isOwn = next.slowest === slowest && next.fastest === fastest;
    dispatch(soundChanged({ track, pad, change: { repeat: isOwn ? undefined : next }, label: 'repeat range' }));
  };
  return (
    <>
      {'voice' in source && (
        <>
          <Segments
            label="Notes at once"
            caption="Notes"
            value={isMono ? 'one' : 'several'}
            options={AT_ONCE}
            onChoose={(value) => {
              const mono = value === 'one';
              const isOwn = mono === (recipeOf(source).isMono === true);
              dispatch(
                soundChanged({ track, pad, change: { mono: isOwn ? undefined : mono }, label: 'notes at once' }),
              );
            }}
          />
          <Words>A finger that holds a note presses it by sliding up, and has it brighter or duller sideways.</Words>
        </>
      )}
      {kind !== null && (
        <Segments
          label="Plays"
          caption="Plays"
          value={settings.plays ?? 'once'}
          options={PLAY_WAYS.filter((way) => way !== 'looped' || isSample).map((value) => ({
            value,
            name: WAYS[value],
          }))}
          onChoose={(plays) =>
            dispatch(
              soundChanged({
                track,
                pad,
                change: { plays: plays === 'once' ? undefined : plays },
                label: 'how it plays',
              }),
            )
          }
        />
      )}
      <View style={styles.row}>
        <Choice
          label="Slowest repeat"
          caption="Repeats from"
          value={repeat.slowest}
          options={RATES}
          numeric
          grow
          onChoose={(rate) => setRepeat({ slowest: rate })}
        />
        <Choice
          label="Fastest repeat"
          caption="to"
          value={repeat.fastest}
          options={RATES}
          numeric
          grow
          onChoose={(rate) => setRepeat({ fastest: rate })}
        />
      </View>
    </>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', gap: 6 } });
