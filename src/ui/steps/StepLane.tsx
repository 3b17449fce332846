import { memo } from 'react';
import { stepWords } from '@/core/edit/steps';
import type { SoundingHit } from '@/core/sequence/soundingHits';
import { ticksPerBar, ticksPerBeat, type Meter } from '@/core/time/ticks';
import type { Tokens } from '../theme/tokens';

interface Props {
  pad: number;
  name: string;
  /** What sounds in the lane, in order of time. */
  hits: readonly SoundingHit[];
  covered: readonly SoundingHit[];
  /** First step drawn, and how many. */
  from: number;
  count: number;
  step: number;
  /** End of the loop, ticks: a step beyond it is cut short. */
  length: number;
  /** px a tick. */
  scale: number;
  height: number;
  meter: Meter;
  tokens: Tokens;
}

const QUILL_PX = 5;

/** One lane: a cell for each step in view, and its hits at their true times. Memoised: only a lane that changed is drawn anew. */
export const StepLane = memo(function StepLane(props: Props) {
  const { pad, name, hits, covered, from, count, step, length, scale, height, meter, tokens } = props;
  const start = from * step;
  const end = Math.min(length, (from + count) * step);
  const x = (tick: number) => (tick - start) * scale;
  const inView = (hit: SoundingHit) => hit.tick >= start && hit.tick < end;
  const seen = hits.filter(inView);
  return (
    <div role="row" aria-label={name} style={{ position: 'relative', height }}>
      {Array.from({ length: count }, (_, i) => {
        const tick = start + i * step;
        const hit = seen.find((h) => h.tick >= tick && h.tick < tick + step);
        const isBar = tick % ticksPerBar(meter) === 0;
        const isBeat = tick % ticksPerBeat(meter) === 0;
        return (
          <div
            key={tick}
            id={cellId(pad, from + i)}
            role="gridcell"
            aria-label={`${name} ${stepWords(tick, step, meter)}`}
            aria-selected={hit !== undefined}
            aria-description={hit ? `on, velocity ${Math.round(hit.velocity * 127)}` : 'off'}
            style={{
              position: 'absolute',
              boxSizing: 'border-box',
              left: x(tick),
              width: Math.min(step, length - tick) * scale,
              top: 1,
              bottom: 1,
              borderLeft: `${isBar ? 2 : 1}px solid ${isBeat ? tokens.cap : tokens.rule}`,
              background: isBeat ? tokens.slate : tokens.ground,
            }}
          />
        );
      })}
      {seen.map((hit) => (
        <div
          key={hit.id}
          style={{
            ...mark(x(hit.struck) + 2, 6, QUILL_PX),
            height: (height - 12) * (0.25 + 0.75 * hit.velocity),
            background: tokens.wing,
            transform: 'skewX(-10deg)',
          }}
        />
      ))}
      {covered.filter(inView).map((hit) => (
        <div
          key={`covered ${hit.id}`}
          style={{
            ...mark(x(hit.struck) + 2, 6, QUILL_PX),
            height: (height - 12) * 0.8,
            border: `1px solid ${tokens.straw}`,
            transform: 'skewX(-10deg)',
          }}
        />
      ))}
      {seen.map((hit) => (
        <div
          key={`placed ${hit.id}`}
          style={{
            ...mark(x(hit.tick) + 1, 2, QUILL_PX + 2),
            height: 3,
            background: tokens.moss,
          }}
        />
      ))}
    </div>
  );
}, isSame);

/** A mark upon the cells that lets every press through to them. */
function mark(left: number, bottom: number, width: number) {
  return { position: 'absolute', pointerEvents: 'none', left, bottom, width } as const;
}

/** Whether a lane would be drawn just as it is: its lists are made anew with every change of the pattern. */
function isSame(before: Props, now: Props): boolean {
  const { hits, covered, ...rest } = now;
  return (
    sameHits(before.hits, hits) &&
    sameHits(before.covered, covered) &&
    (Object.keys(rest) as (keyof typeof rest)[]).every((key) => before[key] === rest[key])
  );
}

function sameHits(a: readonly SoundingHit[], b: readonly SoundingHit[]): boolean {
  if (a.length !== b.length) return false;
  return a.every((hit, i) => {
    const { id, tick, struck, velocity } = b[i]!;
    return hit.id === id && hit.tick === tick && hit.struck === struck && hit.velocity === velocity;
  });
}

/** Id of a cell's element, for `aria-activedescendant`. */
export function cellId(pad: number, index: number): string {
  return `step-${pad}-${index}`;
}
