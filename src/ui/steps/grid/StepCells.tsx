import { memo } from 'react';
import { stepWords } from '@/core/edit/steps';
import type { SoundingHit } from '@/core/sequence/soundingHits';
import type { Meter } from '@/core/time/ticks';
import { LANES, type Geometry } from '../geometry';
import type { ByPad } from './drawSteps';

interface Props {
  /** Names of the pads. */
  names: readonly string[];
  sounding: ByPad;
  geometry: Geometry;
  /** Ticks of the pattern. */
  length: number;
  meter: Meter;
}

/** The steps in view of all lanes as elements with names, for assistive technology and for the keyboard. What is seen is drawn beneath them. */
export const StepCells = memo(function StepCells({ names, sounding, geometry: g, length, meter }: Props) {
  return LANES.map((pad, i) => (
    <CellRow
      key={pad}
      pad={pad}
      name={names[pad]!}
      hits={sounding[pad]!}
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

interface RowProps {
  pad: number;
  name: string;
  hits: readonly SoundingHit[];
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
  pad,
  name,
  hits,
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
            id={cellId(pad, index)}
            role="gridcell"
            aria-label={`${name} ${stepWords(tick, step, meter)}`}
            aria-selected={hit !== undefined}
            aria-description={hit ? wordsOf(hit) : 'off'}
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
function wordsOf({ velocity, pitch, odds, roll }: SoundingHit): string {
  const words = ['on', `velocity ${Math.round(velocity * 127)}`];
  if (pitch !== 0) words.push(`pitch ${pitch > 0 ? '+' : ''}${pitch}`);
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
export function cellId(pad: number, index: number): string {
  return `step-${pad}-${index}`;
}
