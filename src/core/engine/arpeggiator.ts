import { PADS } from '../document/limits';
import type { Arpeggio } from '../document/tones';
import { arpPlace, arpRound } from '../sequence/arpeggio';
import type { RepeatingPad } from '../sequence/noteRepeat';

/** The held notes of one track in turn: at each line of note repeat one of them sounds. */
export class Arpeggiator {
  /** The line that sounded last, song ticks. */
  lastLine = -Infinity;
  /** Whose turn it is, and how many semitones higher than it is held. */
  pad = 0;
  higher = 0;
  private turn = 0;
  private pressed = 0;
  /** Pads that take part, in their order. */
  private readonly order = new Int32Array(PADS);

  /** A pad begins to take part. */
  join(pads: readonly RepeatingPad[], joining: RepeatingPad): void {
    let isFirst = true;
    for (let pad = 0; pad < PADS; pad++) if (pads[pad]!.active && pads[pad] !== joining) isFirst = false;
    if (isFirst) {
      this.turn = 0;
      this.lastLine = -Infinity;
    }
    joining.pressed = ++this.pressed;
  }

  /** The pad that was just pressed has sounded on its line, as the first of all or by itself. */
  sounded(line: number): void {
    this.lastLine = line;
    this.turn++;
  }

  /** The note that sounded last takes part no more: those after it move up. */
  left(): void {
    this.turn--;
  }

  /** Goes on to the next turn. Some pad takes part. */
  goOn(pads: readonly RepeatingPad[], { order, octaves }: Arpeggio, line: number): void {
    let notes = 0;
    for (let pad = 0; pad < PADS; pad++) {
      if (!pads[pad]!.active) continue;
      let at = notes++;
      // As they were pressed: those that came later go up.
      while (order === 'played' && at > 0 && pads[this.order[at - 1]!]!.pressed > pads[pad]!.pressed) {
        this.order[at] = this.order[at - 1]!;
        at--;
      }
      this.order[at] = pad;
    }
    this.turn %= arpRound(order, notes * octaves);
    const place = arpPlace(order, notes, octaves, this.turn);
    this.pad = this.order[place % notes]!;
    this.higher = 12 * Math.floor(place / notes);
    this.sounded(line);
  }
}
