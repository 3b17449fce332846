import { MAX_TRACKS, PADS } from '../document/limits';
import { CONTROLS, HELD_CONTROLS, type HeldControl } from '../document/moves';
import type { EventQueue } from '../protocol/events';
import { Looks } from './looks';
import type { PadControls } from './padControls';
import type { Striker } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';

/** Has notes that sound follow what is done to their keys: as a hand does it, else as the Move of their pad goes on. */
export class HeldNotes extends Looks {
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
      if (!controls.playsNotes(track)) continue;
      const position = transport.playing ? rack.tracks[track]!.player.positionAt(tick) : NaN;
      for (let pad = 0; pad < PADS; pad++) {
        for (const control of HELD_CONTROLS) {
          if (controls.isMoved(control, track, pad)) isMoving = true;
          if (this.move(control, track, pad, controls.heldAt(control, track, pad, position))) isMoving = true;
        }
      }
    }
    return isMoving;
  }

  /** @returns whether it is elsewhere than before */
  private move(control: HeldControl, track: number, pad: number, value: number): boolean {
    const { voices, isSilent } = this.striker;
    if (voices.heldAt(control, track, pad) === value) return false;
    voices.move(control, track, pad, value, this.transport.frame);
    // Who skims hears nothing of it.
    if (isSilent) {
      const event = this.events.add('held', this.transport.frame);
      event.track = track;
      event.pad = pad;
      event.control = CONTROLS.indexOf(control);
      event.value = value;
    }
    return true;
  }
}
