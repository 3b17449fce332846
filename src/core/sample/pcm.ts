import type { SampleAudio } from './levels';

/** Bytes of a number, and how many of its steps are full scale. */
const BYTES = 3;
const FULL = 8388608;

/**
 * Sound as whole numbers of 24 bits, the lowest byte first, channel after channel within a frame: how samples are kept and how they
 * are written to WAV files. What came as 16 or 24 bits stays what it was.
 */
export function toPcm24({ channels }: SampleAudio): Uint8Array<ArrayBuffer> {
  const frames = channels[0]!.length;
  const bytes = new Uint8Array(frames * channels.length * BYTES);
  channels.forEach((channel, c) => {
    for (let i = 0; i < frames; i++) {
      const value = Math.max(-FULL, Math.min(FULL - 1, Math.round(channel[i]! * FULL)));
      const at = (i * channels.length + c) * BYTES;
      bytes[at] = value & 255;
      bytes[at + 1] = (value >> 8) & 255;
      bytes[at + 2] = (value >> 16) & 255;
    }
  });
  return bytes;
}

/** The sound that `toPcm24` made numbers of. */
export function fromPcm24(bytes: Uint8Array, channels: number): SampleAudio {
  const frames = Math.floor(bytes.length / channels / BYTES);
  const read = (c: number) =>
    Float32Array.from({ length: frames }, (_, i) => {
      const at = (i * channels + c) * BYTES;
      return ((bytes[at]! | (bytes[at + 1]! << 8) | ((bytes[at + 2]! << 24) >> 8)) as number) / FULL;
    });
  return { channels: Array.from({ length: channels }, (_, c) => read(c)) };
}
