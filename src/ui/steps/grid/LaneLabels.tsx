import { memo, useRef } from 'react';
import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { chosenBy, type StepLane } from '@/core/document/stepLanes';
import type { Track } from '@/core/document/track';
import { laneChosen } from '@/store/stepsSlice';
import { useAppDispatch } from '@/store/store';
import { deviceOf, KEY_VELOCITY } from '../../pads/PadGrid';
import { useInstrument } from '../../shared/InstrumentContext';
import { useTokens } from '../../theme/theme';
import { NUMBERS, WORDS, WORDS_STRONG } from '../../theme/tokens';
import { grown } from '../../theme/type';
import { MuteSolo } from '../MuteSolo';
import { isPadHeard } from '@/core/document/track';

interface Props {
  lanes: readonly StepLane[];
  gates: Pick<Track, 'id' | 'mutedPads' | 'soloPads'>;
  /** px: of a lane, and how far the lanes are scrolled. */
  laneHeight: number;
  y: number;
  /** Key of the lane touched last. */
  chosen: number;
  /** Mute and solo stand beside each label. */
  roomy: boolean;
  /** px to which the lanes are scrolled. */
  onScroll: (y: number) => void;
}

/** A press that moves less than this is a tap. */
const TAP_PX = 8;

/** The lanes' labels: each is its pad, heard on press. A finger that goes on scrolls the lanes and paints nothing. */
export const LaneLabels = memo(function LaneLabels({ lanes, gates, laneHeight, y, chosen, roomy, onScroll }: Props) {
  const dispatch = useAppDispatch();
  const tokens = useTokens();
  const instrument = useInstrument();
  const drag = useRef<{ y: number; from: number; moved: boolean } | null>(null);
  const { mutedPads = [], soloPads = [] } = gates;
  const release = (pad: number) => (event: React.PointerEvent) => {
    drag.current = null;
    instrument.padUp(pad, event.timeStamp, deviceOf(event));
  };
  // All of them, also out of view: the one under a finger must stay while it scrolls.
  return lanes.map((lane, i) => {
    const {
      key,
      name,
      degree,
      place: { pad, pitch },
    } = lane;
    const isHeard = isPadHeard(gates, pad);
    return (
      <div key={key} style={{ ...rowBox, top: i * laneHeight - y, height: laneHeight }}>
        <div
          role="button"
          tabIndex={0}
          aria-label={`Hear ${name}`}
          aria-description={[mutedPads.includes(pad) && 'muted', soloPads.includes(pad) && 'solo']
            .filter(Boolean)
            .join(', ')}
          style={{ ...labelBox, borderLeft: `4px solid ${key === chosen ? tokens.breast : 'transparent'}` }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            instrument.padDown(pad, KEY_VELOCITY, event.timeStamp, deviceOf(event), pitch);
            dispatch(laneChosen(chosenBy(lane)));
            drag.current = { y: event.clientY, from: y, moved: false };
          }}
          onPointerMove={(event) => {
            const d = drag.current;
            if (!d) return;
            if (Math.abs(event.clientY - d.y) > TAP_PX) d.moved = true;
            if (d.moved) onScroll(d.from - (event.clientY - d.y));
          }}
          onPointerUp={release(pad)}
          onPointerCancel={release(pad)}
          onKeyDown={(event) => {
            if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return;
            event.preventDefault();
            instrument.padDown(pad, KEY_VELOCITY, event.timeStamp, 'keys', pitch);
            instrument.padUp(pad, event.timeStamp, 'keys');
            dispatch(laneChosen(chosenBy(lane)));
          }}
        >
          <Text
            numberOfLines={1}
            style={[
              styles.label,
              { color: isHeard && degree !== 'foreign' ? tokens.wing : tokens.cap },
              degree === 'root' && { color: tokens.breast },
              !isHeard && styles.silent,
            ]}
          >
            {name}
          </Text>
          {!roomy && (mutedPads.includes(pad) || soloPads.includes(pad)) && (
            <Text style={[styles.mark, { color: tokens.breast }]}>{soloPads.includes(pad) ? 'S' : 'M'}</Text>
          )}
        </div>
        {roomy && pitch === 0 && <MuteSolo name={name} pad={pad} gates={gates} />}
      </div>
    );
  });
});

const rowBox = { position: 'absolute', left: 0, right: 0, display: 'flex', alignItems: 'center', gap: 2 } as const;
const labelBox = { flex: 1, minWidth: 0, height: '100%', boxSizing: 'border-box', display: 'flex', alignItems: 'center', touchAction: 'none', cursor: 'grab' } as const; // prettier-ignore

const styles = StyleSheet.create({
  label: {
    fontFamily: WORDS_STRONG,
    fontSize: grown(17),
    lineHeight: grown(21),
    paddingHorizontal: 6,
    userSelect: 'none',
    flexShrink: 1,
  },
  silent: { fontFamily: WORDS, textDecorationLine: 'line-through' },
  mark: { fontFamily: NUMBERS, fontSize: grown(12) },
});
