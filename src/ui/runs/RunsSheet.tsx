import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { SOUND, type Run } from '@/core/document/run';
import { MOST_RUNS } from '@/storage/runStore';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { NameField } from '../shared/NameField';
import { Sheet } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';
import { runFacts } from './runFacts';
import { useRuns, useRunStore } from './RunsContext';

/** Captured performances: each can be heard again, named, kept for good, or deleted. */
export function RunsSheet() {
  const store = useRunStore();
  const runs = useRuns();
  const { heard, listen, stop } = useListening();
  /** Deleted since the sheet was opened. */
  const [deleted, setDeleted] = useState<Run[]>([]);
  const remove = (run: Run) => {
    if (heard === run.id) stop();
    void store.remove(run).then(() => setDeleted((all) => [run, ...all]));
  };
  const bringBack = (run: Run) => {
    void store.bringBack(run).then(() => setDeleted((all) => all.filter(({ id }) => id !== run.id)));
  };
  const letters = runs?.reduce((sum, run) => sum + run.letters, 0) ?? 0;
  return (
    <Sheet title="Runs" about="All that you play is captured, from the first sound until you stop.">
      {runs?.length === 0 && <Words>There is none yet: play something.</Words>}
      {runs !== null && runs.length > 0 && (
        <Words>{`The last ${MOST_RUNS} stay, and those that you keep. They take ${Math.ceil(letters / 1000)} kB.`}</Words>
      )}
      {deleted.map((run) => (
        <KeyRow
          key={run.id}
          keys={[{ label: `Bring back ${run.name}`, text: `Bring back “${run.name}”`, act: () => bringBack(run) }]}
        />
      ))}
      {runs?.map((run) => (
        <RunCard
          key={run.id}
          run={run}
          isHeard={heard === run.id}
          onListen={() => (heard === run.id ? stop() : listen(run))}
          onRemove={() => remove(run)}
        />
      ))}
    </Sheet>
  );
}

/** The id of the run that is heard, if one is; how to hear one, and how to end it. The song stops for it. */
function useListening() {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const store = useRunStore();
  const [heard, setHeard] = useState<string | null>(null);
  useEffect(() => () => store.silence(), [store]);
  const end = (problem?: string) => {
    setHeard(null);
    if (problem !== undefined) dispatch(noticed(`This run cannot be played. ${problem}`));
  };
  const listen = (run: Run) => {
    instrument.rest();
    setHeard(run.id);
    store.listen(run, end);
  };
  const stop = () => {
    store.silence();
    setHeard(null);
  };
  return { heard, listen, stop };
}

interface CardProps {
  run: Run;
  isHeard: boolean;
  onListen: () => void;
  onRemove: () => void;
}

function RunCard({ run, isHeard, onListen, onRemove }: CardProps) {
  const tokens = useTokens();
  const store = useRunStore();
  const { name, marked } = run;
  const keys = [
    {
      label: isHeard ? `Stop ${name}` : `Listen to ${name}`,
      text: isHeard ? 'Stop' : 'Listen',
      pressed: isHeard,
      act: onListen,
    },
    { label: `Keep ${name}`, text: 'Keep', pressed: marked, act: () => void store.change(run, { marked: !marked }) },
    { label: `Delete ${name}`, text: 'Delete', act: onRemove },
  ];
  return (
    <View role="group" aria-label={name} style={[styles.card, { backgroundColor: tokens.deep }]}>
      <Text style={[styles.name, { color: tokens.wing }]}>{name}</Text>
      <Words>
        {`${new Date(run.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })} · ${runFacts(run)}`}
      </Words>
      {run.sound !== SOUND && <Words>It was played with another version of the sounds, and may sound different.</Words>}
      <KeyRow keys={keys} />
      <NameField
        key={name}
        label={`Name of ${name}`}
        name={name}
        onName={(typed) => void store.change(run, { name: typed })}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderRadius: RADIUS, padding: 12, gap: 8 },
  name: { fontFamily: WORDS_STRONG, fontSize: 19, lineHeight: 24 },
});
