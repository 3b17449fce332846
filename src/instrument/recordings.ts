import { onsetsOf, stretch } from '@/audio/slicer';
import type { SampleAudio } from '@/core/sample/levels';
import type { Piece } from '@/core/slice/cuts';
import type { SoundOnset } from '@/core/slice/onsets';
import { samples } from '@/storage/storage';

/** The recording that was opened last, and what was found in it. */
let latest: { id: string; audio: Promise<SampleAudio | null>; onsets?: Promise<SoundOnset[]> } | null = null;

/** The audio of a recording; null: it is not on this device, or cannot be read now. */
export async function openRecording(id: string): Promise<SampleAudio | null> {
  if (latest?.id !== id) latest = { id, audio: samples.load(id).catch(() => null) };
  const audio = await latest.audio;
  // One that is missing may come.
  if (!audio && latest?.id === id) latest = null;
  return audio;
}

/** Where something begins in a recording, found once in a worker. */
export async function onsetsIn(id: string, audio: SampleAudio): Promise<SoundOnset[]> {
  if (latest?.id !== id) return onsetsOf(audio);
  return (latest.onsets ??= onsetsOf(audio));
}

/** A part of a sound, so many frames long, at its own pitch: made in a worker. */
export function fitted({ channels }: SampleAudio, { from, to }: Piece, frames: number): Promise<SampleAudio> {
  return stretch({ channels: channels.map((channel) => channel.slice(from, to)) }, frames);
}
