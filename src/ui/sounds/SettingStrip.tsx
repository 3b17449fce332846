import { useRef } from 'react';
import { StyleSheet, View, type TextInput, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { NUMBER_NAMES, type NumberSetting } from '@/core/document/sound';
import { ownValue } from '@/core/shelf/ownValues';
import { soundNumberSet } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { SLIDER_STEPS } from '../shared/sliderKeys';
import { TypedNumber } from '../shared/TypedNumber';
import { gestureName, useDrag, type DragPoint } from '../shared/useDrag';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { numberText, rangeOf, settingNow, shareOf, stepped, STRIPS, tidy, valueAt } from './settingWords';
import type { ShownSound } from './useSound';

/** A second touch within so many ms, and no further than so many px away, is one double touch. */
const DOUBLE_MS = 350;
const DOUBLE_PX = 24;

interface DragState {
  gesture: string;
  /** It began as a double touch: until it surely moves, the value stays the sound's own. */
  isDouble: boolean;
}

/** One number of a sound as a wide strip: touched, dragged, stepped or typed; a double touch gives it back to the sound. */
export function SettingStrip({ setting, sound }: { setting: NumberSetting; sound: ShownSound }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const input = useRef<TextInput>(null);
  const last = useRef({ at: -Infinity, x: 0, gesture: '' });
  const { track, pad, source, settings } = sound;
  const facts = STRIPS[setting];
  const label = NUMBER_NAMES[setting];
  const own = ownValue(source, setting, sound.own);
  const value = settingNow(setting, source, settings);
  const { number, unit } = facts.shown(value, source);
  const text = numberText(setting, number);
  const { min, max } = rangeOf(setting, source);

  const set = (next: number | null, gesture: string) => {
    const wanted = next === null || next === own ? null : next;
    if ((wanted ?? own) !== value) dispatch(soundNumberSet({ track, pad, setting, value: wanted, gesture }));
  };
  const follow = ({ x, width }: DragPoint, gesture: string) => set(valueAt(setting, x / width, source), gesture);
  const dragging = useDrag<DragState>({
    begin: (at) => {
      const before = last.current;
      const isDouble = at.timeStamp - before.at < DOUBLE_MS && Math.abs(at.x - before.x) < DOUBLE_PX;
      const gesture = isDouble ? before.gesture : gestureName(setting);
      last.current = isDouble ? { ...before, at: -Infinity } : { at: at.timeStamp, x: at.x, gesture };
      if (isDouble) set(null, gesture);
      else follow(at, gesture);
      return { gesture, isDouble };
    },
    move: (at, drag) => {
      if (drag.isDouble && Math.abs(at.dx) < DOUBLE_PX) return;
      drag.isDouble = false;
      if (at.dx !== 0) follow(at, drag.gesture);
    },
  });
  const onKeyDown = (event: { key: string; preventDefault: () => void }) => {
    const steps = SLIDER_STEPS[event.key];
    const end = event.key === 'Home' ? min : event.key === 'End' ? max : null;
    if (event.key === 'Delete' || event.key === 'Backspace') set(null, gestureName(setting));
    else if (steps !== undefined) set(stepped(setting, value, steps, source), gestureName(setting));
    else if (end !== null) set(end, gestureName(setting));
    else return;
    event.preventDefault();
  };
  const type = (typed: string) => {
    const read = Number(typed.replace(',', '.').replace(/[^0-9.eE+-]/g, ''));
    if (typed.trim() === '' || !Number.isFinite(read)) return;
    const next = facts.read(read, source, unit);
    if (Number.isFinite(next)) set(tidy(setting, next, source), gestureName(setting));
  };
  return (
    <View style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}>
      <View
        style={[styles.fill, { width: `${shareOf(setting, value, source) * 100}%`, backgroundColor: tokens.breast }]}
      />
      {/* Where the sound itself has it. */}
      <View style={[styles.own, { left: `${shareOf(setting, own, source) * 100}%`, backgroundColor: tokens.cap }]} />
      <View
        {...dragging()}
        {...{ onKeyDown }}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={rounded(facts.shown(min, source).number)}
        aria-valuemax={rounded(facts.shown(max, source).number)}
        aria-valuenow={rounded(number)}
        aria-valuetext={[text, unit].filter(Boolean).join(' ')}
        style={styles.touch}
      />
      <Text numberOfLines={1} aria-hidden style={[styles.label, { color: tokens.wing, backgroundColor: tokens.slate }]}>
        {label}
      </Text>
      <View style={[styles.value, { backgroundColor: tokens.slate }]}>
        <TypedNumber
          ref={input}
          label={`${label} number`}
          value={rounded(number)}
          min={rounded(facts.shown(min, source).number)}
          max={rounded(facts.shown(max, source).number)}
          text={text}
          valueText={[text, unit].filter(Boolean).join(' ')}
          onType={type}
          onStep={(steps) => set(stepped(setting, value, steps, source), gestureName(setting))}
          ownPress
          style={[styles.number, { color: tokens.wing, width: 14 + 9 * Math.max(3, text.length) }]}
        />
        {unit !== '' && (
          <Text aria-hidden style={[styles.unit, { color: tokens.cap }]}>
            {unit}
          </Text>
        )}
      </View>
    </View>
  );
}

const rounded = (number: number) => Math.round(number * 100) / 100;

const styles = StyleSheet.create({
  strip: {
    height: TOUCH + 2,
    borderRadius: RADIUS,
    borderWidth: 1,
    overflow: 'hidden',
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    paddingHorizontal: 8,
  },
  touch: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, touchAction: 'none', cursor: 'pointer' } as ViewStyle, // prettier-ignore
  fill: { position: 'absolute', left: 0, top: 0, bottom: 0, pointerEvents: 'none' },
  own: { position: 'absolute', top: 0, bottom: 0, width: 2, marginLeft: -1, pointerEvents: 'none' },
  label: {
    fontFamily: WORDS,
    fontSize: grown(16),
    paddingHorizontal: 6,
    borderRadius: 6,
    flexShrink: 1,
    pointerEvents: 'none',
    userSelect: 'none',
  },
  value: {
    flexDirection: 'row',
    alignItems: 'center',
    borderRadius: 6,
    paddingHorizontal: 6,
    gap: 4,
    pointerEvents: 'box-none',
  },
  number: { fontFamily: NUMBERS, fontSize: grown(13), height: TOUCH, textAlign: 'right' },
  unit: { fontFamily: WORDS, fontSize: grown(15), userSelect: 'none', pointerEvents: 'none' },
});
