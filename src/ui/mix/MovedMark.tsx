import { useMemo, useRef } from 'react';
import { flatPoints, movedKey, movedRange } from '@/core/document/moves';
import { moveValue } from '@/core/sequence/moveValue';
import { useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { movedScale } from '../steps/movedScale';
import { useTokens } from '../theme/theme';
import { playingPoints, type Ridden } from './useMixTurn';

/**
 * Where the Moves of what plays have a control now, as a line upon its strip, whose fill is what it is set to. It is drawn with each frame,
 * past React: all strips of a mix may move at once.
 */
export function MovedMark({ ridden }: { ridden: Ridden }) {
  const tokens = useTokens();
  const { performance, rides } = useInstrument();
  const line = useRef<HTMLDivElement>(null);
  const isPlaying = useAppSelector((state) => state.session.playing);
  const points = useAppSelector((state) => playingPoints(state, ridden));
  const flat = useMemo(() => flatPoints(points), [points]);
  const { track, moved } = ridden;
  const { share } = movedScale(moved);
  const { stepped } = movedRange(moved);
  useFrame(() => {
    const tick = performance.tickNow;
    const isMoved = isPlaying && flat.length > 0 && tick >= performance.fromTick;
    const value = rides.valueOf(track, moved) ?? (isMoved ? moveValue(flat, performance.positionAt(tick, track), stepped) : NaN); // prettier-ignore
    const { style } = line.current!;
    style.opacity = Number.isNaN(value) ? '0' : '1';
    if (!Number.isNaN(value)) style.transform = `translateX(${100 * share(value)}%)`;
  }, isPlaying);
  return (
    <div style={way} aria-hidden data-moved={movedKey(moved)}>
      <div ref={line} style={way}>
        <div style={{ ...mark, background: tokens.wing, boxShadow: `0 0 0 1px ${tokens.deep}` }} />
      </div>
    </div>
  );
}

const way = { position: 'absolute', inset: 0, pointerEvents: 'none' } as const;
const mark = { position: 'absolute', top: 0, bottom: 0, left: -1, width: 3 } as const;
