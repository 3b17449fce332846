import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Run } from '@/core/document/run';
import { drawRun, OpenedRun } from '@/instrument/openedRun';
import { noticed, runOpened } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { useSharesRoom } from '../shared/PaneContext';
import { Words } from '../shared/Words';
import { useRoom } from '../theme/room';
import { RunList } from './RunList';
import { useRuns, useRunStore } from './RunsContext';
import { RunView } from './RunView';

/** The list of runs and the one that lies open: one after the other, or beside each other where there is room. */
export default function RunsPlace() {
  const shares = useSharesRoom();
  const wide = useRoom().layout === 'wide' && !shares;
  const runs = useRuns();
  const id = useAppSelector((state) => state.session.run);
  const run = runs?.find((one) => one.id === id) ?? null;
  const opened = useOpened(run);
  useMissingPictures(runs);
  if (runs === null) return <View style={styles.place} />;
  const view = run && (opened ? <RunView key={run.id} run={run} opened={opened} /> : <Opening />);
  if (!wide) return <View style={styles.place}>{view ?? <RunList runs={runs} />}</View>;
  return (
    <View style={[styles.place, styles.row]}>
      <View style={styles.list}>
        <RunList runs={runs} />
      </View>
      <View style={styles.view}>{view}</View>
    </View>
  );
}

function Opening() {
  return (
    <View style={styles.opening}>
      <Words>Opening the run …</Words>
    </View>
  );
}

/** Draws the runs that have no picture yet, one after the other: a worker reads them again. */
function useMissingPictures(runs: readonly Run[] | null): void {
  const store = useRunStore();
  const playing = useAppSelector((state) => state.session.playing);
  const [tried] = useState(() => new Set<string>());
  const missing = playing ? undefined : runs?.find((run) => !run.picture && !tried.has(run.id));
  useEffect(() => {
    if (!missing) return;
    tried.add(missing.id);
    // One that cannot be read says so when it is opened.
    void drawRun(missing, store).catch(() => undefined);
  }, [missing, store, tried]);
}

/** Opens a run, and closes it when another one is wanted or the place is left. */
function useOpened(run: Run | null): OpenedRun | null {
  const store = useRunStore();
  const dispatch = useAppDispatch();
  const [opened, setOpened] = useState<OpenedRun | null>(null);
  const id = run?.id;
  useEffect(() => {
    if (!run) return undefined;
    let isWanted = true;
    let open: OpenedRun | null = null;
    OpenedRun.open(run, store).then(
      (found) => {
        if (!isWanted) return found.close();
        open = found;
        found.onTrouble = (error) => {
          const reason = error instanceof Error ? error.message : String(error);
          dispatch(noticed(`What you put right could not be stored (${reason}). Free some space: the next fix stores it again.`)); // prettier-ignore
        };
        setOpened(found);
        return undefined;
      },
      (error: unknown) => {
        if (!isWanted) return;
        dispatch(runOpened(null));
        dispatch(noticed(`This run cannot be opened. ${error instanceof Error ? error.message : String(error)}`));
      },
    );
    return () => {
      isWanted = false;
      open?.close();
      setOpened(null);
    };
    // Its name and mark may change while it lies open.
  }, [id]); // eslint-disable-line react-hooks/exhaustive-deps
  return opened?.run.id === id ? opened : null;
}

const styles = StyleSheet.create({
  place: { flex: 1, minHeight: 0 },
  row: { flexDirection: 'row' },
  list: { width: 340 },
  view: { flex: 1, minWidth: 0 },
  opening: { padding: 16 },
});
