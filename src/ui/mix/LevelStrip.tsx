import { useRef } from 'react';
import { StyleSheet, View, type TextInput, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { mapMark } from '../shared/mapMark';
import { TypedNumber } from '../shared/TypedNumber';
import { useDrag, type DragPoint } from '../shared/useDrag';
import { useTokens } from '../theme/theme';
import { FEATHERS, NUMBERS, RADIUS, TOUCH, WORDS } from '../theme/tokens';
import { grown } from '../theme/type';
import { LevelFill } from './LevelFill';
import { MeterBar } from './MeterBar';
import type { ShownChannel } from './mixChannels';
import { MovedMark } from './MovedMark';
import { LEVEL_SCALE } from './mixScales';
import { useLevel } from './useLevel';

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
  const { meters } = useInstrument();
  const input = useRef<TextInput>(null);
  const { channel, name, kind, colour } = shown;
  const level = useLevel(channel, shown.level);
  const own = kind === 'whole' ? tokens.cap : FEATHERS[colour]!.colour;
  const label = `${name} level`;

  const follow = ({ x, width }: DragPoint) => level.set(LEVEL_SCALE.at(x / width));
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
    end: level.letGo,
  });
  const onKeyDown = (event: { key: string; preventDefault: () => void }) => {
    if (event.key !== 'Delete' && event.key !== 'Backspace') return level.onKeyDown(event);
    meters.resetPeak(channel);
    event.preventDefault();
  };
  const type = (typed: string) => {
    const read = typed.trim() === 'off' ? -Infinity : Number(typed.replace(',', '.').replace('−', '-'));
    if (typed.trim() !== '' && !Number.isNaN(read)) level.setOnce(LEVEL_SCALE.read(read, level.unit));
  };
  return (
    <View style={[styles.strip, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}>
      <LevelFill share={level.share} colour={own}>
        <MeterBar channel={channel} colour={own} />
      </LevelFill>
      {level.moves && <MovedMark ridden={level.moves} />}
      <View
        {...dragging()}
        {...mapMark(place === null ? undefined : { do: 'level', row: place })}
        {...{ onKeyDown }}
        {...level.slider}
        aria-label={label}
        style={styles.touch}
      />
      <ControlButton
        label={`Channel of ${name}`}
        text={level.moves ? `${name} · Moves` : name}
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
            value={level.slider['aria-valuenow']}
            min={LEVEL_SCALE.shown(0).number}
            max={0}
            text={level.text}
            valueText={level.words}
            onType={type}
            onStep={level.step}
            ownPress
            style={[styles.number, { color: tokens.wing, width: 14 + 9 * Math.max(3, level.text.length) }]}
          />
          <Text aria-hidden style={[styles.unit, { color: tokens.cap }]}>
            {level.unit}
          </Text>
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { flex: 1, height: TOUCH + 12, borderRadius: RADIUS, borderWidth: 1, overflow: 'hidden' },
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
