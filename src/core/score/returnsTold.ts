import { ECHO_TIMES, FIRST_ECHO, FIRST_ROOM } from '../document/mix';
import { ECHO_TIME_NAMES, RETURN_CONTROLS } from '../document/returns';
import type { Instruction } from '../protocol/commands';
import { echoInstruction } from '../protocol/mixInstructions';

type OfReturn = Instruction<'echo' | 'room'>;

/** The echo and the room of a run as they were: what they were told last, and what was moved in the place of that. */
export class ReturnsTold {
  private echo = echoInstruction(FIRST_ECHO);
  private room: Instruction<'room'> = { type: 'room', ...FIRST_ROOM };
  /** By places in RETURN_CONTROLS; NaN where nothing moves it. */
  private readonly moves = RETURN_CONTROLS.map(() => NaN);

  /** It is set. @returns what an engine without Moves is told */
  command(told: OfReturn): OfReturn {
    if (told.type === 'echo') this.echo = told;
    else this.room = told;
    return this.asItIs(told.type);
  }

  /** A Move or a hand has a control there; NaN: no more. @returns as `command` */
  moved(place: number, value: number): OfReturn {
    this.moves[place] = value;
    return this.asItIs(RETURN_CONTROLS[place]!.on);
  }

  private asItIs(on: OfReturn['type']): OfReturn {
    const told = { ...this[on] };
    RETURN_CONTROLS.forEach((one, place) => {
      const value = this.moves[place]!;
      if (one.on !== on || Number.isNaN(value)) return;
      if (one.control === 'time') Object.assign(told, { ticks: ECHO_TIMES[ECHO_TIME_NAMES[value]!], ms: 0 });
      else Object.assign(told, { [one.control]: value });
    });
    return told;
  }
}
