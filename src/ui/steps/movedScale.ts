import { isOfReturn, movedRange, type Moved, type MovedInMix } from '@/core/document/moves';
import { LEVEL_SCALE, mixScale, returnScale } from '../mix/mixScales';
import type { ValueScale } from '../shared/ValueStrip';
import { controlWords } from './valueWords';

/** How the values of a Move lie between the foot and the top of its lane, and in words. */
export interface MovedScale {
  /** Where a value lies, 0..1, and the value at a place. */
  share: (value: number) => number;
  at: (share: number) => number;
  words: (value: number) => string;
}

export function movedScale(moved: Moved): MovedScale {
  if ('pad' in moved) {
    const { min, max, stepped } = movedRange(moved);
    const isWhole = stepped || moved.control === 'pitch';
    const at = (share: number) => min + share * (max - min);
    return {
      share: (value) => (value - min) / (max - min),
      at: (share) => (isWhole ? Math.round(at(share)) : at(share)),
      words: (value) => controlWords(moved.control, value),
    };
  }
  const { share, at, shown, text } = scaleOf(moved);
  const words = (value: number) => {
    const { number, unit } = shown(value);
    const said = text(number);
    return said === 'off' || unit === '' ? said : `${said} ${unit}`;
  };
  return { share, at, words };
}

function scaleOf(moved: MovedInMix): ValueScale {
  if (isOfReturn(moved)) return returnScale(moved);
  return moved.control === 'level' ? LEVEL_SCALE : mixScale(moved.control);
}
