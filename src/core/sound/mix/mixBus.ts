import { soundMemory, takeBytes } from '../soundMemory';
import { MAX_STRETCH } from '../stretch';
import { VoiceBus } from '../voiceBus';

/** A bus that sends to the echo, too, once a channel does. */
export class MixBus extends VoiceBus {
  readonly echoAt = takeBytes(8 * MAX_STRETCH);
  readonly echo = new Float64Array(soundMemory, this.echoAt, MAX_STRETCH);
  /** Whether anything is in it. */
  hasEcho = false;

  override clear(frames: number): void {
    super.clear(frames);
    // All of it: the stretch before may have been longer.
    if (this.hasEcho) this.echo.fill(0);
    this.hasEcho = false;
  }
}
