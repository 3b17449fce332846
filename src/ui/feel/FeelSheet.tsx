import { counted } from '@/core/counted';
import { useInstrument } from '../shared/InstrumentContext';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { narrower, newlyCovered, treated, type Scope, type Treatment } from '@/core/edit/treat';
import { lanesOf } from '@/core/document/lanes';
import { offsetsMs } from '@/core/sequence/earlyLate';
import type { Feel } from '@/core/quantize/feel';
import { gridTicks } from '@/core/quantize/grid';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { compared } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { PatternPicture } from '../pads/PatternPicture';
import { Below } from '../shared/Below';
import { ControlButton } from '../shared/ControlButton';
import { HoldButton } from '../shared/HoldButton';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS } from '../theme/tokens';
import { EarlyLate } from './EarlyLate';
import { LoudnessControls } from './LoudnessControls';
import { Suggestions } from './Suggestions';
import { TimingControls } from './TimingControls';
import type { Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';
import { narrowerCleared, treatmentSet } from '@/store/patternsSlice';
import { grown } from '../theme/type';

/** Low, so that the controls are in sight with the picture; a lane alone has more room. */
const LANE_PX = 24;

/** Feel: timing and loudness as treatments that can be changed or taken away at any time, with the picture of what was played. */
export function FeelSheet() {
  const dispatch = useAppDispatch();
  const pattern = useAppSelector(selectPattern);
  return (
    <Sheet
      title="Feel"
      about="How early, late and loud you played, and how much of it is put right."
      action={
        <HoldButton
          label="As played"
          text="Hold: as played"
          disabled={!pattern}
          onHold={(held) => dispatch(compared(held))}
        />
      }
    >
      {pattern ? <FeelOf pattern={pattern} /> : <Words>There is no pattern to treat.</Words>}
    </Sheet>
  );
}

function FeelOf({ pattern }: { pattern: Pattern }) {
  const dispatch = useAppDispatch();
  const pads = lanesOf(useAppSelector(selectTrack));
  const { tempo, inputQuantize, meter } = useAppSelector(selectSet);
  const instrument = useInstrument();
  const [scope, setScope] = useState<Scope>({ kind: 'pattern' });
  /** A Feel that would cover hits: looked at before it is taken. */
  const [preview, setPreview] = useState<Feel | null>(null);

  const used = useMemo(() => [...new Set(pattern.hits.map((hit) => hit.pad))].sort((a, b) => a - b), [pattern]);
  const within = useMemo(() => hitsOf(pattern, scope), [pattern, scope]);
  const selected = useMemo(() => new Set(scope.kind === 'hits' ? scope.ids : []), [scope]);
  const shown = preview ? treated(pattern, scope, { feel: preview }) : pattern;
  const own = ownTreatment(pattern, scope);
  const grid = gridTicks(inputQuantize.grid);
  const set = (treatment: Treatment, gesture?: string) =>
    dispatch(treatmentSet({ place: instrument.placeOf(gesture), scope, treatment, ...(gesture && { gesture }) }));
  const choose = (next: Scope) => {
    setScope(next);
    setPreview(null);
  };
  const setFeel = (feel: Feel | undefined, gesture?: string) => {
    setPreview(null);
    set({ feel }, gesture);
  };
  const chooseGrid = (feel: Feel) => (newlyCovered(pattern, scope, feel) > 0 ? setPreview(feel) : setFeel(feel));
  const name =
    scope.kind === 'lane' ? pads[scope.pad]!.name : scope.kind === 'hits' ? `${within.length} chosen` : 'All';

  const suggestions = (
    <Suggestions
      pattern={pattern}
      scope={scope}
      pads={pads}
      tempo={tempo}
      onUse={(pad, ticks) => {
        const feel = { ...(ownTreatment(pattern, { kind: 'lane', pad }).feel ?? { strength: 1 }), grid: ticks };
        setPreview(null);
        dispatch(
          treatmentSet({
            place: instrument.placeOf(),
            scope: scope.kind === 'hits' ? scope : { kind: 'lane', pad },
            treatment: { feel },
          }),
        );
      }}
    />
  );

  return (
    <>
      <View role="group" aria-label="Treat" style={styles.wrap}>
        <ControlButton
          label="Treat whole pattern"
          text="All"
          pressed={scope.kind === 'pattern'}
          onPress={() => choose({ kind: 'pattern' })}
        />
        {used.map((pad) => (
          <ControlButton
            key={pad}
            label={`Treat ${pads[pad]!.name}`}
            text={pads[pad]!.name}
            pressed={scope.kind === 'lane' && scope.pad === pad}
            onPress={() => choose({ kind: 'lane', pad })}
          />
        ))}
        {scope.kind === 'hits' && (
          <ControlButton
            label="Treat chosen hits"
            text={`${within.length} chosen`}
            pressed
            onPress={() => choose({ kind: 'pattern' })}
          />
        )}
      </View>
      <PatternPicture
        shown={shown}
        laneHeight={scope.kind === 'lane' ? 48 : LANE_PX}
        {...(scope.kind === 'lane' && { onlyPad: scope.pad })}
        selected={selected}
        onSelect={(ids) => choose(ids.length > 0 ? { kind: 'hits', ids } : { kind: 'pattern' })}
      />
      <Words>Draw a box around hits, or tap one, to treat these alone.</Words>
      {preview && (
        <Meeting
          count={newlyCovered(pattern, scope, preview)}
          onTake={() => setFeel(preview)}
          onLeave={() => setPreview(null)}
        />
      )}
      <SheetTitle>Timing</SheetTitle>
      {scope.kind !== 'pattern' && suggestions}
      <TimingControls
        feel={preview ?? own.feel}
        tempo={tempo}
        fallbackGrid={grid}
        coveredWith={(feel) => newlyCovered(pattern, scope, feel)}
        onGrid={chooseGrid}
        onFeel={setFeel}
      />
      <Below>
        {scope.kind === 'pattern' && suggestions}
        <Narrower
          count={narrower(pattern, scope, 'feel')}
          what="a Feel"
          onClear={() => dispatch(narrowerCleared({ place: instrument.placeOf(), scope, kind: 'feel' }))}
        />
        <SheetTitle>Early and late</SheetTitle>
        <EarlyLate name={name} offsets={offsetsMs(pattern, within, grid, tempo)} />
        <SheetTitle>Loudness</SheetTitle>
        <LoudnessControls
          loudness={own.loudness}
          meter={meter}
          onLoudness={(loudness, gesture) => set({ loudness }, gesture)}
        />
        <Narrower
          count={narrower(pattern, scope, 'loudness')}
          what="a loudness"
          onClear={() => dispatch(narrowerCleared({ place: instrument.placeOf(), scope, kind: 'loudness' }))}
        />
      </Below>
    </>
  );
}

/** Shows the effect of a coarser grid before it is applied. */
function Meeting({ count, onTake, onLeave }: { count: number; onTake: () => void; onLeave: () => void }) {
  const tokens = useTokens();
  const hits = counted(count, 'hit lands', 'hits land');
  return (
    <View role="alert" style={[styles.meeting, { borderColor: tokens.straw }]}>
      <Text style={[styles.words, { color: tokens.wing }]}>
        {hits} on a step that another hit of the pad holds, drawn as an outline. It stays silent there, is kept, and
        comes back with a finer grid.
      </Text>
      <View style={styles.wrap}>
        <ControlButton label="Use this grid anyway" text="Use this grid anyway" onPress={onTake} />
        <ControlButton label="Leave the grid as it is" text="Leave it" onPress={onLeave} />
      </View>
    </View>
  );
}

function Narrower({
  count,
  what,
  onClear,
}: {
  count: { lanes: number; hits: number };
  what: string;
  onClear: () => void;
}) {
  if (count.lanes + count.hits === 0) return null;
  const parts = [
    ...(count.lanes > 0 ? [count.lanes === 1 ? '1 lane' : `${count.lanes} lanes`] : []),
    ...(count.hits > 0 ? [counted(count.hits, 'hit')] : []),
  ].join(' and ');
  const verb = count.lanes + count.hits === 1 ? 'has' : 'have';
  return (
    <View style={styles.wrap}>
      <Words>
        {parts} in here {verb} {what} of {verb === 'has' ? 'its' : 'their'} own, which holds.
      </Words>
      <ControlButton label={`Let this hold for all (${what})`} text="Let this hold for all" onPress={onClear} />
    </View>
  );
}

function hitsOf(pattern: Pattern, scope: Scope): Hit[] {
  if (scope.kind === 'pattern') return pattern.hits;
  if (scope.kind === 'lane') return pattern.hits.filter((hit) => hit.pad === scope.pad);
  const ids = new Set(scope.ids);
  return pattern.hits.filter((hit) => ids.has(hit.id));
}

/** What is set for exactly this scope; of several hits, what the first one has. */
function ownTreatment(pattern: Pattern, scope: Scope): Treatment {
  if (scope.kind === 'pattern') return pattern;
  if (scope.kind === 'lane') return pattern.lanes?.find((lane) => lane.pad === scope.pad) ?? {};
  return hitsOf(pattern, scope)[0] ?? {};
}

const styles = StyleSheet.create({
  wrap: { flexDirection: 'row', flexWrap: 'wrap', gap: 4, alignItems: 'center' },
  words: { fontFamily: WORDS, fontSize: grown(16), lineHeight: grown(21), letterSpacing: 0.2 },
  meeting: { borderWidth: 2, borderRadius: RADIUS, padding: 10, gap: 8 },
});
