import { useRef } from 'react';
import { returnName, returnRange, type MovedReturn } from '@/core/document/returns';
import { ValueStrip } from '../shared/ValueStrip';
import { returnScale } from './mixScales';
import { useReturnTurn } from './useMixTurn';

interface Props {
  moved: MovedReturn;
  caption: string;
  /** What it is set to. */
  setting: number;
  /** All changes of one gesture have the same name. */
  onSet: (value: number, gesture: string) => void;
}

/** One control of the echo or the room, turned or ridden. */
export function ReturnStrip({ moved, caption, setting, onSet }: Props) {
  const gesture = useRef('');
  const hand = useReturnTurn(moved, setting, (value) => onSet(value, gesture.current));
  const own = returnRange(moved)!.neutral;
  return (
    <ValueStrip
      label={returnName(moved)}
      caption={hand.isMoved ? `${caption} · Moves` : caption}
      value={hand.value}
      own={own}
      scale={returnScale(moved)}
      onSet={(value, name) => {
        gesture.current = name;
        hand.turn(value ?? own);
      }}
      onRelease={hand.letGo}
    />
  );
}
