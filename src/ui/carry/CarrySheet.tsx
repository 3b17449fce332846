import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Pattern, PatternPlace } from '@/core/document/pattern';
import { samplesOfSet } from '@/core/document/samplesOf';
import type { OpenSet } from '@/core/document/set';
import { playPattern, playSection } from '@/core/score/playThrough';
import { PART_RATE, PlayedPart } from '@/instrument/playedPart';
import { samples } from '@/storage/storage';
import { selectPattern, selectPlace, selectSet, selectStage, selectTrack } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { Sheet } from '../shared/Sheet';
import { CarryKey } from './CarryKey';
import { CarryPanel } from './CarryPanel';
import { ListenKey } from './ListenKey';
import { useCarry } from './useCarry';

const PATTERN = 'pattern';

/** The shown pattern or a section of the set, played once from its beginning: heard, and carried away like a run. */
export function CarrySheet() {
  const set = useAppSelector(selectSet);
  const stage = useAppSelector(selectStage);
  const track = useAppSelector(selectTrack);
  const pattern = useAppSelector(selectPattern);
  const place = useAppSelector(selectPlace);
  const [what, setWhat] = useState(PATTERN);
  const section = set.sections.find(({ id }) => String(id) === what);
  const open = useMemo(() => withShown({ set, stage }, place, pattern), [set, stage, place, pattern]);
  const name = section ? `${set.name} - ${section.name}` : `${set.name} - ${track.name} ${pattern.name}`;
  const part = useMemo(() => {
    const play = () => (section ? playSection(open, section.id, PART_RATE) : playPattern(open, place, PART_RATE));
    return new PlayedPart(name, play, () => samples.loadAll(samplesOfSet(open.set)));
  }, [open, place, name, section]);
  const carry = useCarry(part);
  const options = [
    { value: PATTERN, name: `${track.name} · ${pattern.name}` },
    ...set.sections.map((one) => ({ value: String(one.id), name: `Section ${one.name}` })),
  ];
  return (
    <Sheet
      title="Carry away"
      about="A pattern or a section as a file: notes, sound, or a sound for each track. Runs carry away a whole performance."
    >
      <View style={styles.row}>
        <Choice
          label="What"
          caption="What"
          value={section ? what : PATTERN}
          options={options}
          onChoose={setWhat}
          grow
        />
        <ListenKey part={part} />
        <CarryKey carry={carry} />
      </View>
      <CarryPanel carry={carry} />
    </Sheet>
  );
}

/** The set with the pattern that is shown in its place, also where nothing was put into it yet. */
function withShown({ set, stage }: OpenSet, { track, slot }: PatternPlace, pattern: Pattern): OpenSet {
  const of = set.tracks[track]!;
  if (of.patterns[slot]) return { set, stage };
  const patterns = of.patterns.map((one, i) => (i === slot ? pattern : one));
  return { set: { ...set, tracks: { ...set.tracks, [track]: { ...of, patterns } } }, stage };
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 4, flexWrap: 'wrap' },
});
