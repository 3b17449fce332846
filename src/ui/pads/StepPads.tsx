import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { stepWords } from '@/core/edit/steps';
import { lanesOf } from '@/core/document/lanes';
import { passOf } from '@/core/sequence/soundingHits';
import { padPage, pressPadStep } from '@/instrument/padSteps';
import { selectSet, selectTrack } from '@/store/selectors';
import { laneChosen, padPageTurned, padStepsToggled, selectStepTicks } from '@/store/stepsSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { PadBoard } from './PadBoard';
import { KEY_VELOCITY } from './PadGrid';
import { strikeVelocity } from './strike';

/** Above the pads while they are steps: of which sound, of which bar. */
export function StepPadsBar() {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const shown = useAppSelector((state) => JSON.stringify(pageOf(padPage(state))));
  const pads = lanesOf(useAppSelector(selectTrack));
  const pad = useAppSelector((state) => state.steps.pad);
  const on = useAppSelector((state) => state.steps.padSteps !== null);
  if (!on) return null;
  const page = JSON.parse(shown) as ReturnType<typeof pageOf>;
  return (
    <View role="group" aria-label="Steps on the pads" style={styles.bar}>
      <Choice
        label="Steps of"
        caption="Steps of"
        value={String(pad)}
        options={pads.map(({ name }, i) => ({ value: String(i), name }))}
        onChoose={(value) => dispatch(laneChosen({ pad: Number(value) }))}
        grow
        style={styles.sound}
      />
      <ControlButton
        label="Bar left"
        icon="arrow-left"
        disabled={!page || page.index === 0}
        onPress={() => page && dispatch(padPageTurned(page.index - 1))}
      />
      <View style={[styles.place, { backgroundColor: tokens.slate }]}>
        <Text style={[styles.caption, { color: tokens.cap }]}>{page ? `of ${page.count}` : 'No pattern'}</Text>
        <Text role="status" aria-label="Bar on the pads" style={[styles.number, { color: tokens.wing }]}>
          {page ? page.index + 1 : '–'}
        </Text>
      </View>
      <ControlButton
        label="Bar right"
        icon="arrow-right"
        disabled={!page || page.index === page.count - 1}
        onPress={() => page && dispatch(padPageTurned(page.index + 1))}
      />
      <ControlButton label="Pads again" text="Pads" onPress={() => dispatch(padStepsToggled())} />
    </View>
  );
}

function pageOf(shown: ReturnType<typeof padPage>) {
  return shown && { index: shown.index, count: shown.count };
}

/** The sixteen pads as the steps of one bar of one sound: pad 1 is the first. Pressed, a step fills or empties while it plays. */
export function StepPads() {
  const tokens = useTokens();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { performance } = instrument;
  const pattern = useAppSelector((state) => padPage(state)?.pattern ?? null);
  // Drawn anew when another page is turned to.
  useAppSelector((state) => padPage(state)?.index);
  const pad = useAppSelector((state) => state.steps.pad);
  const step = useAppSelector(selectStepTicks);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const fixed = useAppSelector((state) => state.settings.fixedVelocity);
  const pads = lanesOf(useAppSelector(selectTrack));
  const grid = useRef<HTMLDivElement>(null);
  const lit = useRef(-1);
  const page = padPage(store.getState())?.page ?? null;

  useFrame((now) => {
    const tick = performance.positionAt(playing ? performance.tickHeard(now) : performance.anchor.tick);
    const at = page && playing ? Math.floor((tick - page.start) / step) : -1;
    if (at === lit.current) return;
    const mark = (i: number, on: boolean) => {
      const element = grid.current?.querySelector<HTMLElement>(`[data-step="${i}"]`);
      if (element) element.style.outline = on ? `3px solid ${tokens.wing}` : '';
    };
    mark(lit.current, false);
    mark(at, true);
    lit.current = at;
  }, playing);

  const hits = pattern ? passOf(pattern).sounding.filter((hit) => hit.pad === pad) : [];
  return (
    <PadBoard label="Step pads" ref={grid}>
      {(i) => {
        const there = page !== null && i < page.steps;
        const tick = (page?.start ?? 0) + i * step;
        const hit = there ? hits.find((h) => h.tick >= tick && h.tick < tick + step) : undefined;
        return (
          <div
            role="button"
            tabIndex={there ? 0 : -1}
            data-step={i}
            aria-label={there ? `${pads[pad]!.name} ${stepWords(tick, step, meter)}` : `No step ${i + 1}`}
            aria-pressed={hit !== undefined}
            aria-disabled={!there}
            aria-description={hit ? `velocity ${Math.round(hit.velocity * 127)}` : undefined}
            style={{
              ...padBox,
              background: tokens.slate,
              opacity: there ? 1 : 0.3,
              borderTop: `3px solid ${(i * step) % (step * 4) === 0 ? tokens.cap : 'transparent'}`,
            }}
            onPointerDown={(event) => {
              if (event.pointerType === 'mouse' && event.button !== 0) return;
              const box = event.currentTarget.getBoundingClientRect();
              const place = {
                x: (event.clientX - box.left) / box.width,
                y: (event.clientY - box.top) / box.height,
              };
              const velocity = fixed.on ? fixed.value : strikeVelocity({ ...place, pressure: event.pressure });
              pressPadStep(store, instrument, i, velocity);
            }}
            onKeyDown={(event) => {
              if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return;
              event.preventDefault();
              pressPadStep(store, instrument, i, fixed.on ? fixed.value : KEY_VELOCITY);
            }}
          >
            {hit && <div style={{ ...fillBox, height: `${20 + 80 * hit.velocity}%`, background: tokens.breast }} />}
            <Text style={[styles.step, { color: hit ? tokens.onBreast : tokens.wing }]}>{i + 1}</Text>
          </div>
        );
      }}
    </PadBoard>
  );
}

const padBox = { position: 'relative', flex: 1, minWidth: 0, borderRadius: RADIUS, overflow: 'hidden', touchAction: 'none', userSelect: 'none', cursor: 'pointer', boxSizing: 'border-box', outlineOffset: -3 } as const; // prettier-ignore
const fillBox = { position: 'absolute', left: 0, right: 0, bottom: 0, pointerEvents: 'none' } as const;

const styles = StyleSheet.create({
  bar: { flexDirection: 'row', gap: 4, flex: 1, minWidth: 0 },
  sound: { flexGrow: 1, minWidth: 110 },
  place: { minWidth: 54, borderRadius: RADIUS, alignItems: 'center', justifyContent: 'center' },
  caption: { fontFamily: WORDS, fontSize: grown(13), lineHeight: grown(15) },
  number: { fontFamily: NUMBERS, fontSize: grown(16), lineHeight: grown(22) },
  step: { position: 'absolute', left: 8, bottom: 6, fontFamily: NUMBERS, fontSize: grown(14) },
});
