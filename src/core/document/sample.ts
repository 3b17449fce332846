/** A recording as the source of a sound: which audio, by what is in it, and how long that is. */
export interface SampleSource {
  /** Names the audio: see `SAMPLE_ID`. */
  sample: string;
  /** Frames at 48 kHz. */
  frames: number;
}

/** The first half of the SHA-256 of what a recording holds, in hexadecimal: the same audio has the same name everywhere. */
export const SAMPLE_ID = /^[0-9a-f]{32}$/;

export function isSampleId(value: unknown): value is string {
  return typeof value === 'string' && SAMPLE_ID.test(value);
}

/** Longest sample, and all samples of a set together: a minute of a channel takes 80 MB while it can be played. */
export const MOST_SAMPLE_SECONDS = 60;
export const MOST_SET_SECONDS = 150;

export const MOST_SAMPLE_FRAMES = MOST_SAMPLE_SECONDS * 48000;

/** Most places at which a sample can be cut. */
export const MOST_CUTS = 256;
