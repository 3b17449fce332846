import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import type { Run } from '@/core/document/run';
import { MOST_RUNS } from '@/storage/runStore';
import { KeyRow } from '../shared/KeyRow';
import { searched, SearchField } from '../shared/SearchField';
import { sizeWords } from '../shared/sizeWords';
import { Words } from '../shared/Words';
import { RunCard } from './RunCard';
import { useDeletedRuns, useRunStore } from './RunsContext';

/** All captured performances, the newest first. */
export function RunList({ runs }: { runs: readonly Run[] }) {
  const store = useRunStore();
  const deleted = useDeletedRuns();
  const [search, setSearch] = useState('');
  const found = searched(runs, search);
  // Runs between which nothing came to rest share a log: its longest count is all of it.
  const logs = new Map<string, number>();
  for (const { log, letters: of } of runs) logs.set(log, Math.max(of, logs.get(log) ?? 0));
  const letters = [...logs.values()].reduce((sum, of) => sum + of, 0);
  return (
    <ScrollView contentContainerStyle={styles.list}>
      {runs.length > 3 && <SearchField label="Search runs" text={search} onText={setSearch} />}
      {deleted.map((run) => (
        <KeyRow
          key={run.id}
          keys={[
            { label: `Bring back ${run.name}`, text: `Bring back “${run.name}”`, act: () => void store.bringBack(run) },
          ]}
        />
      ))}
      {runs.length === 0 && (
        <Words>
          There is none yet. All that you play is captured, from the first sound until you stop: play something.
        </Words>
      )}
      {runs.length > 0 && found.length === 0 && <Words>{`No run is called “${search}”.`}</Words>}
      <View role="list" aria-label="Runs" style={styles.cards}>
        {found.map((run) => (
          <RunCard key={run.id} run={run} />
        ))}
      </View>
      {runs.length > 0 && (
        <Words>{`The last ${MOST_RUNS} stay, and those that you keep. They take ${sizeWords(letters)}.`}</Words>
      )}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  list: { padding: 8, gap: 8 },
  cards: { gap: 8 },
});
