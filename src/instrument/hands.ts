import type { Hit } from '@/core/document/hit';
import type { Sent } from '@/core/protocol/commands';
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
import { stepPressed, stepReleased, sustainSet } from '@/store/sessionSlice';
import type { RootState, Store } from '@/store/store';
import { ChordHands, type HeldNote } from './chordHands';
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

/** The finger on a held pad presses harder or softer, or slides sideways. */
export interface HandPress extends Pick<HandStroke, 'track' | 'pad' | 'at'> {
  /** As hard as a stroke would be, 0..1. */
  velocity: number;
  /** Beyond what it took to strike, 0..1. */
  pressure: number;
  /** How far to the right (below 0: to the left) of where it struck, -1..1; absent: it cannot slide. */
  aside?: number;
}

/** What the hands need of the instrument. */
interface Around {
  send: (...sent: Sent[]) => void;
  frameHeard: (timeStamp: number) => number;
  /** Frames in so many ms. */
  framesIn: (ms: number) => number;
  nextId: () => number;
  isFull: (place: PatternPlace) => boolean;
  keys: Pick<Rides, 'moveKey' | 'letGoOfKey'>;
}

/** Hands on the pads: strokes, and how they are held and let go. */
export class Hands {
  private readonly chords = new ChordHands();
  /** Pads of notes that were let go while they are sustained, by track. */
  private readonly sustained = new Map<number, Set<number>>();

  constructor(
    private readonly store: Store,
    private readonly around: Around,
  ) {}

  strike({ track, pad, velocity, at, pitch = 0, through = false }: HandStroke): void {
    const { send, frameHeard, framesIn, nextId } = this.around;
    const heard = frameHeard(at);
    const state = this.store.getState();
    const steps = !through && isStepping(state) && track === selectShown(state);
    // Struck again before it was let go, as by another device, or while it is sustained: its chord may lie otherwise now.
    if (this.chords.has(track, pad)) this.end(track, pad, at);
    const notes = this.chords.down(track, pad, pitch, selectHeardSet(state).tracks[track]?.tones);
    for (const note of notes) {
      const after = framesIn(note.late);
      const apart = {
        ...(note.pitch !== 0 && { pitch: note.pitch }),
        ...(through && { through }),
        ...(after && { after }),
      };
      send({ type: 'padDown', track, pad: note.pad, velocity, heard: heard + after, id: nextId(), ...apart });
      if (steps) this.enterStep(note.pad, velocity, note.pitch);
    }
  }

  letGo({ track, pad, at }: Pick<HandStroke, 'track' | 'pad' | 'at'>): void {
    const state = this.store.getState();
    if (state.session.sustaining && !state.session.step && selectHeardSet(state).tracks[track]?.tones) {
      this.sustained.set(track, (this.sustained.get(track) ?? new Set()).add(pad));
      return;
    }
    for (const note of this.end(track, pad, at)) {
      if (state.session.step) this.store.dispatch(stepReleased({ pad: note.pad, ...stepSize(state) }));
    }
  }

  /**
   * Notes that are let go from now on go on until it ends, as by the pedal of a piano. A kit's sounds end by themselves.
   * @param at when, ms
   */
  sustain(on: boolean, at: number): void {
    this.store.dispatch(sustainSet(on));
    if (on) return;
    for (const [track, pads] of this.sustained) for (const pad of [...pads]) this.end(track, pad, at);
  }

  /** What a finger plays ends. */
  private end(track: number, pad: number, at: number): readonly HeldNote[] {
    const { send, frameHeard, framesIn, keys } = this.around;
    const heard = frameHeard(at);
    this.sustained.get(track)?.delete(pad);
    const notes = this.chords.up(track, pad);
    for (const note of notes) {
      const after = framesIn(note.ends);
      keys.letGoOfKey(track, note.pad, at);
      send({ type: 'padUp', track, pad: note.pad, heard: heard + after, ...(after && { after }) });
    }
    return notes;
  }

  /** Lets go of everything, also of what is still to come of a chord that is strummed. */
  releaseAll(): void {
    this.sustained.clear();
    const after = this.around.framesIn(this.chords.release());
    this.around.send({ type: 'releaseAll' });
    if (after > 0) this.around.send({ type: 'releaseAll', after });
  }

  /** What note repeat plays next is as hard; without it, a note that is held follows: how it is pressed, and how bright it is. */
  press({ track, pad, velocity, pressure, aside, at }: HandPress): void {
    const state = this.store.getState();
    const isNote = selectHeardSet(state).tracks[track]?.tones !== undefined;
    const { send, keys } = this.around;
    for (const note of this.chords.of(track, pad)) {
      if (state.session.repeat.on) send({ type: 'padPress', track, pad: note.pad, velocity });
      else if (isNote) {
        keys.moveKey(track, { pad: note.pad, control: 'pressure' }, pressure, at);
        if (aside !== undefined) keys.moveKey(track, { pad: note.pad, control: 'bright' }, aside, at);
      }
    }
  }

  private enterStep(pad: number, velocity: number, away: number): void {
    const state = this.store.getState();
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
