import { ROOM_RANGES } from '../../../document/mix';
import { DelayTime } from '../delayTime';

/** What is sent to the room comes there later. */
export class PreDelay {
  private readonly line: Float64Array;
  private readonly time: DelayTime;
  private at = 0;

  constructor(private readonly sampleRate: number) {
    this.line = new Float64Array(Math.round((ROOM_RANGES.preDelay.max * sampleRate) / 1000) + 1);
    this.time = new DelayTime(0, sampleRate);
  }

  /** Frames by which anything in it is late at most. */
  get longest(): number {
    return this.time.longest;
  }

  goTo(ms: number): void {
    this.time.goTo(Math.round((ms * this.sampleRate) / 1000));
  }

  arrive(): void {
    this.time.arrive();
  }

  look(): void {
    this.time.look();
  }

  /** In place. */
  process(sound: Float64Array, frames: number): void {
    const { line, time } = this;
    const { fadeStep } = time;
    const size = line.length;
    let { at } = this;
    let { fade } = time;
    let near = (at + size - time.frames) % size;
    let far = (at + size - time.before) % size;
    for (let i = 0; i < frames; i++) {
      line[at] = sound[i]!;
      let late = line[near]!;
      if (fade < 1) {
        late = fade * late + (1 - fade) * line[far]!;
        fade += fadeStep;
      }
      sound[i] = late;
      if (++at === size) at = 0;
      if (++near === size) near = 0;
      if (++far === size) far = 0;
    }
    this.at = at;
    time.fade = fade;
  }

  clear(): void {
    this.line.fill(0);
    this.at = 0;
    this.arrive();
  }
}
