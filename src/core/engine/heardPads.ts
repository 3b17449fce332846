import type { Handlers } from '../protocol/commands';
import type { Part } from './part';
import { MAX_TRACKS } from '../document/limits';

const ALL = 0xffff;

/** Which pads' pattern hits are heard: muted and soloed lanes. Hands are always heard. */
export class HeardPads implements Part {
  /** One bit for each pad. */
  private readonly pads = new Int32Array(MAX_TRACKS).fill(ALL);

  readonly commands: Handlers<'heardPads'> = {
    heardPads: ({ track, pads }) => {
      this.pads[track] = pads;
    },
  };

  isHeard(track: number, pad: number): boolean {
    return (this.pads[track]! & (1 << pad)) !== 0;
  }
}
