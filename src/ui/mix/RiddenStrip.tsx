import { ValueStrip, type ValueScale } from '../shared/ValueStrip';
import { MovedMark } from './MovedMark';
import type { useMixTurn } from './useMixTurn';

interface Props {
  label: string;
  caption: string;
  /** Where it is by itself. */
  own: number;
  scale: ValueScale;
  hand: ReturnType<typeof useMixTurn>;
}

/** A control of the mix as a strip under a hand, which turns or rides it. Of what plays, Moves are named and shown upon it. */
export function RiddenStrip({ label, caption, own, scale, hand }: Props) {
  return (
    <ValueStrip
      label={label}
      caption={hand.moves ? `${caption} · Moves` : caption}
      mark={hand.moves && <MovedMark ridden={hand.moves} />}
      value={hand.value}
      own={own}
      scale={scale}
      onSet={(value, gesture) => hand.turn(value ?? own, gesture)}
      onRelease={hand.letGo}
    />
  );
}
