import type { Hit } from '@/core/document/hit';
import type { Instruction } from '@/core/protocol/commands';
import { gridTicks } from '@/core/quantize/grid';
import { stepEntered } from '@/store/patternsSlice';
import {
  selectHeardSet,
  selectInputSnap,
  selectPattern,
  selectPlace,
  selectSet,
  selectShown,
  selectTrack,
} from '@/store/selectors';
import { stepPressed, stepReleased } from '@/store/sessionSlice';
import type { RootState, Store } from '@/store/store';
import type { Rides } from './rides';
import type { PatternPlace } from '@/core/document/pattern';

/** A stroke on a pad, by whatever hand. */
export interface HandStroke {
  /** Id of the track. */
  track: number;
  pad: number;
  /** 0..1 */
  velocity: number;
  /** When it was struck, ms on the clock of `performance.now()`, less what its device is late. */
  at: number;
  /** Semitones away from the pad's own note. */
  pitch?: number;
  /** It only sounds, and is recorded nowhere. */
  through?: boolean;
}

/** What the hands need of the instrument. */
/** The finger on a held pad presses harder or softer. */
export interface HandPress extends Pick<HandStroke, 'track' | 'pad' | 'at'> {
  /** As hard as a stroke would be, 0..1. */
  velocity: number;
  /** Beyond what it took to strike, 0..1. */
  pressure: number;
}

interface Around {
  send: (instruction: Instruction) => void;
  frameHeard: (timeStamp: number) => number;
  nextId: () => number;
  isFull: (place: PatternPlace) => boolean;
  pressures: Pick<Rides, 'press' | 'letGoOfKey'>;
}

/** Hands on the pads: strokes, and how they are held and let go. */
export class Hands {
  constructor(
    private readonly store: Store,
    private readonly around: Around,
  ) {}

  strike({ track, pad, velocity, at, pitch = 0, through = false }: HandStroke): void {
    const { send, frameHeard, nextId } = this.around;
    const heard = frameHeard(at);
    const apart = { ...(pitch !== 0 && { pitch }), ...(through && { through }) };
    send({ type: 'padDown', track, pad, velocity, heard, id: nextId(), ...apart });
    const state = this.store.getState();
    if (!through && isStepping(state) && track === selectShown(state)) this.enterStep(state, pad, velocity, pitch);
  }

  letGo({ track, pad, at }: Pick<HandStroke, 'track' | 'pad' | 'at'>): void {
    this.around.pressures.letGoOfKey(track, pad, at);
    this.around.send({ type: 'padUp', track, pad, heard: this.around.frameHeard(at) });
    const state = this.store.getState();
    if (state.session.step) this.store.dispatch(stepReleased({ pad, ...stepSize(state) }));
  }

  /** What note repeat plays next is as hard; without it, a note that is held follows. */
  press({ track, pad, velocity, pressure, at }: HandPress): void {
    const state = this.store.getState();
    if (state.session.repeat.on) this.around.send({ type: 'padPress', track, pad, velocity });
    else if (selectHeardSet(state).tracks[track]?.tones) this.around.pressures.press(track, pad, pressure, at);
  }

  private enterStep(state: RootState, pad: number, velocity: number, away: number): void {
    const place = selectPlace(state);
    if (this.around.isFull(place)) return;
    const pitch = away + 12 * (selectTrack(state).tones?.octave ?? 0);
    const hit: Hit = {
      id: this.around.nextId(),
      pad,
      tick: state.session.step!.cursor,
      length: stepSize(state).grid / 2,
      velocity,
      snap: selectInputSnap(state),
      ...(pitch !== 0 && { pitch }),
    };
    this.store.dispatch(stepEntered({ place, hit }));
    this.store.dispatch(stepPressed(pad));
  }
}

/** Strokes are entered step by step. */
function isStepping({ session: { step, playing, repeat } }: RootState): boolean {
  return step !== null && !playing && !repeat.on;
}

/** What step input moves by, and where its loop ends, in ticks. */
export function stepSize(state: RootState): { grid: number; length: number } {
  return { grid: gridTicks(selectSet(state).inputQuantize.grid), length: selectPattern(state).length };
}
