import { memo } from 'react';
import { passOf } from '@/core/sequence/soundingHits';
import type { Pattern } from '@/core/document/pattern';
import { grown } from '../theme/type';

interface Props {
  pattern: Pattern;
  colour: string;
  /** px, where type has its own size: the picture grows with it. */
  height: number;
  /** Notes are drawn as long as they are held. */
  notes?: boolean;
}

const WIDTH = 100;
const LANE = 3;
const FEWEST_LANES = 4;

/** A pattern's hits as a small picture: a row for each sound it uses, low sounds at the bottom, strokes as tall as they are strong. */
export const HitsPicture = memo(function HitsPicture({ pattern, colour, height, notes = false }: Props) {
  const { path, lanes } = pictureOf(pattern, notes);
  return (
    <svg
      aria-hidden
      width="100%"
      viewBox={`0 0 ${WIDTH} ${lanes * LANE}`}
      preserveAspectRatio="none"
      style={{ display: 'block', height: grown(height) }}
    >
      <path d={path} fill={colour} />
    </svg>
  );
});

/** Cache of pictures: one screen can show hundreds, and is opened often. */
const made = { drums: new WeakMap<Pattern, Picture>(), notes: new WeakMap<Pattern, Picture>() };

interface Picture {
  path: string;
  lanes: number;
}

function pictureOf(pattern: Pattern, notes: boolean): Picture {
  const kept = notes ? made.notes : made.drums;
  let picture = kept.get(pattern);
  if (!picture) kept.set(pattern, (picture = drawn(pattern, notes)));
  return picture;
}

function drawn(pattern: Pattern, notes: boolean): Picture {
  const { sounding } = passOf(pattern);
  const used = [...new Set(sounding.map((hit) => hit.pad))].sort((a, b) => b - a);
  const lanes = Math.max(FEWEST_LANES, used.length);
  const row = new Map(used.map((pad, i) => [pad, lanes - used.length + i]));
  const stroke = Math.max(0.8, Math.min(3, (WIDTH / pattern.length) * 120));
  const path = sounding.map(({ tick, pad, velocity, length }) => {
    const width = notes ? Math.max(stroke, (Math.min(length, pattern.length - tick) / pattern.length) * WIDTH) : stroke;
    const tall = (0.35 + 0.65 * velocity) * (LANE - 0.6);
    const x = ((tick / pattern.length) * WIDTH).toFixed(1);
    const y = ((row.get(pad)! + 1) * LANE - 0.3 - tall).toFixed(1);
    return `M${x} ${y}h${width.toFixed(1)}v${tall.toFixed(1)}h-${width.toFixed(1)}z`;
  });
  return { path: path.join(''), lanes };
}
