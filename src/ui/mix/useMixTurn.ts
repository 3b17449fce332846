import { useRef, useState } from 'react';
import { FIRST_GROUP_CHANNEL, WHOLE_CHANNEL, type MixControl } from '@/core/document/mix';
import { isSameMoved, type MovedInMix, type MovePoint } from '@/core/document/moves';
import type { MovedReturn } from '@/core/document/returns';
import { patternAt, tracksOf } from '@/core/document/set';
import { movePoints } from '@/core/edit/editMoves';
import { selectSet, selectShown } from '@/store/selectors';
import type { RootState } from '@/store/store';
import { useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';

/** A track, and what its patterns move. */
export interface Ridden {
  track: number;
  moved: MovedInMix;
}

/**
 * The track whose patterns move a channel, and as what: a track's own, the shown one's for the whole mix, and of a group one that goes
 * to it, the shown one before others; null: none does.
 */
export function riddenBy(state: RootState, channel: number, control: MixControl): Ridden | null {
  if (channel < FIRST_GROUP_CHANNEL) return { track: channel, moved: { on: 'track', control } };
  const shown = selectShown(state);
  if (channel === WHOLE_CHANNEL) return { track: shown, moved: { on: 'whole', control } };
  const inside = tracksOf(selectSet(state)).filter(({ goesTo }) => goesTo === channel - FIRST_GROUP_CHANNEL);
  const track = inside.find(({ id }) => id === shown) ?? inside[0];
  return track ? { track: track.id, moved: { on: 'group', control } } : null;
}

const NONE: readonly MovePoint[] = [];

/** The breakpoints by which the pattern that plays moves it; none if it does not. */
export function playingPoints(state: RootState, { track, moved }: Ridden): readonly MovePoint[] {
  const slot = state.stage.tracks[track]?.slot;
  const pattern = slot === undefined ? null : patternAt(selectSet(state), { track, slot });
  return pattern ? movePoints(pattern, moved) : NONE;
}

/** Sets what is turned. All changes of one gesture have the same name, and are one step of undo. */
type Turn = (value: number, gesture: string) => void;

/** One control of a channel under a hand, as `useTurn` has it. */
export function useMixTurn(channel: number, control: MixControl, setting: number, set: Turn) {
  return useTurn((state) => riddenBy(state, channel, control), setting, set);
}

/** And one of the echo or the room, which the shown track's patterns move. */
export function useReturnTurn(moved: MovedReturn, setting: number, set: Turn) {
  return useTurn((state) => ({ track: selectShown(state), moved }), setting, set);
}

/**
 * A control of the mix under a hand. It is ridden where the pattern that plays moves it, and while Moves are written; else its setting is
 * turned.
 */
function useTurn(riddenIn: (state: RootState) => Ridden | null, setting: number, set: Turn) {
  const { rides } = useInstrument();
  const isMoved = useAppSelector((state) => {
    const ridden = riddenIn(state);
    return ridden !== null && playingPoints(state, ridden).length > 0;
  });
  const writes = useAppSelector(({ session }) => session.mixWrites && session.recording && session.playing);
  const ridden = useAppSelector(riddenIn, sameRidden);
  const [held, setHeld] = useState<number | null>(null);
  // A key turns and lets go within one look at the state.
  const riding = useRef<Ridden | null>(null);
  return {
    /** What the pattern that plays moves; null: it does not. */
    moves: isMoved ? ridden : null,
    /** What is turned now becomes Moves. */
    writes,
    value: held ?? setting,
    turn: (value: number, gesture = '') => {
      if (!ridden || !(isMoved || writes)) return set(value, gesture);
      rides.ride(ridden.track, ridden.moved, value, performance.now());
      riding.current = ridden;
      setHeld(value);
    },
    letGo: () => {
      if (!riding.current) return;
      rides.release(riding.current.track, riding.current.moved);
      riding.current = null;
      setHeld(null);
    },
  };
}

function sameRidden(one: Ridden | null, other: Ridden | null): boolean {
  if (!one || !other) return one === other;
  return one.track === other.track && isSameMoved(one.moved, other.moved);
}
