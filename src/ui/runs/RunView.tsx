import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { SOUND, type Run } from '@/core/document/run';
import type { OpenedRun } from '@/instrument/openedRun';
import { runOpened } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { CarryPanel } from '../carry/CarryPanel';
import { useCarry } from '../carry/useCarry';
import { ControlButton } from '../shared/ControlButton';
import { PopMenu } from '../shared/PopMenu';
import { useSharesRoom } from '../shared/PaneContext';
import { Words } from '../shared/Words';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { WORDS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { FixKeys } from './FixKeys';
import { MakeKeys } from './MakeKeys';
import { RunAbout } from './RunAbout';
import { runFacts } from './runFacts';
import { RunKeys } from './RunKeys';
import { RunTimeline } from './RunTimeline';
import { RunWhole } from './RunWhole';
import { useRunStore } from './RunsContext';
import { ScoreView } from './scoreView';
import { stretchWords, useRunDesk } from './useRunDesk';

/** Bars that are seen of a run that was just opened. */
const FIRST_BARS = 16;

/** On a screen lower than this the timeline needs the room of the small picture, px. */
const LOW = 640;

/** One run: the whole of it in small, the stretch that is looked at, and what can be done with it. */
export function RunView({ run, opened }: { run: Run; opened: OpenedRun }) {
  useSyncExternalStore(opened.subscribe, opened.version);
  const { score } = opened;
  const desk = useRunDesk(opened);
  const { stretch } = desk;
  const carry = useCarry(opened, stretch, stretch ? `${run.name} - ${stretchWords(stretch, score)}` : run.name);
  const [about, setAbout] = useState(false);
  const view = useMemo(() => new ScoreView(score.length), [opened]); // eslint-disable-line react-hooks/exhaustive-deps -- it follows the length below
  useEffect(() => {
    const bar = score.length / Math.max(1, Math.round(score.length / 3840));
    view.show(0, FIRST_BARS * bar);
  }, [view]); // eslint-disable-line react-hooks/exhaustive-deps
  useEffect(() => view.fit(score.length), [view, score.length]);
  const { layout, height } = useRoom();
  const low = layout === 'lying' || height < LOW;
  // There what is made takes the place of the keys below, and how loud it is that of the timeline.
  const { now } = carry;
  const carries = low && now !== null;
  const reports = low && now?.state === 'made' && now.loudness !== null;
  return (
    <View role="region" aria-label={run.name} style={styles.view}>
      <Head run={run} about={about} onAbout={() => setAbout(!about)} />
      {about && <RunAbout run={run} />}
      {run.sound !== SOUND && <Words>It was played with another version of the sounds, and may sound different.</Words>}
      {!low && <RunWhole opened={opened} view={view} />}
      {!reports && <RunTimeline opened={opened} view={view} desk={desk} />}
      <CarryPanel carry={carry} />
      <RunKeys opened={opened} view={view} desk={desk} carry={carry} />
      {desk.fixing && <FixKeys opened={opened} desk={desk} />}
      {!desk.fixing && !carries && <MakeKeys opened={opened} desk={desk} />}
    </View>
  );
}

function Head({ run, about, onAbout }: { run: Run; about: boolean; onAbout: () => void }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const store = useRunStore();
  const shares = useSharesRoom();
  const wide = useRoom().layout === 'wide' && !shares;
  const { name, marked } = run;
  const items = [
    { title: marked ? 'Keep no longer' : 'Keep', act: () => void store.change(run, { marked: !marked }) },
    { title: about ? 'Close name and note' : 'Name and note', act: onAbout },
    {
      title: 'Delete',
      ruled: true,
      act: () => {
        dispatch(runOpened(null));
        void store.remove(run);
      },
    },
  ];
  return (
    <View style={styles.head}>
      {!wide && <ControlButton label="All runs" icon="arrow-left" onPress={() => dispatch(runOpened(null))} />}
      <View style={styles.titles}>
        <Text role="heading" aria-level={2} numberOfLines={1} style={[styles.name, { color: tokens.wing }]}>
          {name}
          {marked ? ' · kept' : ''}
        </Text>
        <Text numberOfLines={1} style={[styles.facts, { color: tokens.cap }]}>
          {runFacts(run)}
        </Text>
      </View>
      <PopMenu label="Run menu" icon="dots-horizontal" items={items} />
    </View>
  );
}

const styles = StyleSheet.create({
  view: { flex: 1, minHeight: 0, paddingHorizontal: 8, paddingTop: 4, paddingBottom: 4, gap: 4 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  titles: { flex: 1, minWidth: 0 },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(20), lineHeight: grown(25) },
  facts: { fontFamily: WORDS, fontSize: grown(15), lineHeight: grown(19) },
});
