import { memo } from 'react';
import { stepWords } from '@/core/edit/steps';
import type { SoundingHit } from '@/core/sequence/soundingHits';
import type { Meter } from '@/core/time/ticks';
import type { StepLane } from '@/core/document/stepLanes';
import type { Geometry } from '../geometry';
import type { ByLane } from './drawSteps';

interface Props {
  lanes: readonly StepLane[];
  sounding: ByLane;
  /** What the pattern beneath has in each lane, in words by step; null: nothing that has names. */
  beneath: readonly ReadonlyMap<number, string>[] | null;
  geometry: Geometry;
  /** Ticks of the pattern. */
  length: number;
  meter: Meter;
}

/** The steps in view of all lanes as elements with names, for assistive technology and for the keyboard. What is seen is drawn beneath them. */
export const StepCells = memo(function StepCells({ lanes, sounding, beneath, geometry: g, length, meter }: Props) {
  return lanes.map(({ key, name, degree }, i) => (
    <CellRow
      key={key}
      lane={key}
      name={name}
      isNote={degree !== undefined}
      hits={sounding[i] ?? NONE}
      beneath={beneath?.[i] ?? null}
      top={i * g.laneHeight}
      height={g.laneHeight}
      from={g.from}
      count={g.inView}
      step={g.step}
      scale={g.scale}
      length={length}
      meter={meter}
    />
  ));
});

const NONE: readonly SoundingHit[] = [];

interface RowProps {
  lane: number;
  name: string;
  /** Whole semitones are in the lane's name. */
  isNote: boolean;
  hits: readonly SoundingHit[];
  beneath: ReadonlyMap<number, string> | null;
  top: number;
  height: number;
  from: number;
  count: number;
  step: number;
  scale: number;
  length: number;
  meter: Meter;
}

const CellRow = memo(function CellRow({
  lane,
  name,
  isNote,
  hits,
  beneath,
  top,
  height,
  from,
  count,
  step,
  scale,
  length,
  meter,
}: RowProps) {
  // prettier-ignore
  const on = new Map<number, SoundingHit>();
  for (const hit of hits) {
    const index = Math.floor(hit.tick / step);
    if (!on.has(index)) on.set(index, hit);
  }
  return (
    <div
      role="row"
      aria-label={name}
      style={{ position: 'absolute', left: 0, right: 0, top, height, contain: 'strict' }}
    >
      {Array.from({ length: count }, (_, i) => {
        const index = from + i;
        const tick = index * step;
        const hit = on.get(index);
        return (
          <div
            key={i}
            id={cellId(lane, index)}
            role="gridcell"
            aria-label={`${name} ${stepWords(tick, step, meter)}`}
            aria-selected={hit !== undefined}
            aria-description={[hit ? wordsOf(hit, isNote) : 'off', beneath?.get(index)].filter(Boolean).join(', ')}
            style={{
              position: 'absolute',
              left: i * step * scale,
              width: Math.min(step, length - tick) * scale,
              top: 0,
              bottom: 0,
            }}
          />
        );
      })}
    </div>
  );
}, isSame);

/** A hit in words, as far as it is not plain. */
function wordsOf({ velocity, pitch, odds, roll }: SoundingHit, isNote: boolean): string {
  const away = isNote ? Math.round((pitch - Math.round(pitch)) * 100) / 100 : pitch;
  const words = ['on', `velocity ${Math.round(velocity * 127)}`];
  if (away !== 0) words.push(`pitch ${away > 0 ? '+' : ''}${away}`);
  if (odds < 1) words.push(`odds ${Math.round(odds * 100)} %`);
  if (roll) words.push(`roll of ${roll.strokes}`);
  return words.join(', ');
}

/** Whether both rows draw the same: the list of hits is a new one after every change of the pattern. */
function isSame(before: RowProps, now: RowProps): boolean {
  const { hits, ...rest } = now;
  return (
    (before.hits === hits || sameHits(before.hits, hits)) &&
    (Object.keys(rest) as (keyof typeof rest)[]).every((key) => before[key] === rest[key])
  );
}

function sameHits(a: readonly SoundingHit[], b: readonly SoundingHit[]): boolean {
  if (a.length !== b.length) return false;
  return a.every((hit, i) => {
    const { tick, velocity, pitch, odds, roll } = b[i]!;
    return (
      hit.tick === tick && hit.velocity === velocity && hit.pitch === pitch && hit.odds === odds && hit.roll === roll
    );
  });
}

/** Id of a cell's element, for `aria-activedescendant`. */
export function cellId(lane: number, index: number): string {
  return `step-${lane}-${index}`;
}
