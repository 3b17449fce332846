import { counted } from '@/core/counted';
import { idsFrom } from '@/core/document/hit';
import { MAX_NAME } from '@/core/document/limits';
import { MOST_SAMPLE_SECONDS } from '@/core/document/sample';
import { asTaken, sampleOf } from '@/core/document/sound';
import { writeSampleWav } from '@/core/formats/sampleWav';
import { SAMPLE_RATE } from '@/core/sample/levels';
import { asCuts } from '@/core/slice/cuts';
import { layPieces, type PiecesLaid } from '@/core/slice/layPieces';
import { framesPerTick, ticksPerBar, type Meter } from '@/core/time/ticks';
import type { Instrument } from '@/instrument/instrument';
import { fitted } from '@/instrument/recordings';
import { saveFile } from '@/storage/shareFile';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { piecesLaid, soundTaken } from '@/store/soundsSlice';
import { laneChosen } from '@/store/stepsSlice';
import type { Store } from '@/store/store';
import { keepAudio } from '../sounds/sampleActs';
import type { Laying } from './LayKeys';
import type { Recording } from './useRecording';

/** A sound is stretched to between a quarter and four times its length: beyond that little is left of it. */
const MOST_STRETCHED = 4;

/**
 * Lays the pieces of a recording onto pads, with patterns that play them in their order at the set's tempo; the first piece is chosen.
 * @returns whether it could be done; if not, it is said why
 */
export function toPads(
  store: Store,
  instrument: Instrument,
  recording: Recording,
  { onto, withPattern }: Laying,
): boolean {
  const { track, pad, pieces, tempo } = recording;
  const set = selectSet(store.getState());
  const newId = idsFrom(instrument.reserveIds(pieces.length));
  const laid = layPieces(set, { track, pad }, { onto, tempo: withPattern ? tempo : null, newId });
  if ('problem' in laid) {
    store.dispatch(noticed(laid.problem));
    return false;
  }
  store.dispatch(piecesLaid(laid));
  store.dispatch(laneChosen({ pad: 0 }));
  store.dispatch(noticed(laidWords(laid, counted(pieces.length, 'piece'), set.tracks[track]!.name), true));
  return true;
}

/** Where pieces lie now. */
function laidWords({ here, added }: PiecesLaid, pieces: string, track: string): string {
  const names = added.map(({ name }) => name).join(', ');
  const onTracks = added.length === 0 ? '' : `the new ${added.length > 1 ? 'tracks' : 'track'} ${names}`;
  const where = [here && `the pads of ${track}`, onTracks].filter(Boolean).join(' and ');
  const inSlot = here?.pattern ? ` Their pattern is in slot ${here.slot + 1}.` : '';
  return `${pieces} on ${where}.${inSlot}`;
}

/** Frames of so many bars at a tempo, BPM. */
export function framesOfBars(bars: number, tempo: number, meter: Meter): number {
  return Math.round(bars * ticksPerBar(meter) * framesPerTick(tempo, SAMPLE_RATE));
}

/** Why a recording cannot be made so long, in a sentence; null if it can. */
export function whyNotFitted({ part }: Pick<Recording, 'part'>, frames: number): string | null {
  const times = frames / (part.to - part.from);
  if (frames > MOST_SAMPLE_SECONDS * SAMPLE_RATE) return `That is ${Math.ceil(frames / SAMPLE_RATE)} s; ${MOST_SAMPLE_SECONDS} s is the most.`; // prettier-ignore
  if (times > MOST_STRETCHED || times < 1 / MOST_STRETCHED) return `It would be ${times.toFixed(2)} times as long; a quarter to four times is what can be heard.`; // prettier-ignore
  return null;
}

/**
 * Makes what is played of a recording so many bars long without a change of its pitch. Its pad plays that from then on; the cuts go with
 * it.
 */
export async function fitToBars(
  store: Store,
  instrument: Instrument,
  recording: Recording,
  bars: number,
): Promise<void> {
  const { track, pad, sound, part, cuts, audio } = recording;
  if (!audio) return;
  const { tempo, meter } = selectSet(store.getState());
  const frames = framesOfBars(bars, tempo, meter);
  try {
    const source = await keepAudio(store, instrument, await fitted(audio, part, frames));
    // Stretching takes a moment, in which something else may have been put there.
    const now = selectSet(store.getState()).tracks[track]?.kit.pads[pad]?.sound;
    if (!now || sampleOf(now.source) !== sampleOf(sound.source)) return;
    const times = frames / (part.to - part.from);
    const { start: _, end: __, ...settings } = sound.settings;
    const moved = asCuts(cuts.map((cut) => (cut - part.from) * times), { from: 0, to: frames }); // prettier-ignore
    const { cuts: ___, ...rest } = sound;
    const made = asTaken({ ...rest, source, settings, tempo, ...(moved.length > 0 && { cuts: moved }) });
    store.dispatch(soundTaken({ track, pad, sound: made }));
    store.dispatch(noticed(`${sound.name} is ${counted(bars, 'bar')} long at ${tempo} BPM now.`, true));
  } catch (error) {
    store.dispatch(noticed(`It could not be fitted. ${error instanceof Error ? error.message : String(error)}`));
  }
}

/** Saves a recording as a WAV file, its cuts in it as cue points. */
export function saveRecording(store: Store, { sound, audio, cuts }: Recording): void {
  if (!audio) return;
  const name = saveFile(new Blob([writeSampleWav(audio, cuts)], { type: 'audio/wav' }), sound.name.slice(0, MAX_NAME), 'wav'); // prettier-ignore
  store.dispatch(noticed(`Saved ${name}.`));
}
