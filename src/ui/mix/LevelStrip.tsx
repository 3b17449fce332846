import { useRef } from 'react';
import { StyleSheet, View, type TextInput, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { channelLevelSet } from '@/store/mixSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { mapMark } from '../shared/mapMark';
import { SLIDER_STEPS } from '../shared/sliderKeys';
import { TypedNumber } from '../shared/TypedNumber';
import { useDrag, type DragPoint } from '../shared/useDrag';
import { useTokens } from '../theme/theme';
import { FEATHERS, NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { MeterBar } from './MeterBar';
import type { ShownChannel } from './mixChannels';
import { LEVEL_SCALE } from './mixScales';
import { useMixTurn } from './useMixTurn';

/** A press this near to the foot, px, is meant for the meter: it resets its peak. */
const FOOT = 14;

interface Props {
  shown: ShownChannel;
  /** Its place among the tracks; null: it is none. */
  place: number | null;
  /** What else of it is set lies open. */
  isOpen: boolean;
  onOpen: () => void;
}

/** A channel's level: a finger drags the wing bar; the meter runs along the foot, and the name opens what else there is. */
export function LevelStrip({ shown, place, isOpen, onOpen }: Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { meters } = useInstrument();
  const input = useRef<TextInput>(null);
  const { channel, name, kind, colour } = shown;
  const hand = useMixTurn(channel, 'level', shown.level, (next) => dispatch(channelLevelSet({ channel, level: next })));
  const level = hand.value;
  const own = kind === 'whole' ? tokens.cap : FEATHERS[colour]!.colour;
  const label = `${name} level`;
  const { number, unit } = LEVEL_SCALE.shown(level);
  const text = LEVEL_SCALE.text(number);
  const share = LEVEL_SCALE.share(level);

  const set = (next: number) => next !== level && hand.turn(next);
  const follow = ({ x, width }: DragPoint) => set(LEVEL_SCALE.at(x / width));
  const dragging = useDrag<{ isForMeter: boolean }>({
    begin: (at) => {
      const isForMeter = at.y > at.height - FOOT;
      if (isForMeter) meters.resetPeak(channel);
      else follow(at);
      return { isForMeter };
    },
    move: (at, { isForMeter }) => {
      if (!isForMeter && at.dx !== 0) follow(at);
    },
    end: hand.letGo,
  });
  const onKeyDown = (event: { key: string; preventDefault: () => void }) => {
    const steps = SLIDER_STEPS[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace') meters.resetPeak(channel);
    else if (steps !== undefined) set(LEVEL_SCALE.stepped(level, steps));
    else if (event.key === 'Home') set(0);
    else if (event.key === 'End') set(1);
    else return;
    hand.letGo();
    event.preventDefault();
  };
  const type = (typed: string) => {
    const read = typed.trim() === 'off' ? -Infinity : Number(typed.replace(',', '.').replace('−', '-'));
    if (typed.trim() !== '' && !Number.isNaN(read)) set(LEVEL_SCALE.read(read, unit));
    hand.letGo();
  };
  return (
    <View style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}>
      <View style={[styles.fill, { width: `${share * 100}%`, backgroundColor: own }]} />
      <MeterBar channel={channel} colour={own} />
      <View style={[styles.edge, { left: `${share * 100}%` }]}>
        <View style={[styles.bar, { backgroundColor: tokens.wing }]} />
        <View style={[styles.bar, { backgroundColor: tokens.wing }]} />
      </View>
      <View
        {...dragging()}
        {...mapMark(place === null ? undefined : { do: 'level', row: place })}
        {...{ onKeyDown }}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={LEVEL_SCALE.shown(0).number}
        aria-valuemax={0}
        aria-valuenow={Math.round(number * 10) / 10}
        aria-valuetext={text === 'off' ? text : `${text} ${unit}`}
        style={styles.touch}
      />
      <ControlButton
        label={`Channel of ${name}`}
        text={hand.isMoved ? `${name} · Moves` : name}
        icon={isOpen ? 'chevron-up' : 'chevron-down'}
        expanded={isOpen}
        onPress={onOpen}
        style={styles.name}
      />
      <View style={styles.value}>
        <View style={styles.plate}>
          <View style={[styles.backing, { backgroundColor: tokens.slate }]} />
          <TypedNumber
            ref={input}
            label={`${label} number`}
            value={Math.round(number * 10) / 10}
            min={LEVEL_SCALE.shown(0).number}
            max={0}
            text={text}
            valueText={text === 'off' ? text : `${text} ${unit}`}
            onType={type}
            onStep={(steps) => {
              set(LEVEL_SCALE.stepped(level, steps));
              hand.letGo();
            }}
            ownPress
            style={[styles.number, { color: tokens.wing, width: 14 + 9 * Math.max(3, text.length) }]}
          />
          <Text aria-hidden style={[styles.unit, { color: tokens.cap }]}>
            {unit}
          </Text>
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { flex: 1, height: TOUCH + 12, borderRadius: RADIUS, borderWidth: 1, overflow: 'hidden' },
  // The words on it stay readable on every feather.
  fill: { position: 'absolute', left: 0, top: 0, bottom: 0, opacity: 0.3, pointerEvents: 'none' },
  edge: { position: 'absolute', top: 0, bottom: 0, width: 9, marginLeft: -6, flexDirection: 'row', gap: 3, pointerEvents: 'none' },
  bar: { width: 3, height: '100%', transform: [{ skewX: '-8deg' }] },
  touch: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, touchAction: 'none', cursor: 'pointer' } as ViewStyle,
  name: { position: 'absolute', left: 0, top: 0, height: TOUCH, maxWidth: '55%', backgroundColor: 'transparent', borderColor: 'transparent' },
  value: { position: 'absolute', right: 6, top: 0, bottom: 8, justifyContent: 'center', pointerEvents: 'box-none' },
  plate: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 6, gap: 4, pointerEvents: 'box-none' },
  // Low enough that the wing bar is seen above and below it.
  backing: { position: 'absolute', left: 0, right: 0, top: 9, bottom: 9, borderRadius: 6, pointerEvents: 'none' },
  // Above its backing.
  number: { position: 'relative', fontFamily: NUMBERS, fontSize: grown(13), height: TOUCH, textAlign: 'right' },
  unit: { fontFamily: WORDS, fontSize: grown(15), userSelect: 'none', pointerEvents: 'none' },
}); // prettier-ignore
