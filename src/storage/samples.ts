import { isSampleId, type SampleSource } from '@/core/document/sample';
import { isPlain } from '@/core/plain';
import type { Sample, SampleAudio } from '@/core/sample/levels';
import { fromPcm24, toPcm24 } from '@/core/sample/pcm';
import { SAMPLE_PREFIX, AUDIO_PREFIX, type Storage } from './records';

/** Bytes of one piece of audio: whole numbers of 24 bits, so that four letters of its text are one of them. */
const PIECE = 786_432;
/** Bytes that become letters in one go: more are too many arguments. */
const AT_ONCE = 24_576;
/** A sample that no record names is kept so long: the set that is to name it may not be saved yet. */
const KEPT_LOOSE_MS = 24 * 3600 * 1000;
const NAMED = /[0-9a-f]{32}/g;

/** What is stored of a sample besides its audio. It is written last: where it is, all of it is. */
interface Head {
  channels: number;
  frames: number;
  pieces: number;
  /** When it was stored. */
  at: string;
}

/** The audio of samples, each stored once under the name of what it holds. */
export class SampleStore {
  constructor(
    private readonly storage: Storage,
    private readonly now: () => Date = () => new Date(),
  ) {}

  /**
   * Stores audio at 48 kHz, unless it is there already.
   * @returns the source that names it
   * @throws Error what the storage refused: nothing of it is left then
   */
  async keep(audio: SampleAudio): Promise<SampleSource> {
    const { channels } = audio;
    const frames = channels[0]!.length;
    const bytes = toPcm24(audio);
    const sample = await nameOf(bytes, channels.length);
    const source = { sample, frames };
    if (await this.head(sample)) return source;
    const pieces = Math.ceil(bytes.length / PIECE);
    try {
      for (let i = 0; i < pieces; i++) {
        await this.storage.setItem(pieceKey(sample, i), textOf(bytes.subarray(i * PIECE, (i + 1) * PIECE)));
      }
      const head: Head = { channels: channels.length, frames, pieces, at: this.now().toISOString() };
      await this.storage.setItem(SAMPLE_PREFIX + sample, JSON.stringify(head));
    } catch (error) {
      await this.remove(sample, pieces).catch(() => undefined);
      throw error;
    }
    return source;
  }

  /** Whether a sample is stored. */
  async has(id: string): Promise<boolean> {
    return (await this.head(id)) !== null;
  }

  /** A sample; null where it is not stored, or not whole. */
  async load(id: string): Promise<Sample | null> {
    const head = await this.head(id);
    if (!head) return null;
    const bytes = new Uint8Array(head.frames * head.channels * 3);
    for (let i = 0; i < head.pieces; i++) {
      const text = await this.storage.getItem(pieceKey(id, i));
      if (text === null) return null;
      const piece = bytesOf(text);
      if (i * PIECE + piece.length > bytes.length) return null;
      bytes.set(piece, i * PIECE);
    }
    return { id, ...fromPcm24(bytes, head.channels) };
  }

  /** Those of some samples that are stored. */
  async loadAll(ids: readonly string[]): Promise<Sample[]> {
    const loaded: Sample[] = [];
    for (const id of ids) {
      const sample = await this.load(id);
      if (sample) loaded.push(sample);
    }
    return loaded;
  }

  /**
   * Removes what no record names: neither a set nor a version of one, no step that can be undone, no run, nothing on the shelf. Records
   * are read one by one, and only as long as a sample is still to be found.
   */
  async sweep(): Promise<void> {
    const keys = await this.storage.getAllKeys();
    const loose = new Map<string, number>();
    const before = this.now().getTime() - KEPT_LOOSE_MS;
    for (const key of keys.filter((one) => one.startsWith(SAMPLE_PREFIX))) {
      const id = key.slice(SAMPLE_PREFIX.length);
      const head = await this.head(id);
      if (!head || new Date(head.at).getTime() < before) loose.set(id, head?.pieces ?? 0);
    }
    // Logs of runs are long: they come last.
    const records = keys.filter((key) => !key.startsWith(SAMPLE_PREFIX) && !key.startsWith(AUDIO_PREFIX));
    records.sort((a, b) => Number(a.startsWith('log ')) - Number(b.startsWith('log ')));
    for (const key of records) {
      if (loose.size === 0) return;
      for (const id of (await this.storage.getItem(key))?.match(NAMED) ?? []) loose.delete(id);
    }
    for (const [id, pieces] of loose) await this.remove(id, pieces);
  }

  private async remove(id: string, pieces: number): Promise<void> {
    await this.storage.removeMany([SAMPLE_PREFIX + id, ...Array.from({ length: pieces }, (_, i) => pieceKey(id, i))]);
  }

  private async head(id: string): Promise<Head | null> {
    if (!isSampleId(id)) return null;
    try {
      const head: unknown = JSON.parse((await this.storage.getItem(SAMPLE_PREFIX + id)) ?? 'null');
      const isWhole = isPlain(head) && [head.channels, head.frames, head.pieces].every((n) => Number.isInteger(n) && (n as number) > 0); // prettier-ignore
      return isWhole ? (head as unknown as Head) : null;
    } catch {
      return null;
    }
  }
}

function pieceKey(id: string, piece: number): string {
  return `${AUDIO_PREFIX}${id} ${piece}`;
}

/** The first half of the SHA-256 of the numbers and of how many channels they are. */
async function nameOf(bytes: Uint8Array, channels: number): Promise<string> {
  const all = new Uint8Array(bytes.length + 1);
  all.set(bytes);
  all[bytes.length] = channels;
  const sum = new Uint8Array(await crypto.subtle.digest('SHA-256', all));
  return [...sum.subarray(0, 16)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** Bytes as a text: the storage keeps nothing else. */
function textOf(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += AT_ONCE) text += btoa(String.fromCharCode(...bytes.subarray(at, at + AT_ONCE))); // prettier-ignore
  return text;
}

function bytesOf(text: string): Uint8Array {
  const letters = atob(text);
  const bytes = new Uint8Array(letters.length);
  for (let i = 0; i < letters.length; i++) bytes[i] = letters.charCodeAt(i);
  return bytes;
}
