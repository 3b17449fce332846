import { MOST_CUTS, MOST_SAMPLE_FRAMES } from '@/core/document/sample';
import { isWav, wavFacts } from '@/core/formats/sampleWav';
import { SAMPLE_RATE, type SampleAudio } from '@/core/sample/levels';
import { tidied } from '@/core/sample/tidy';

/** Larger files are refused before they are read. */
const MOST_BYTES = 200_000_000;
/** Rates that browsers decode, frames a second (Web Audio API, BaseAudioContext: at least 8000 to 96000; Chromium more). */
const RATES = { min: 3000, max: 768_000 };
/** Kinds of files, as an input of HTML has them. */
export const SAMPLE_KINDS = 'audio/*,.wav,.flac,.mp3,.ogg,.opus,.m4a,.aac';

/** A recording that was read from a file. */
export interface ReadSample {
  /** The file's name without its ending. */
  name: string;
  audio: SampleAudio;
  /** Frames at which the file says that it is cut. */
  cuts: number[];
  /** What is to be said of it. */
  notes: string[];
}

/** Whether a file is a recording, by its name and kind: what is in it is seen when it is read. */
export function isSampleFile({ name, type }: Pick<File, 'name' | 'type'>): boolean {
  return (/^audio\//.test(type) && !/midi/.test(type)) || /\.(wav|flac|mp3|ogg|opus|m4a|aac)$/i.test(name);
}

/**
 * Reads a recording, and brings it to 48 kHz.
 * @throws Error whose message is a sentence that says what is wrong with the file
 */
export async function readSampleFile(file: File): Promise<ReadSample> {
  if (file.size > MOST_BYTES) throw new Error(`It has ${Math.round(file.size / 1e6)} MB; ${MOST_BYTES / 1e6} MB is the most.`); // prettier-ignore
  const bytes = new Uint8Array(await file.arrayBuffer());
  const facts = isWav(bytes) ? wavFacts(bytes) : null;
  if (facts && 'error' in facts) throw new Error(facts.error);
  if (facts && (facts.sampleRate < RATES.min || facts.sampleRate > RATES.max)) {
    throw new Error(`It says that it has ${facts.sampleRate} samples a second, which no browser plays.`);
  }
  if (!facts && kindOf(bytes) === null) throw new Error('It is no WAV, FLAC, MP3, OGG or M4A file.');
  const decoded = await decode(bytes, kindOf(bytes) ?? 'WAV');
  const channels = Array.from({ length: decoded.numberOfChannels }, (_, c) => decoded.getChannelData(c));
  if (decoded.length === 0) throw new Error('There is no sound in it.');
  const { audio, notes } = tidied({ channels }, MOST_SAMPLE_FRAMES);
  if (channels.length > 2) notes.unshift(`the first two of its ${channels.length} channels were taken`);
  const ratio = facts ? SAMPLE_RATE / facts.sampleRate : 1;
  const frames = audio.channels[0]!.length;
  const cuts = (facts?.cues ?? []).map((cue) => Math.round(cue * ratio)).filter((cut) => cut > 0 && cut < frames);
  const name = file.name.replace(/\.[^.]*$/, '').trim() || 'Sample';
  return { name, audio, cuts: [...new Set(cuts)].slice(0, MOST_CUTS), notes };
}

async function decode(bytes: Uint8Array<ArrayBuffer>, kind: string): Promise<AudioBuffer> {
  try {
    // The browser brings it to this rate itself, 80 dB clean.
    return await new OfflineAudioContext(1, 1, SAMPLE_RATE).decodeAudioData(bytes.buffer);
  } catch {
    throw new Error(`The ${kind} file is damaged, or of a kind that this browser does not read.`);
  }
}

/** What a file is, by its first bytes. */
function kindOf(bytes: Uint8Array): string | null {
  const text = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  if (isWav(bytes)) return 'WAV';
  if (text(0, 4) === 'fLaC') return 'FLAC';
  if (text(0, 4) === 'OggS') return 'OGG';
  if (text(4, 8) === 'ftyp') return 'M4A';
  // A tag, or the eleven ones with which a frame of MPEG audio begins (ISO/IEC 11172-3).
  if (text(0, 3) === 'ID3' || (bytes[0] === 0xff && (bytes[1]! & 0xe0) === 0xe0)) return 'MP3';
  return null;
}

/** Bytes that the browser still has room for, as far as it tells. */
export async function roomLeft(): Promise<number> {
  const { quota, usage } = (await navigator.storage?.estimate?.()) ?? {};
  return quota === undefined ? Infinity : quota - (usage ?? 0);
}
