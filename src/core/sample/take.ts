import type { SampleAudio } from './levels';

/** What is louder than this has begun, and what is softer for so long has ended: -40 dB of full scale, and seconds. */
const SOUND = 0.01;
const SILENT_SECONDS = 1.5;
/** What is kept before it is known from when on it is wanted, seconds. */
const KEPT_BEFORE = 3;

interface Piece {
  frame: number;
  channels: readonly Float32Array[];
}

interface Options {
  /** Frames per second, and the most frames of a take. */
  rate: number;
  most: number;
  /** It ends itself when silence has returned. */
  endsItself: boolean;
}

/**
 * A recording that goes on: what comes from the microphone piece by piece, from a frame on that may become known only after it has gone
 * by, until silence returns or it is long enough.
 */
export class Take {
  private pieces: Piece[] = [];
  /** Frames at which it begins and ends: not before they are known. */
  private from = Infinity;
  private to = Infinity;
  private hasSounded = false;
  /** Frame of the last that was loud. */
  private lastLoud = 0;

  constructor(private readonly options: Options) {}

  /** It begins at a frame: one that is still to come, or one of the last seconds. */
  begin(frame: number): void {
    this.from = frame;
    this.pieces.filter((piece) => piece.frame >= frame).forEach((piece) => this.listen(piece));
  }

  /** It ends at a frame. */
  end(frame: number): void {
    this.to = Math.min(this.to, frame);
  }

  /** Whether all of it is there. */
  isOver(frame: number): boolean {
    return frame >= this.to;
  }

  /** Frames of it so far. */
  lengthAt(frame: number): number {
    return Math.max(0, Math.min(frame, this.to) - this.from);
  }

  /** The next piece; pieces follow each other without a gap. */
  add(frame: number, channels: readonly Float32Array[]): void {
    const piece = { frame, channels };
    this.pieces.push(piece);
    if (this.from === Infinity) {
      const before = frame - KEPT_BEFORE * this.options.rate;
      this.pieces = this.pieces.filter((old) => old.frame >= before);
    } else this.listen(piece);
  }

  /** All of it, from its first frame to its last. */
  audio(): SampleAudio {
    const count = this.pieces[0]?.channels.length ?? 1;
    const last = this.pieces.at(-1);
    const end = Math.min(this.to, last ? last.frame + last.channels[0]!.length : 0);
    const frames = Math.max(0, Math.min(this.options.most, end - this.from));
    const channels = Array.from({ length: count }, () => new Float32Array(frames));
    for (const piece of this.pieces) {
      const at = piece.frame - this.from;
      piece.channels.forEach((samples, c) => {
        const first = Math.max(0, -at);
        const most = Math.min(samples.length, frames - at);
        if (most > first) channels[c]!.set(samples.subarray(first, most), at + first);
      });
    }
    return { channels };
  }

  private listen({ frame, channels }: Piece): void {
    const { rate, most, endsItself } = this.options;
    this.end(this.from + most);
    for (const channel of channels) {
      for (let i = 0; i < channel.length; i++) {
        if (Math.abs(channel[i]!) >= SOUND && frame + i >= this.from) {
          this.hasSounded = true;
          this.lastLoud = Math.max(this.lastLoud, frame + i);
        }
      }
    }
    const now = frame + channels[0]!.length;
    if (endsItself && this.hasSounded && now - this.lastLoud >= SILENT_SECONDS * rate) this.end(now);
  }
}

/** Frames kept before what begins to sound, and after what has ended: 5 and 50 ms at 48 kHz. */
const KEPT_HEAD = 240;
const KEPT_TAIL = 2400;
/** Silence is what lies so far below the loudest, 46 dB. */
const SILENCE = 0.005;
/** How loud the loudest is made: 1 dB below full scale. */
const LOUDEST = 0.891;

/** The loudest of a sound, 0..1. */
export function loudestOf({ channels }: SampleAudio): number {
  return Math.max(...channels.map((channel) => channel.reduce((most, v) => Math.max(most, Math.abs(v)), 0)));
}

/** A sound without the silence before and after it. What is silent as a whole stays as it is. */
export function trimmed(audio: SampleAudio): SampleAudio {
  const floor = loudestOf(audio) * SILENCE;
  if (floor === 0) return audio;
  const isLoud = (i: number) => audio.channels.some((channel) => Math.abs(channel[i]!) > floor);
  let from = 0;
  let to = audio.channels[0]!.length;
  while (!isLoud(from)) from++;
  while (!isLoud(to - 1)) to--;
  const [first, end] = [Math.max(0, from - KEPT_HEAD), to + KEPT_TAIL];
  return { channels: audio.channels.map((channel) => channel.slice(first, end)) };
}

/** A sound as loud as it can well be. */
export function levelled(audio: SampleAudio): SampleAudio {
  const loudest = loudestOf(audio);
  if (loudest === 0) return audio;
  return { channels: audio.channels.map((channel) => channel.map((v) => (v * LOUDEST) / loudest)) };
}
