import { useRef, type ReactNode } from 'react';
import { StyleSheet, View, type TextInput, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { SLIDER_STEPS } from './sliderKeys';
import { TypedNumber } from './TypedNumber';
import { gestureName, useDrag, type DragPoint } from './useDrag';

/** A second touch within so many ms, and no further than so many px away, is one double touch. */
const DOUBLE_MS = 350;
const DOUBLE_PX = 24;

interface DragState {
  gesture: string;
  /** It began as a double touch: until it surely moves, the value stays the sound's own. */
  isDouble: boolean;
}

/** How the values of a strip lie along it, and how they are shown, typed and stepped. */
export interface ValueScale {
  min: number;
  max: number;
  /** Where on the strip a value lies, 0..1, and the value at a place. */
  share: (value: number) => number;
  at: (share: number) => number;
  /** So many steps of the keys further. */
  stepped: (value: number, steps: number) => number;
  /** The number that is shown and typed, with its unit; and as a text. */
  shown: (value: number) => { number: number; unit: string };
  text: (number: number) => string;
  /** Back again, within its bounds; `unit` is the one that is shown now. NaN: it is none. */
  read: (number: number, unit: string) => number;
}

interface Props {
  /** Accessible name, and what stands on the strip. */
  label: string;
  caption: string;
  value: number;
  /** Where it is by itself: a double touch takes it there. */
  own: number;
  scale: ValueScale;
  /** Null: as it is by itself. All changes of one gesture have the same name. */
  onSet: (value: number | null, gesture: string) => void;
  /** A gesture has ended. */
  onRelease?: () => void;
  /** Of what is filled. */
  colour?: string;
  /** What lies upon it, as where it is moved now. */
  mark?: ReactNode;
}

/** A number as a wide strip: touched, dragged, stepped or typed; a double touch brings it back to where it is by itself. */
export function ValueStrip({ label, caption, value, own, scale, onSet, onRelease, colour, mark }: Props) {
  const tokens = useTokens();
  const input = useRef<TextInput>(null);
  const last = useRef({ at: -Infinity, x: 0, gesture: '' });
  const { min, max } = scale;
  const { number, unit } = scale.shown(value);
  const text = scale.text(number);

  const set = (next: number | null, gesture: string) => {
    const wanted = next === null || next === own ? null : next;
    if ((wanted ?? own) !== value) onSet(wanted, gesture);
  };
  const follow = ({ x, width }: DragPoint, gesture: string) => set(scale.at(x / width), gesture);
  const dragging = useDrag<DragState>({
    begin: (at) => {
      const before = last.current;
      const isDouble = at.timeStamp - before.at < DOUBLE_MS && Math.abs(at.x - before.x) < DOUBLE_PX;
      const gesture = isDouble ? before.gesture : gestureName(label);
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
    end: () => onRelease?.(),
  });
  const onKeyDown = (event: { key: string; preventDefault: () => void }) => {
    const steps = SLIDER_STEPS[event.key];
    const end = event.key === 'Home' ? min : event.key === 'End' ? max : null;
    if (event.key === 'Delete' || event.key === 'Backspace') set(null, gestureName(label));
    else if (steps !== undefined) set(scale.stepped(value, steps), gestureName(label));
    else if (end !== null) set(end, gestureName(label));
    else return;
    onRelease?.();
    event.preventDefault();
  };
  const type = (typed: string) => {
    const read = Number(typed.replace(',', '.').replace(/[^0-9.eE+-]/g, ''));
    if (typed.trim() === '' || !Number.isFinite(read)) return;
    const next = scale.read(read, unit);
    if (Number.isFinite(next)) set(next, gestureName(label));
    onRelease?.();
  };
  return (
    <View style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}>
      <View
        style={[styles.fill, { width: `${scale.share(value) * 100}%`, backgroundColor: colour ?? tokens.breast }]}
      />
      {/* Where it is by itself. */}
      <View style={[styles.own, { left: `${scale.share(own) * 100}%`, backgroundColor: tokens.cap }]} />
      {mark}
      <View
        {...dragging()}
        {...{ onKeyDown }}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={rounded(scale.shown(min).number)}
        aria-valuemax={rounded(scale.shown(max).number)}
        aria-valuenow={rounded(number)}
        aria-valuetext={[text, unit].filter(Boolean).join(' ')}
        style={styles.touch}
      />
      <Text numberOfLines={1} aria-hidden style={[styles.label, { color: tokens.wing, backgroundColor: tokens.slate }]}>
        {caption}
      </Text>
      <View style={[styles.value, { backgroundColor: tokens.slate }]}>
        <TypedNumber
          ref={input}
          label={`${label} number`}
          value={rounded(number)}
          min={rounded(scale.shown(min).number)}
          max={rounded(scale.shown(max).number)}
          text={text}
          valueText={[text, unit].filter(Boolean).join(' ')}
          onType={type}
          onStep={(steps) => {
            set(scale.stepped(value, steps), gestureName(label));
            onRelease?.();
          }}
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
