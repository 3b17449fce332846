/** How a head that is moved gets there: it slows down on the last of the way, and needs a while to set out. Seconds. */
const WAY_SECONDS = 0.12;
const INERTIA_SECONDS = 0.03;
/** It moves so fast at most that what it reads sounds an octave lower (as the time grows), or an octave higher. Frames per frame. */
const FASTEST_UP = 0.5;
const FASTEST_DOWN = -1;
/** Nearer than this to its place and slower than this it is there: an error that is 60 dB down at 1 kHz. Frames, and frames per frame. */
const NEAR = 0.01;
const SLOW = 1e-4;

/** By how many frames something is delayed, as by the head of a tape: when that changes, the head moves, and what it reads bends in pitch. */
export class TapeTime {
  /** Frames, with a fraction while it moves; and by how many they change with each frame. */
  frames: number;
  private speed = 0;
  private wanted: number;
  private readonly slowing: number;
  private readonly inertia: number;

  /** @param shortest frames that it never goes below */
  constructor(
    private readonly shortest: number,
    sampleRate: number,
  ) {
    this.frames = this.wanted = shortest;
    this.slowing = 1 / (WAY_SECONDS * sampleRate);
    this.inertia = 1 / (INERTIA_SECONDS * sampleRate);
  }

  get isMoving(): boolean {
    return this.frames !== this.wanted;
  }

  /** Frames by which anything is late at most. */
  get longest(): number {
    return Math.max(this.frames, this.wanted);
  }

  goTo(frames: number): void {
    this.wanted = frames;
  }

  /** It is at once where it is told to be, or elsewhere on its way there. */
  arrive(frames = this.wanted): void {
    this.frames = frames;
    this.speed = 0;
  }

  /** Whether it has come to its place is looked at now and then. */
  look(): void {
    const rest = this.wanted - this.frames;
    if (rest < NEAR && rest > -NEAR && this.speed < SLOW && this.speed > -SLOW) this.arrive();
  }

  /** Where it is at each of the next frames. */
  fill(delays: Float64Array, count: number): void {
    const { wanted, slowing, inertia, shortest } = this;
    let { frames, speed } = this;
    for (let i = 0; i < count; i++) {
      delays[i] = frames;
      const pace = (wanted - frames) * slowing;
      const within = pace > FASTEST_UP ? FASTEST_UP : pace < FASTEST_DOWN ? FASTEST_DOWN : pace;
      speed += (within - speed) * inertia;
      frames += speed;
      if (frames < shortest) {
        frames = shortest;
        speed = 0;
      }
    }
    this.frames = frames;
    this.speed = speed;
  }
}
