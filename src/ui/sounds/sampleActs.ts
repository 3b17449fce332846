import { kindOfName } from '@/core/document/soundKinds';
import { MAX_NAME, PADS } from '@/core/document/limits';
import { MOST_SAMPLE_FRAMES, MOST_SET_SECONDS, type SampleSource } from '@/core/document/sample';
import { asTaken, type Sound } from '@/core/document/sound';
import type { BeatSet } from '@/core/document/set';
import { SAMPLE_RATE, type SampleAudio } from '@/core/sample/levels';
import { tidied } from '@/core/sample/tidy';
import { asRecording } from '@/core/shelf/strokeSound';
import type { Instrument } from '@/instrument/instrument';
import { isOutOfRoom } from '@/storage/records';
import { readSampleFile, roomLeft } from '@/storage/sampleFiles';
import { samples } from '@/storage/storage';
import { selectSet } from '@/store/selectors';
import { noticed, sampleFound } from '@/store/sessionSlice';
import { soundTaken } from '@/store/soundsSlice';
import type { Store } from '@/store/store';

/** Where a sound is to lie. */
interface Place {
  track: number;
  pad: number;
}

/** So many files of which something is wrong are told of one by one: more would cover the screen. */
const MOST_TOLD = 3;
/** Bytes that a frame of a channel takes in the storage. */
const STORED_BYTES = 4;

/** Seconds of all samples of a set, each counted once. */
function secondsOf({ tracks }: BeatSet): number {
  const frames = new Map<string, number>();
  for (const { kit } of Object.values(tracks)) {
    for (const { sound } of kit.pads) if ('sample' in sound.source) frames.set(sound.source.sample, sound.source.frames); // prettier-ignore
  }
  return [...frames.values()].reduce((sum, one) => sum + one, 0) / SAMPLE_RATE;
}

/**
 * Stores audio for the open set.
 * @throws Error a sentence that says why it cannot be kept
 */
export async function keepAudio(store: Store, instrument: Instrument, audio: SampleAudio): Promise<SampleSource> {
  const frames = audio.channels[0]!.length;
  const all = secondsOf(selectSet(store.getState())) + frames / SAMPLE_RATE;
  if (all > MOST_SET_SECONDS) {
    throw new Error(`The samples of this set would be ${Math.ceil(all)} s long; ${MOST_SET_SECONDS} s is the most.`);
  }
  const bytes = frames * audio.channels.length * STORED_BYTES;
  const left = await roomLeft();
  if (left < bytes) throw new Error(`It takes ${megabytes(bytes)}, and the browser has room for ${megabytes(left)}.`);
  try {
    const source = await samples.keep(audio);
    store.dispatch(sampleFound(source.sample));
    instrument.lookForSamples();
    return source;
  } catch (error) {
    if (isOutOfRoom(error)) throw new Error('The browser has no room for it. Delete runs, sets or samples that you need no more.', { cause: error }); // prettier-ignore
    throw error;
  }
}

function megabytes(bytes: number): string {
  return `${(Math.max(0, bytes) / 1e6).toFixed(1)} MB`;
}

/** Puts what was recorded on a pad. @returns whether it could be kept; if not, it is said why */
export async function takeRecording(
  store: Store,
  instrument: Instrument,
  audio: SampleAudio,
  place: Place,
): Promise<boolean> {
  try {
    const source = await keepAudio(store, instrument, tidied(audio, MOST_SAMPLE_FRAMES).audio);
    const sound: Sound = { name: 'Recording', kind: 'other', source, settings: {}, from: 'microphone' };
    store.dispatch(soundTaken({ ...place, sound: asTaken(sound) }));
    store.dispatch(noticed(`Recorded onto pad ${place.pad + 1}.`, true));
    return true;
  } catch (error) {
    store.dispatch(
      noticed(`The recording could not be kept. ${error instanceof Error ? error.message : String(error)}`),
    );
    return false;
  }
}

/** A sound that the engine makes becomes a recording of itself: it can be cut, turned round, and played from anywhere then. */
export async function turnIntoSample(store: Store, instrument: Instrument, place: Place): Promise<void> {
  const sound = selectSet(store.getState()).tracks[place.track]?.kit.pads[place.pad]?.sound;
  if (!sound) return;
  try {
    const { audio, settings } = asRecording(sound);
    const source = await keepAudio(store, instrument, audio);
    store.dispatch(soundTaken({ ...place, sound: asTaken({ ...sound, source, settings }) }));
    store.dispatch(noticed(`${sound.name} is a recording of itself now.`, true));
  } catch (error) {
    store.dispatch(noticed(`It could not be recorded. ${error instanceof Error ? error.message : String(error)}`));
  }
}

/** Puts recordings on pads: the first on this one, each other on the next. What is wrong with one of them is said by its name. */
export async function loadSamples(
  store: Store,
  instrument: Instrument,
  files: readonly File[],
  { track, pad }: Place,
): Promise<void> {
  const words: string[] = [];
  const problems: string[] = [];
  let next = pad;
  for (const [i, file] of files.entries()) {
    if (next >= PADS) {
      words.push(`${files.length - i} more have no pad left.`);
      break;
    }
    if (files.length > 1) store.dispatch(noticed(`Reading “${file.name}”, ${i + 1} of ${files.length}.`));
    try {
      const { name, audio, cuts, notes } = await readSampleFile(file);
      const source = await keepAudio(store, instrument, audio);
      const sound: Sound = { name: name.replace(/_+/g, ' ').slice(0, MAX_NAME), kind: kindOfName(name), source, settings: {}, from: file.name.slice(0, MAX_NAME), ...(cuts.length > 0 && { cuts }) }; // prettier-ignore
      store.dispatch(soundTaken({ track, pad: next, sound: asTaken(sound) }));
      next++;
      if (notes.length > 0) words.push(`“${file.name}”: ${notes.join('; ')}.`);
    } catch (error) {
      problems.push(`“${file.name}” could not be loaded. ${error instanceof Error ? error.message : String(error)}`);
    }
  }
  const loaded = next - pad;
  if (loaded > 0)
    words.unshift(loaded === 1 ? `Loaded onto pad ${pad + 1}.` : `Loaded onto pads ${pad + 1} to ${next}.`);
  words.push(...problems.slice(0, MOST_TOLD));
  if (problems.length > MOST_TOLD) words.push(`${problems.length - MOST_TOLD} more could not be loaded.`);
  store.dispatch(noticed(words.join(' '), loaded > 0));
}
