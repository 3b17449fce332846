import { usePathname } from 'expo-router';
import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { shallowEqual } from 'react-redux';
import { GUIDE_STEPS, guideLeft, guideWentOn, type GuideStep } from '@/store/guideSlice';
import { foldSet, type Fold } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { selectPattern, selectSet } from '@/store/selectors';
import { ControlButton } from '../shared/ControlButton';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { NUMBERS, WORDS } from '../theme/tokens';
import { adviceFor, isDone, situationOf, type Advice } from './guideWords';
import { SENTENCE_ID } from './Meant';
import { grown } from '../theme/type';

/** What lies in a fold of the screen is unfolded for the steps that need it. */
const FOLDS: Partial<Record<GuideStep, Fold>> = { tempo: 'time', click: 'time', countIn: 'time', tidy: 'tools' };
/** A learner who tries one value after another, or still plays, is not hurried on, ms. */
const PAUSE_MS: Partial<Record<GuideStep, number>> = {
  tempo: 1500,
  countIn: 1500,
  kick: 1200,
  snare: 1200,
  hats: 1200,
};

/** What the guide says now, or null while nobody is led. */
export function useAdvice(): Advice | null {
  const place = usePathname();
  return useAppSelector((state) => {
    const { step } = state.guide;
    return step && adviceFor(step, situationOf(state, place));
  }, shallowEqual);
}

/** The guide: one sentence at a time, and the control it means lit. It follows what the learner does. */
export function Guide({ advice }: { advice: Advice }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { layout } = useRoom();
  const step = useStep();
  const { control } = advice;
  useEffect(() => {
    document.querySelector('[data-meant]')?.scrollIntoView({ block: 'nearest' });
  }, [control]);
  if (step === null) return null;
  const last = step === GUIDE_STEPS[GUIDE_STEPS.length - 1];
  return (
    <View
      role="region"
      aria-label="Guide"
      style={[
        styles.strip,
        layout === 'lying' && styles.low,
        { backgroundColor: tokens.slate, borderColor: tokens.straw },
      ]}
    >
      <Text style={[styles.count, { color: tokens.cap }]}>
        {GUIDE_STEPS.indexOf(step) + 1}/{GUIDE_STEPS.length}
      </Text>
      <Text
        id={SENTENCE_ID}
        role="status"
        aria-live="polite"
        style={[styles.words, layout === 'wide' && styles.large, { color: tokens.wing }]}
      >
        {advice.words}
      </Text>
      {!last && <ControlButton label="Next" text="Next" onPress={() => dispatch(guideWentOn(step))} />}
      <ControlButton label="Leave guide" icon="close" onPress={() => dispatch(guideLeft())} />
    </View>
  );
}

/** The guide's step. What the learner does leads on to the next. */
function useStep(): GuideStep | null {
  const dispatch = useAppDispatch();
  const place = usePathname();
  const step = useAppSelector((state) => state.guide.step);
  const done = useAppSelector((state) => step !== null && isDone(step, situationOf(state, place)));
  // Each of these that changes begins the pause anew.
  const tempo = useAppSelector((state) => selectSet(state).tempo);
  const countIn = useAppSelector((state) => selectSet(state).countIn);
  const hits = useAppSelector((state) => selectPattern(state).hits.length);
  useEffect(() => {
    if (step === null || !done) return undefined;
    const timer = setTimeout(() => dispatch(guideWentOn(step)), PAUSE_MS[step] ?? 0);
    return () => clearTimeout(timer);
  }, [dispatch, step, done, tempo, countIn, hits]);
  useEffect(() => {
    if (step === null) return undefined;
    const fold = FOLDS[step];
    if (fold === undefined) return undefined;
    dispatch(foldSet({ fold, open: true }));
    return () => void dispatch(foldSet({ fold, open: false }));
  }, [dispatch, step]);
  return step;
}

const styles = StyleSheet.create({
  strip: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    minHeight: 56,
    paddingLeft: 10,
    paddingRight: 4,
    paddingVertical: 4,
    borderTopWidth: 2,
    borderBottomWidth: 2,
  },
  low: { minHeight: 48, paddingVertical: 0 },
  count: { fontFamily: NUMBERS, fontSize: grown(12), lineHeight: grown(16) },
  words: { fontFamily: WORDS, fontSize: grown(17), lineHeight: grown(20), letterSpacing: 0.2, flex: 1 },
  large: { fontSize: grown(20), lineHeight: grown(25) },
});
