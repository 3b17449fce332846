import { MAX_TRACKS, PADS } from '../document/limits';
import type { EventQueue } from '../protocol/events';
import { Looks } from './looks';
import type { PadControls } from './padControls';
import type { Striker } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';

/** Has notes that sound follow the pressure on their keys: as a hand presses, else as the Move of their pad goes on. */
export class Pressures extends Looks {
  constructor(
    transport: Transport,
    private readonly rack: TrackRack,
    private readonly controls: PadControls,
    private readonly striker: Striker,
    private readonly events: EventQueue,
  ) {
    super(transport);
  }

  protected look(): boolean {
    const { transport, rack, controls } = this;
    const tick = transport.songTick;
    let isMoving = false;
    for (let track = 0; track < MAX_TRACKS; track++) {
      const position = transport.playing ? rack.tracks[track]!.player.positionAt(tick) : NaN;
      for (let pad = 0; pad < PADS; pad++) {
        if (controls.isPressed(track, pad)) isMoving = true;
        if (this.press(track, pad, controls.pressure(track, pad, position))) isMoving = true;
      }
    }
    return isMoving;
  }

  /** @returns whether it is another pressure than before */
  private press(track: number, pad: number, pressure: number): boolean {
    const { voices, isSilent } = this.striker;
    if (voices.pressureOn(track, pad) === pressure) return false;
    voices.press(track, pad, pressure);
    // Who skims hears nothing of it.
    if (isSilent) {
      const event = this.events.add('pressed', this.transport.frame);
      event.track = track;
      event.pad = pad;
      event.pressure = pressure;
    }
    return true;
  }
}
