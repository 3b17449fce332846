import { useRef } from 'react';
import { currentPattern, type Hit } from '@/core/model/set';
import { isInLoop, soundingHits } from '@/core/sequence/soundingHits';
import { CURRENT_TRACK, selectTrack } from '@/store/selectors';
import { velocitiesSet } from '@/store/setSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import type { Tokens } from '../theme/tokens';

interface Props {
  pad: number;
  name: string;
  /** First tick in view, ticks in view, px a tick. */
  start: number;
  span: number;
  scale: number;
  height: number;
  tokens: Tokens;
}

/** A hit is meant by a finger this near, px. */
const REACH_PX = 12;
const BAR_PX = 9;
const SOFTEST = 1 / 127;
let strokes = 0;

/**
 * How hard the hits of one lane were struck, as bars. A finger draws a line: every hit that it passes takes its height.
 * Shown and drawn is the struck velocity; what Loudness makes of it is heard.
 */
export function VelocityLane({ pad, name, start, span, scale, height, tokens }: Props) {
  const dispatch = useAppDispatch();
  const pattern = useAppSelector((state) => currentPattern(selectTrack(state)));
  const drawing = useRef<{ x: number; y: number; gesture: string } | null>(null);
  if (!pattern) return null;
  const places = new Map(soundingHits(pattern).map((hit) => [hit.id, hit.struck]));
  const hits = pattern.hits.filter((hit) => hit.pad === pad && isInLoop(hit, pattern.length) && places.has(hit.id));
  const xOf = (hit: Hit) => (places.get(hit.id)! - start) * scale + BAR_PX / 2;
  const seen = hits.filter((hit) => xOf(hit) > -BAR_PX && xOf(hit) < span * scale + BAR_PX);

  const at = (event: React.PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    return {
      x: event.clientX - box.left,
      y: Math.min(1, Math.max(SOFTEST, 1 - (event.clientY - box.top) / box.height)),
    };
  };
  const draw = (to: { x: number; y: number }) => {
    const from = drawing.current!;
    const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
    const reach = right - left < REACH_PX ? REACH_PX : 1;
    const velocities = seen
      .filter((hit) => xOf(hit) >= left - reach && xOf(hit) <= right + reach)
      .map((hit): [number, number] => {
        const along = to.x === from.x ? 1 : Math.min(1, Math.max(0, (xOf(hit) - from.x) / (to.x - from.x)));
        return [hit.id, Math.round((from.y + (to.y - from.y) * along) * 127) / 127];
      });
    if (velocities.length > 0) dispatch(velocitiesSet({ track: CURRENT_TRACK, velocities, gesture: from.gesture }));
    drawing.current = { ...to, gesture: from.gesture };
  };
  return (
    <div
      role="img"
      aria-label={`Velocities of ${name}: ${seen.map((hit) => Math.round(hit.velocity * 127)).join(', ') || 'no hits in view'}`}
      style={{
        position: 'relative',
        height,
        overflow: 'hidden',
        touchAction: 'none',
        cursor: 'crosshair',
        background: tokens.ground,
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drawing.current = { ...at(event), gesture: `velocity ${++strokes}` };
        draw(at(event));
      }}
      onPointerMove={(event) => {
        if (drawing.current) draw(at(event));
      }}
      onPointerUp={() => (drawing.current = null)}
      onPointerCancel={() => (drawing.current = null)}
    >
      {seen.map((hit) => (
        <div
          key={hit.id}
          style={{
            position: 'absolute',
            pointerEvents: 'none',
            left: xOf(hit) - BAR_PX / 2,
            width: BAR_PX,
            bottom: 0,
            height: Math.max(2, hit.velocity * height),
            background: tokens.breast,
          }}
        />
      ))}
    </div>
  );
}
