import { counted } from '@/core/counted';
import { usePatternEdit } from '../shared/usePatternEdit';
import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { FILL_SPANS, propose, withProposal, type FillSpan, type Idea } from '@/core/generate/propose';
import { createSelector } from '@reduxjs/toolkit';
import { accompany, PARTS, type Accompaniment, type PartKind } from '@/core/generate/accompany';
import { trackStage } from '@/core/document/stage';
import { STYLES, stylesAt, type StyleName } from '@/core/generate/styles';
import { lanesOf } from '@/core/document/lanes';
import { soundingHits } from '@/core/sequence/soundingHits';
import { selectPattern, selectSet, selectTrack, selectTracks } from '@/store/selectors';
import { noticed, proposalHeard } from '@/store/sessionSlice';
import { laneChosen, selectStepTicks } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector, type RootState } from '@/store/store';
import { PatternPicture } from '../pads/PatternPicture';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { Segments } from '../shared/Segments';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';
import { MAX_HITS } from '@/core/document/limits';
import { idsFrom, type Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';

const KINDS = [
  { value: 'style', name: 'Style' },
  { value: 'euclid', name: 'Spread' },
  { value: 'fill', name: 'Fill' },
  { value: 'hats', name: 'Hats' },
] as const;
/** Of notes: parts that go by another track, and pulses. */
const NOTE_KINDS = [{ value: 'bass', name: 'Bass' }, { value: 'chords', name: 'Chords' }, KINDS[1]] as const;
type Kind = Idea['kind'] | PartKind;
const isPart = (kind: Kind): kind is PartKind => (PARTS as readonly Kind[]).includes(kind);
const SPANS: { value: FillSpan; name: string }[] = FILL_SPANS.map((value) => ({
  value,
  name: { beat: 'Last beat', half: 'Last half bar', bar: 'Last bar' }[value],
}));
const WHOLE = 'kit';
const MOST_STEPS = 32;
/** Ids for hits that are only heard: no hit of a set comes near. */
const UNUSED_IDS = 2 ** 48 + 1;
const SEEDS_APART = 2654435761;
const NO_PART: Accompaniment = { hits: [], instead: [], words: '' };

/** The other tracks of notes, each with the pattern that it is on, if there is something in it. */
const selectAccompanied = createSelector(
  [selectTracks, selectTrack, (state: RootState) => state.stage],
  (tracks, shown, stage) =>
    tracks.flatMap((track) => {
      const pattern = track.patterns[trackStage(stage, track.id).slot];
      return track.tones && track.id !== shown.id && pattern && pattern.hits.length > 0 ? [{ track, pattern }] : [];
    }),
);

/** Starting points: offers a kit, a lane, a fill or hats, to be heard and then taken, or not. */
export default function GenerateSheet() {
  const pattern = useAppSelector(selectPattern);
  return (
    <Sheet title="Generate" about="A beginning for a pattern: hear what is offered before you take it.">
      {pattern ? <ForPattern pattern={pattern} /> : <Words>There is no pattern to fill.</Words>}
    </Sheet>
  );
}

function ForPattern({ pattern }: { pattern: Pattern }) {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const track = useAppSelector(selectTrack);
  const pads = lanesOf(track);
  // Styles, fills and hats are for drums.
  const { tones } = track;
  const others = useAppSelector(selectAccompanied);
  const [toId, setToId] = useState<number | null>(null);
  const accompanied = others.find(({ track: { id } }) => id === toId) ?? others[0];
  const { tempo, meter } = useAppSelector(selectSet);
  const pad = useAppSelector((state) => state.steps.pad);
  const step = useAppSelector(selectStepTicks);
  const hearing = useAppSelector((state) => state.session.proposal !== null);
  const [kind, setKind] = useState<Kind>(tones ? 'bass' : 'style');
  const [style, setStyle] = useState<StyleName>(() => stylesAt(tempo)[0]!);
  const [whole, setWhole] = useState(true);
  const [span, setSpan] = useState<FillSpan>('bar');
  const [spread, setSpread] = useState({ pulses: 5, steps: 16, rotation: 0 });
  const [seed, setSeed] = useState(1);
  const [locked, setLocked] = useState<number[]>([]);

  const sounds = useMemo(() => pads.flatMap(({ kind }) => (kind ? [kind] : [])), [pads]);
  const idea = useMemo((): Idea => {
    if (kind === 'style') return { kind, style, pad: whole ? null : pad };
    if (kind === 'fill') return { kind, span };
    return kind === 'hats' ? { kind } : { kind: 'euclid', pad, ...spread, step };
  }, [kind, style, whole, pad, spread, step, span]);
  const part = useMemo(() => {
    if (!isPart(kind) || !tones) return null;
    if (!accompanied) return NO_PART;
    const by = { pattern: accompanied.pattern, tones: accompanied.track.tones! };
    return accompany(kind, { pattern, tones, meter, locked, to: by }, seed * SEEDS_APART);
  }, [kind, pattern, tones, meter, locked, accompanied, seed]);
  const drums = useMemo(
    () => propose(idea, { pattern, meter, sounds, locked }, seed * SEEDS_APART),
    [idea, pattern, meter, sounds, locked, seed],
  );
  const proposal = part ?? drums;
  const preview = useMemo(() => withProposal(pattern, proposal, idsFrom(UNUSED_IDS)), [pattern, proposal]);
  useEffect(() => {
    if (hearing) dispatch(proposalHeard(preview));
  }, [hearing, preview, dispatch]);

  const edit = usePatternEdit();
  const take = () => {
    if (preview.hits.length > MAX_HITS) {
      return void dispatch(noticed(`There is no room: a pattern holds ${MAX_HITS} hits.`));
    }
    const newId = idsFrom(instrument.reserveIds(proposal.hits.length));
    const hits: Hit[] = proposal.hits.map((hit) => ({ ...hit, id: newId() }));
    dispatch(proposalHeard(null));
    edit({ kind: 'replace', ids: proposal.instead, hits });
    const gone = proposal.instead.length;
    dispatch(noticed(`Took ${counted(hits.length, 'hit')}${gone > 0 ? ` in the place of ${gone}` : ''}.`, true));
  };
  const lanes = [...new Set([...soundingHits(pattern), ...proposal.hits].map((hit) => hit.pad))].sort((a, b) => a - b);
  const changes = proposal.hits.length > 0 || proposal.instead.length > 0;
  const chosen = STYLES[style];
  const [from, to] = chosen.tempo;
  return (
    <>
      <Segments label="Generate" value={kind} options={tones ? NOTE_KINDS : KINDS} onChoose={setKind} />
      {part && accompanied && (
        <>
          <Choice
            label="Goes by"
            caption={kind === 'bass' ? 'Under the chords of' : 'Over the bass of'}
            value={String(accompanied.track.id)}
            options={others.map(({ track: { id, name }, pattern: { name: of } }) => ({ value: String(id), name: `${name} · ${of}` }))} // prettier-ignore
            onChoose={(id) => setToId(Number(id))}
          />
          <Words>{part.words}</Words>
        </>
      )}
      {part && !accompanied && (
        <Words>Play something on another track of notes first: a part goes by its chords, or by its bass.</Words>
      )}
      {kind === 'style' && (
        <>
          <Choice
            label="Style"
            caption="Style"
            value={style}
            options={stylesAt(tempo).map((name) => ({
              value: name,
              name: `${STYLES[name].name}, ${STYLES[name].tempo.join('–')}`,
            }))}
            onChoose={setStyle}
          />
          <Words>
            {`${chosen.feel}. At home from ${from} to ${to} BPM${tempo < from || tempo > to ? `; the set is at ${Math.round(tempo)}` : ''}.`}
          </Words>
        </>
      )}
      {(kind === 'style' || kind === 'euclid') && (
        <Choice
          label="For"
          caption="For"
          value={kind === 'style' && whole ? WHOLE : String(pad)}
          options={[
            ...(kind === 'style' ? [{ value: WHOLE, name: 'The whole kit' }] : []),
            ...pads.map(({ name }, i) => ({ value: String(i), name })),
          ]}
          onChoose={(value) => {
            setWhole(value === WHOLE);
            if (value !== WHOLE) dispatch(laneChosen({ pad: Number(value) }));
          }}
        />
      )}
      {kind === 'euclid' && (
        <>
          <Words>Pulses spread over steps as evenly as they can be.</Words>
          {(['pulses', 'steps', 'rotation'] as const).map((what) => (
            <Strip
              key={what}
              label={{ pulses: 'Pulses', steps: 'Steps in a turn', rotation: 'Rotation' }[what]}
              value={spread[what]}
              min={what === 'steps' ? 1 : 0}
              max={what === 'steps' ? MOST_STEPS : what === 'pulses' ? spread.steps : spread.steps - 1}
              step={1}
              scale={1}
              onChange={(value) => {
                const next = { ...spread, [what]: value };
                setSpread({
                  ...next,
                  pulses: Math.min(next.steps, next.pulses),
                  rotation: Math.min(next.steps - 1, next.rotation),
                });
              }}
            />
          ))}
        </>
      )}
      {kind === 'fill' && <Segments label="Fill" value={span} options={SPANS} onChoose={setSpan} />}
      <PatternPicture shown={preview} laneHeight={20} />
      <KeyRow
        keys={[
          { text: 'Another', disabled: kind === 'euclid', act: () => setSeed(seed + 1) },
          {
            text: hearing ? 'Hear the pattern' : 'Hear it',
            pressed: hearing,
            act: () => dispatch(proposalHeard(hearing ? null : preview)),
          },
        ]}
      />
      <ControlButton
        tone="primary"
        label="Take it"
        text={`Take it: ${counted(proposal.hits.length, 'hit')}${proposal.instead.length > 0 ? ` for ${proposal.instead.length}` : ''}`}
        disabled={!changes}
        onPress={take}
      />
      <SheetTitle>Keep as they are</SheetTitle>
      <View style={styles.locks}>
        {lanes.map((lane) => (
          <ControlButton
            key={lane}
            label={`Keep ${pads[lane]!.name}`}
            icon={locked.includes(lane) ? 'lock' : 'lock-open-variant-outline'}
            text={pads[lane]!.name}
            pressed={locked.includes(lane)}
            onPress={() => setLocked(locked.includes(lane) ? locked.filter((p) => p !== lane) : [...locked, lane])}
          />
        ))}
      </View>
    </>
  );
}

const styles = StyleSheet.create({ locks: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 } });
