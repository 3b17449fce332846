import { SAMPLE_RATE, type SampleAudio } from '../sample/levels';
import { toPcm24 } from '../sample/pcm';
import { wavHeader } from './wav';

/**
 * Chunks of a WAV file (RIFF/WAVE, "Multimedia Programming Interface and Data Specifications 1.0", IBM and Microsoft 1991). Cue points
 * are places in the sound, frames from its beginning.
 */
interface Chunk {
  id: string;
  from: number;
  length: number;
}

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

/** What a WAV file says of itself. */
export interface WavFacts {
  channels: number;
  sampleRate: number;
  frames: number;
  /** Frames, in order, within the sound. */
  cues: number[];
}

export function isWav(bytes: Uint8Array): boolean {
  return textAt(bytes, 0) === 'RIFF' && textAt(bytes, 8) === 'WAVE';
}

/** Reads what a WAV file says of itself, or what is wrong with it in a sentence; never throws. */
export function wavFacts(bytes: Uint8Array): WavFacts | { error: string } {
  if (!isWav(bytes)) return { error: 'It is no WAV file.' };
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunks = chunksOf(bytes, view);
  const format = chunks.find(({ id, length }) => id === 'fmt ' && length >= 16);
  const data = chunks.find(({ id }) => id === 'data');
  if (!format || !data) return { error: 'The WAV file is cut off: it says nothing of its sound.' };
  const kind = view.getUint16(format.from, true);
  const channels = view.getUint16(format.from + 2, true);
  const sampleRate = view.getUint32(format.from + 4, true);
  const bits = view.getUint16(format.from + 14, true);
  if (![PCM, FLOAT, EXTENSIBLE].includes(kind)) return { error: 'The sound in the WAV file is packed in a way that is not known here.' }; // prettier-ignore
  if (channels === 0 || bits === 0) return { error: 'The WAV file says that it has no channels.' };
  const frames = Math.floor(Math.min(data.length, bytes.length - data.from) / (channels * Math.ceil(bits / 8)));
  if (frames <= 0) return { error: 'There is no sound in the WAV file: it holds 0 samples.' };
  return { channels, sampleRate, frames, cues: cuesOf(view, chunks, frames) };
}

/** The chunks, as far as the file goes: what says that it is longer ends with the file. */
function chunksOf(bytes: Uint8Array, view: DataView): Chunk[] {
  const chunks: Chunk[] = [];
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = Math.min(view.getUint32(at + 4, true), bytes.length - at - 8);
    chunks.push({ id: textAt(bytes, at), from: at + 8, length });
    at += 8 + length + (length % 2);
  }
  return chunks;
}

/** A cue chunk: their number, and 24 bytes for each, of which the last four are the frame. */
function cuesOf(view: DataView, chunks: readonly Chunk[], frames: number): number[] {
  const chunk = chunks.find(({ id, length }) => id === 'cue ' && length >= 4);
  if (!chunk) return [];
  const count = Math.min(view.getUint32(chunk.from, true), Math.floor((chunk.length - 4) / 24));
  const all = Array.from({ length: count }, (_, i) => view.getUint32(chunk.from + 4 + 24 * i + 20, true));
  return [...new Set(all)].filter((frame) => frame > 0 && frame < frames).sort((a, b) => a - b);
}

function textAt(bytes: Uint8Array, at: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + 4));
}

/**
 * Writes a sample as a WAV file of 24 bits at 48 kHz.
 * @param cuts frames that become cue points
 */
export function writeSampleWav(audio: SampleAudio, cuts: readonly number[] = []): Uint8Array<ArrayBuffer> {
  const { channels } = audio;
  const header = wavHeader('pcm24', SAMPLE_RATE, channels[0]!.length, channels.length);
  const data = toPcm24(audio);
  const cue = cueChunk(cuts);
  // Chunks begin at even bytes.
  const end = header.length + data.length + (data.length % 2);
  const bytes = new Uint8Array(end + cue.length);
  bytes.set(header);
  bytes.set(data, header.length);
  bytes.set(cue, end);
  new DataView(bytes.buffer).setUint32(4, bytes.length - 8, true);
  return bytes;
}

function cueChunk(cuts: readonly number[]): Uint8Array {
  if (cuts.length === 0) return new Uint8Array(0);
  const bytes = new Uint8Array(12 + 24 * cuts.length);
  const view = new DataView(bytes.buffer);
  bytes.set([...'cue '].map((letter) => letter.charCodeAt(0)));
  view.setUint32(4, bytes.length - 8, true);
  view.setUint32(8, cuts.length, true);
  cuts.forEach((frame, i) => {
    const at = 12 + 24 * i;
    view.setUint32(at, i + 1, true);
    view.setUint32(at + 4, frame, true);
    bytes.set(
      [...'data'].map((letter) => letter.charCodeAt(0)),
      at + 8,
    );
    view.setUint32(at + 20, frame, true);
  });
  return bytes;
}

/** The bytes of the sound in a WAV file that `writeSampleWav` made. */
export function sampleWavData(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const data = chunksOf(bytes, view).find(({ id }) => id === 'data');
  return data ? bytes.subarray(data.from, data.from + data.length) : new Uint8Array(0);
}
