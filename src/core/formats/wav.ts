import type { Stereo } from '../engine/offline';

const HEADER_BYTES = 44;
const BYTES_PER_SAMPLE = 3;
const FULL_SCALE = 8388607;

/**
 * Writes a stereo 24-bit PCM file (RIFF/WAVE, "Multimedia Programming Interface and Data Specifications 1.0", IBM and
 * Microsoft 1991). Samples beyond full scale are clipped.
 * @param sampleRate frames per second
 */
export function writeWav(audio: Stereo, sampleRate: number): Uint8Array<ArrayBuffer> {
  const frames = audio.left.length;
  const blockAlign = 2 * BYTES_PER_SAMPLE;
  const dataBytes = frames * blockAlign;
  const bytes = new Uint8Array(HEADER_BYTES + dataBytes);
  const view = new DataView(bytes.buffer);
  const text = (offset: number, four: string) => {
    for (let i = 0; i < 4; i++) bytes[offset + i] = four.charCodeAt(i);
  };
  text(0, 'RIFF');
  view.setUint32(4, HEADER_BYTES - 8 + dataBytes, true);
  text(8, 'WAVE');
  text(12, 'fmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 2, true);
  view.setUint32(24, sampleRate, true);
  view.setUint32(28, sampleRate * blockAlign, true);
  view.setUint16(32, blockAlign, true);
  view.setUint16(34, BYTES_PER_SAMPLE * 8, true);
  text(36, 'data');
  view.setUint32(40, dataBytes, true);
  let offset = HEADER_BYTES;
  for (let i = 0; i < frames; i++) {
    offset = writeSample(bytes, offset, audio.left[i]!);
    offset = writeSample(bytes, offset, audio.right[i]!);
  }
  return bytes;
}

function writeSample(bytes: Uint8Array, offset: number, sample: number): number {
  const value = Math.round(Math.max(-1, Math.min(1, sample)) * FULL_SCALE);
  bytes[offset] = value & 255;
  bytes[offset + 1] = (value >> 8) & 255;
  bytes[offset + 2] = (value >> 16) & 255;
  return offset + BYTES_PER_SAMPLE;
}
