import { CONTROL_RANGES, CONTROLS, moveIndex, PAD_TABLES, SHAPING_CONTROLS, type HeldControl } from '../document/moves';
import type { Handlers } from '../protocol/commands';
import type { EngineState } from '../protocol/engineState';
import { moveValue } from '../sequence/moveValue';
import { makePlain, PLAIN, type Shape } from '../sound/shape';
import type { Part } from './part';
import type { SoundRack } from './soundRack';
import type { TrackRack } from './trackRack';
import { MAX_TRACKS } from '../document/limits';

const RANGES = CONTROLS.map((control) => CONTROL_RANGES[control]);
/** Places in CONTROLS of the controls that shape a stroke. */
const PLACES = SHAPING_CONTROLS.map((control) => CONTROLS.indexOf(control));
const RATE = CONTROLS.indexOf('rate');
const HELD_PLACES: Record<HeldControl, number> = {
  pressure: CONTROLS.indexOf('pressure'),
  bright: CONTROLS.indexOf('bright'),
};

/** What hands and Moves do to each pad's sound: together one `Shape` for each stroke. */
export class PadControls implements Part {
  /** Where hands hold the pads' controls, NaN where they do not. */
  private readonly turns = Array.from({ length: MAX_TRACKS }, () => new Float64Array(PAD_TABLES).fill(NaN));
  /** Which tracks hands hold any of. */
  private readonly isTurned = new Uint8Array(MAX_TRACKS);
  private readonly shape: Shape = { ...PLAIN };

  constructor(
    private readonly rack: TrackRack,
    private readonly sounds: SoundRack,
  ) {}

  readonly commands: Handlers<'turn'> = {
    turn: ({ track, pad, control, value }) => {
      this.turns[track]![moveIndex(pad, CONTROLS.indexOf(control))] = value;
      this.noteTurned(track);
    },
  };

  /** The controls that hands hold. */
  get data(): EngineState['turns'] {
    return this.turns.flatMap((tables, track) =>
      Array.from(tables).flatMap((value, table) => (Number.isNaN(value) ? [] : [{ track, table, value }])),
    );
  }

  /** Takes over what other hands hold. */
  takeData(turns: EngineState['turns']): void {
    for (const { track, table, value } of turns) {
      this.turns[track]![table] = value;
      this.noteTurned(track);
    }
  }

  /**
   * How a stroke differs from its sound. Read it at once: the next call overwrites it.
   * @param pitch semitones of the hit's own
   * @param position where the loop is, in the pattern; NaN when it stands still
   */
  shapeOf(track: number, pad: number, pitch: number, position: number): Shape {
    const { shape } = this;
    if (this.isTurned[track] === 0 && !this.rack.tracks[track]!.player.movesPads) makePlain(shape);
    else for (let i = 0; i < PLACES.length; i++) shape[SHAPING_CONTROLS[i]!] = this.value(track, pad, PLACES[i]!, position); // prettier-ignore
    shape.pitch += pitch;
    shape.note = this.padNote(track, pad);
    return shape;
  }

  playsNotes(track: number): boolean {
    return this.sounds.tracks[track]!.notes !== null;
  }

  /** MIDI note of a pad of a track that plays notes; NaN where it plays a kit. */
  padNote(track: number, pad: number): number {
    const { notes } = this.sounds.tracks[track]!;
    return notes ? notes[pad]! : NaN;
  }

  /** Place in REPEAT_RATES of the rate that a hand or a Move has a pad repeat at; -1 when none does. */
  repeatRate(track: number, pad: number, position: number): number {
    const table = moveIndex(pad, RATE);
    const turn = this.turns[track]![table]!;
    if (Number.isNaN(turn) && this.rack.tracks[track]!.player.moves[table] === null) return -1;
    return Math.round(this.value(track, pad, RATE, position));
  }

  /** Whether a hand moves a control of a pad, or a Move of what plays does. */
  isMoved(control: HeldControl, track: number, pad: number): boolean {
    const table = moveIndex(pad, HELD_PLACES[control]);
    return !Number.isNaN(this.turns[track]![table]!) || this.rack.tracks[track]!.player.moves[table] !== null;
  }

  /** Where a control of what a pad holds is, in the control's range. @param position as in `shapeOf` */
  heldAt(control: HeldControl, track: number, pad: number, position: number): number {
    return this.value(track, pad, HELD_PLACES[control], position);
  }

  trackRemoved(track: number): void {
    this.turns[track]!.fill(NaN);
    this.noteTurned(track);
  }

  private noteTurned(track: number): void {
    this.isTurned[track] = this.turns[track]!.some((value) => !Number.isNaN(value)) ? 1 : 0;
  }

  /** What a pad's control is now: where a hand holds it, else where its Move has it, else neutral. */
  private value(track: number, pad: number, control: number, position: number): number {
    const table = moveIndex(pad, control);
    const { min, max, neutral } = RANGES[control]!;
    const turn = this.turns[track]![table]!;
    const points = this.rack.tracks[track]!.player.moves[table];
    let value = neutral;
    if (!Number.isNaN(turn)) value = turn;
    else if (points && !Number.isNaN(position)) value = moveValue(points, position, control === RATE);
    return Math.min(max, Math.max(min, value));
  }
}
