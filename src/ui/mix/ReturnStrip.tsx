import { returnName, returnRange, type MovedReturn } from '@/core/document/returns';
import { returnScale } from './mixScales';
import { RiddenStrip } from './RiddenStrip';
import { useReturnTurn } from './useMixTurn';

interface Props {
  moved: MovedReturn;
  caption: string;
  /** What it is set to. */
  setting: number;
  /** All changes of one gesture have the same name. */
  onSet: (value: number, gesture: string) => void;
}

/** One control of the echo or the room. */
export function ReturnStrip({ moved, caption, setting, onSet }: Props) {
  const hand = useReturnTurn(moved, setting, onSet);
  const { neutral } = returnRange(moved)!;
  return (
    <RiddenStrip label={returnName(moved)} caption={caption} own={neutral} scale={returnScale(moved)} hand={hand} />
  );
}
