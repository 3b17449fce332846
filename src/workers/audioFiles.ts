import Flac from 'libflacjs/dist/libflac.js';
import { createEncoder } from 'wasm-media-encoders';
import mp3Code from 'wasm-media-encoders/wasm/mp3';
import type { AudioFormat } from '@/audio/messages';
import type { Stereo } from '@/core/engine/offline';
import { wavHeader, WavSamples } from '@/core/formats/wav';

/** A file of sound that is written from its beginning to its end. */
export interface AudioFile {
  /** What comes next in the file. */
  write(audio: Stereo): Uint8Array<ArrayBuffer>[];
  /** What ends it. */
  end(): Uint8Array<ArrayBuffer>[];
}

/** Kilobits per second of MP3: above what listeners tell from the original (common practice). */
const MP3_BITRATE = 320;
const FLAC_BITS = 24;
/** How much FLAC tries, 0..8. */
const FLAC_EFFORT = 5;

/**
 * Begins a file.
 * @param sampleRate frames per second
 * @param frames how many there will be
 */
export async function beginFile(format: AudioFormat, sampleRate: number, frames: number): Promise<AudioFile> {
  if (format === 'flac') return flacFile(sampleRate, frames);
  if (format === 'mp3') return mp3File(sampleRate);
  const samples = new WavSamples(format);
  let header: Uint8Array<ArrayBuffer>[] = [wavHeader(format, sampleRate, frames)];
  return {
    write: (audio) => {
      const parts = [...header, samples.bytes(audio)];
      header = [];
      return parts;
    },
    end: () => header,
  };
}

async function mp3File(sampleRate: number): Promise<AudioFile> {
  const encoder = await createEncoder('audio/mpeg', mp3Code);
  encoder.configure({ sampleRate, channels: 2, bitrate: MP3_BITRATE });
  // The encoder writes over what it gave.
  return {
    write: ({ left, right }) => [Uint8Array.from(encoder.encode([left, right]))],
    end: () => [Uint8Array.from(encoder.finalize())],
  };
}

async function flacFile(sampleRate: number, frames: number): Promise<AudioFile> {
  if (!Flac.isReady()) await new Promise<void>((ready) => Flac.on('ready', () => ready()));
  const encoder = Flac.create_libflac_encoder(sampleRate, 2, FLAC_BITS, FLAC_EFFORT, frames, false);
  let parts: Uint8Array<ArrayBuffer>[] = [];
  const take = (bytes: Uint8Array) => void parts.push(Uint8Array.from(bytes));
  if (encoder === 0 || Flac.init_encoder_stream(encoder, take) !== 0) throw new Error('FLAC cannot be written');
  const taken = () => {
    const all = parts;
    parts = [];
    return all;
  };
  const full = 2 ** (FLAC_BITS - 1) - 1;
  const whole = (sample: number) => Math.round(Math.max(-1, Math.min(1, sample)) * full);
  return {
    write: ({ left, right }) => {
      const both = new Int32Array(left.length * 2);
      for (let i = 0; i < left.length; i++) {
        both[2 * i] = whole(left[i]!);
        both[2 * i + 1] = whole(right[i]!);
      }
      if (!Flac.FLAC__stream_encoder_process_interleaved(encoder, both, left.length)) throw new Error('FLAC failed');
      return taken();
    },
    end: () => {
      Flac.FLAC__stream_encoder_finish(encoder);
      Flac.FLAC__stream_encoder_delete(encoder);
      return taken();
    },
  };
}
