import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { counted } from '@/core/counted';
import { idsFrom } from '@/core/document/hit';
import { nextHitId } from '@/core/document/set';
import { makePattern, makeSection, makeSong, type Made, type Stretch } from '@/core/score/make';
import type { OpenedRun } from '@/instrument/openedRun';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { madeFromRun } from '@/store/slotsSlice';
import { useAppDispatch, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import type { RunDesk } from './useRunDesk';

/** What was played becomes a part of the set that is open: of the stretch, or of all of it. */
export function MakeKeys({ opened, desk }: { opened: OpenedRun; desk: RunDesk }) {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const make = (label: string, act: (parts: Parts) => Made | null, done: (made: Made) => string, not: string) => {
    const set = selectSet(store.getState());
    const first = nextHitId(set);
    const { score } = opened;
    const made = act({
      set,
      score,
      stretch: desk.stretch ?? { from: 0, to: score.length },
      nextId: idsFrom(first | 1),
    });
    if (made) dispatch(madeFromRun({ ...made, label }));
    dispatch(made ? noticed(done(made), true) : noticed(not));
  };
  return (
    <View style={styles.row}>
      <ControlButton
        label="Make a pattern"
        text="Make a pattern"
        onPress={() =>
          make(
            'pattern of a run',
            ({ set, score, stretch, nextId }) => makePattern(set, score, score.tracks[desk.row]!, stretch, nextId),
            ({ patterns: [one] }) => `“${one!.pattern.name}” lies in slot ${one!.slot + 1} of its track.`,
            'This set has no such track, or no free slot for it.',
          )
        }
        style={styles.key}
      />
      <ControlButton
        label="Make a section"
        text="Section"
        onPress={() =>
          make(
            'section of a run',
            ({ set, score, stretch, nextId }) => makeSection(set, score, stretch, opened.run.name, nextId),
            ({ patterns, sections: [one] }) =>
              `Section “${one!.name}” with ${counted(patterns.length, 'pattern')} is made.`,
            'Nothing sounds in this stretch, or this set has no room for it.',
          )
        }
        style={styles.key}
      />
      <ControlButton
        label="Make a song"
        text="Song"
        onPress={() =>
          make(
            'song of a run',
            ({ set, score, stretch }) => makeSong(set, score, stretch),
            ({ sections }) =>
              `${sections.length} sections in the order they were played: launch “${sections[0]!.name}”.`,
            'No section of this set was launched in this stretch. Make a section of it instead.',
          )
        }
        style={styles.key}
      />
    </View>
  );
}

interface Parts {
  set: Parameters<typeof makePattern>[0];
  score: OpenedRun['score'];
  stretch: Stretch;
  nextId: () => number;
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 4 },
  key: { flexGrow: 1, paddingHorizontal: 4 },
});
