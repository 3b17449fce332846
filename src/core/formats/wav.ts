import type { Stereo } from '../engine/offline';
import { random } from '../random';

/** How samples are written: whole numbers of 16 or 24 bits, or floats of 32. */
export const WAV_FORMATS = ['pcm16', 'pcm24', 'float32'] as const;
export type WavFormat = (typeof WAV_FORMATS)[number];

const BYTES: Record<WavFormat, number> = { pcm16: 2, pcm24: 3, float32: 4 };
const CHANNELS = 2;
/** Format codes: PCM and IEEE float. */
const PCM = 1;
const FLOAT = 3;

/**
 * The beginning of a WAV file, up to its first sample (RIFF/WAVE, "Multimedia Programming Interface and Data Specifications
 * 1.0", IBM and Microsoft 1991; floats have a longer format chunk and a fact chunk).
 * @param sampleRate frames per second
 * @param frames how many will follow
 */
export function wavHeader(
  format: WavFormat,
  sampleRate: number,
  frames: number,
  channels = CHANNELS,
): Uint8Array<ArrayBuffer> {
  const bytes = BYTES[format];
  const isFloat = format === 'float32';
  const size = isFloat ? 58 : 44;
  const dataBytes = frames * channels * bytes;
  const header = new Uint8Array(size);
  const view = new DataView(header.buffer);
  const text = (at: number, four: string) => {
    for (let i = 0; i < 4; i++) header[at + i] = four.charCodeAt(i);
  };
  text(0, 'RIFF');
  view.setUint32(4, size - 8 + dataBytes, true);
  text(8, 'WAVE');
  text(12, 'fmt ');
  view.setUint32(16, isFloat ? 18 : 16, true);
  view.setUint16(20, isFloat ? FLOAT : PCM, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, sampleRate, true);
  view.setUint32(28, sampleRate * channels * bytes, true);
  view.setUint16(32, channels * bytes, true);
  view.setUint16(34, bytes * 8, true);
  if (isFloat) {
    text(38, 'fact');
    view.setUint32(42, 4, true);
    view.setUint32(46, frames, true);
  }
  text(size - 8, 'data');
  view.setUint32(size - 4, dataBytes, true);
  return header;
}

/** Writes the samples of a WAV file, one stretch after the other. */
export class WavSamples {
  private readonly chance = random(1);

  constructor(private readonly format: WavFormat) {}

  /** The next samples as bytes. Whole numbers beyond full scale are clipped. */
  bytes({ left, right }: Stereo): Uint8Array<ArrayBuffer> {
    const out = new Uint8Array(left.length * CHANNELS * BYTES[this.format]);
    if (this.format === 'float32') writeFloats(out, left, right);
    else if (this.format === 'pcm24') writeThrees(out, left, right);
    else this.writeTwos(out, left, right);
    return out;
  }

  private writeTwos(out: Uint8Array<ArrayBuffer>, left: Float32Array, right: Float32Array): void {
    const view = new DataView(out.buffer);
    for (let i = 0; i < left.length; i++) {
      view.setInt16(4 * i, this.dithered(left[i]!), true);
      view.setInt16(4 * i + 2, this.dithered(right[i]!), true);
    }
  }

  /**
   * 16 bits with triangular dither of two steps: what is rounded away becomes an even noise instead of distortion (Lipshitz,
   * Wannamaker and Vanderkooy, "Quantization and Dither", J. Audio Eng. Soc. 40, 1992).
   */
  private dithered(sample: number): number {
    if (sample === 0) return 0; // digital silence stays silent
    const noise = this.chance() - this.chance();
    return Math.max(-32768, Math.min(32767, Math.round(Math.max(-1, Math.min(1, sample)) * 32767 + noise)));
  }
}

/**
 * Writes a stereo 24-bit PCM file.
 * @param sampleRate frames per second
 */
export function writeWav(audio: Stereo, sampleRate: number): Uint8Array<ArrayBuffer> {
  const header = wavHeader('pcm24', sampleRate, audio.left.length);
  const samples = new WavSamples('pcm24').bytes(audio);
  const bytes = new Uint8Array(header.length + samples.length);
  bytes.set(header);
  bytes.set(samples, header.length);
  return bytes;
}

function writeFloats(out: Uint8Array<ArrayBuffer>, left: Float32Array, right: Float32Array): void {
  const view = new DataView(out.buffer);
  for (let i = 0; i < left.length; i++) {
    view.setFloat32(8 * i, left[i]!, true);
    view.setFloat32(8 * i + 4, right[i]!, true);
  }
}

function writeThrees(out: Uint8Array, left: Float32Array, right: Float32Array): void {
  for (let i = 0; i < left.length; i++) {
    writeThree(out, 6 * i, left[i]!);
    writeThree(out, 6 * i + 3, right[i]!);
  }
}

function writeThree(bytes: Uint8Array, at: number, sample: number): void {
  const value = Math.round(Math.max(-1, Math.min(1, sample)) * 8388607);
  bytes[at] = value & 255;
  bytes[at + 1] = (value >> 8) & 255;
  bytes[at + 2] = (value >> 16) & 255;
}
