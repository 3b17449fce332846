/**
 * Frames from one look at what moves in the mix to the next, counted from frame 0. Between two looks everything goes in a line, sample by
 * sample, so that no block changes the sound.
 */
export const LOOK_FRAMES = 32;
/** And where nothing moves, nor is on its way to come or go: fewer looks, and longer stretches of sound at once. */
export const STILL_LOOK_FRAMES = 128;
/** So long a setting takes to where it is told to be: quick for a hand, too slow to click. */
const GLIDE_SECONDS = 0.01;

/** Looks that a setting takes to where it is told to be. */
export function glideLooks(sampleRate: number): number {
  return Math.max(1, Math.round((GLIDE_SECONDS * sampleRate) / LOOK_FRAMES));
}

/** Numbers, the first of them, go in a line to these until the next look. After as many as there are targets lie their steps with each sample. */
export function setOut(numbers: Float64Array, targets: Float64Array): void {
  const count = targets.length;
  for (let i = 0; i < count; i++) numbers[count + i] = (targets[i]! - numbers[i]!) / LOOK_FRAMES;
}

/** They are where they set out to, to the bit, and stay there. */
export function stayThere(numbers: Float64Array, targets: Float64Array): void {
  numbers.set(targets);
  numbers.fill(0, targets.length, 2 * targets.length);
}

/** A setting on its way to where it was told to be. */
export class Glide {
  value: number;
  private target: number;
  private step = 0;
  private left = 0;

  constructor(
    value: number,
    private readonly looks: number,
  ) {
    this.value = value;
    this.target = value;
  }

  /** It sets out at the next look. */
  goTo(target: number): void {
    this.target = target;
    this.left = this.looks;
    this.step = (target - this.value) / this.looks;
  }

  /** It is there at once: where nothing is heard. */
  arrive(): void {
    this.value = this.target;
    this.left = 0;
  }

  get isThere(): boolean {
    return this.left === 0;
  }

  /** Goes on by one look. @returns whether it has moved */
  look(): boolean {
    if (this.left === 0) return false;
    this.left--;
    this.value = this.left === 0 ? this.target : this.value + this.step;
    return true;
  }
}
