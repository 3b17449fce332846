import { ECHO_TIMES } from '../document/mix';
import { ECHO_TIME_NAMES, RETURN_CONTROLS, returnPlace, returnRange } from '../document/returns';
import type { Handlers } from '../protocol/commands';
import { Echo } from '../sound/mix/echo';
import type { MixBus } from '../sound/mix/mixBus';
import { Room } from '../sound/mix/room/room';
import type { Transport } from './transport';

const TIME = returnPlace({ on: 'echo', control: 'time' });
const TICKS = ECHO_TIME_NAMES.map((name) => ECHO_TIMES[name]);

/** The echo and the room that all channels send to: what they are set to, and what is moved in the place of that. */
export class Returns {
  private readonly room: Room;
  private readonly echo: Echo;
  /** What RETURN_CONTROLS are set to. The echo's time lies apart: it need not be a note value. */
  private readonly settings = Float64Array.from(RETURN_CONTROLS, (control) => returnRange(control)!.neutral);
  /** Ticks between two echoes; 0 where they are told in ms. */
  private ticks: number = ECHO_TIMES['1/8 dotted'];
  private ms = 0;
  /** The tempo that the echo's time was computed for; 0: it is to be computed anew. */
  private framesPerTick = 0;

  /** @param moved where RETURN_CONTROLS are moved to in the place of their settings; NaN where they are not */
  constructor(
    private readonly sampleRate: number,
    private readonly transport: Transport,
    private readonly moved: Float64Array,
  ) {
    this.room = new Room(sampleRate);
    this.echo = new Echo(sampleRate);
  }

  readonly commands: Handlers<'echo' | 'room'> = {
    echo: ({ ticks, ms, feedback, tone, width, tape }) => {
      this.ticks = ticks;
      this.ms = ms;
      this.framesPerTick = 0;
      this.echo.setTape(tape === true);
      this.set('echo', { feedback, tone, width });
    },
    room: ({ size, damping, width, preDelay }) => this.set('room', { size, damping, width, preDelay }),
  };

  /** @param at place in RETURN_CONTROLS @param value NaN: it goes back to its setting */
  move(at: number, value: number): void {
    this.moved[at] = value;
    this.turn(at, Number.isNaN(value) ? this.settings[at]! : value);
  }

  /** Nothing is left in them. */
  get isSilent(): boolean {
    return this.echo.isAsleep && this.room.isAsleep;
  }

  /** Adds what comes back of what was sent on a bus to its two sides. */
  process(bus: MixBus, frames: number): void {
    const { frame } = this.transport;
    this.room.process(bus.send, bus.left, bus.right, frames, frame);
    this.lookAtTime();
    if (this.echo.isAsleep && !bus.hasEcho) return;
    this.echo.process(bus.echo, bus.left, bus.right, frames, frame);
  }

  private set(on: 'echo' | 'room', values: Readonly<Record<string, number>>): void {
    RETURN_CONTROLS.forEach((one, at) => {
      const value = values[one.control];
      // What stays as it is goes on to where it was told to be before.
      if (one.on !== on || value === undefined || value === this.settings[at]) return;
      this.settings[at] = value;
      if (Number.isNaN(this.moved[at]!)) this.turn(at, value);
    });
  }

  private turn(at: number, value: number): void {
    const { on, control } = RETURN_CONTROLS[at]!;
    if (control === 'time') this.framesPerTick = 0;
    else if (on === 'echo') this.echo.set(control, value);
    else this.room.set(control, value);
  }

  /** The echo's time is looked at anew whenever it or the tempo was changed. */
  private lookAtTime(): void {
    const { framesPerTick } = this.transport.now;
    if (framesPerTick === this.framesPerTick) return;
    this.framesPerTick = framesPerTick;
    const moved = this.moved[TIME]!;
    const ticks = Number.isNaN(moved) ? this.ticks : TICKS[moved]!;
    this.echo.setTime(ticks > 0 ? ticks * framesPerTick : (this.ms * this.sampleRate) / 1000);
  }
}
