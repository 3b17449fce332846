import { saveAs } from 'file-saver';
import { renderWav } from '@/audio/renderHost';
import { writePatternMidi } from '@/core/formats/midiFile';
import { samplesOfKit } from '@/core/document/samplesOf';
import { type BeatSet } from '@/core/document/set';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { exportProgressed, noticed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { samples } from './storage';
import type { Track } from '@/core/document/track';
import type { Pattern } from '@/core/document/pattern';

/** WAV files are always made at this rate, whatever the device plays at. */
export const EXPORT_SAMPLE_RATE = 48000;

let cancelRunning: (() => void) | null = null;

/** Saves the current pattern as a standard MIDI file. */
export function exportMidi(store: Store): void {
  const state = store.getState();
  const [set, track, pattern] = [selectSet(state), selectTrack(state), selectPattern(state)];
  const name = fileName(set, track, pattern, 'mid');
  try {
    saveAs(new Blob([writePatternMidi(set, track, pattern)], { type: 'audio/midi' }), name);
    store.dispatch(noticed(`Saved ${name}.`));
  } catch (error) {
    store.dispatch(noticed(`The MIDI file could not be made: ${error instanceof Error ? error.message : error}.`));
  }
}

/** Renders the current pattern's loop in a worker and saves it as a WAV file. */
export async function exportWav(store: Store): Promise<void> {
  if (cancelRunning) return;
  const state = store.getState();
  const [set, track, pattern] = [selectSet(state), selectTrack(state), selectPattern(state)];
  store.dispatch(exportProgressed(0));
  const audio = await samples.loadAll(samplesOfKit(track.kit));
  const request = { track, pattern, tempo: set.tempo, sampleRate: EXPORT_SAMPLE_RATE, samples: audio };
  const { file, cancel } = renderWav(request, (done) => store.dispatch(exportProgressed(done)));
  cancelRunning = cancel;
  try {
    const name = fileName(set, track, pattern, 'wav');
    saveAs(new Blob([await file], { type: 'audio/wav' }), name);
    store.dispatch(noticed(`Saved ${name}.`));
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    store.dispatch(
      noticed(reason === 'cancelled' ? 'Export cancelled.' : `The WAV file could not be made: ${reason}.`),
    );
  } finally {
    cancelRunning = null;
    store.dispatch(exportProgressed(null));
  }
}

export function cancelExport(): void {
  cancelRunning?.();
}

/** Rink Night, Wheels, Fast Laps, 112 BPM -> "Rink Night - Wheels Fast Laps - 112 BPM.mid" */
function fileName(set: BeatSet, track: Track, pattern: Pattern, extension: string): string {
  return `${safeFileName(`${set.name} - ${track.name} ${pattern.name} - ${set.tempo} BPM`)}.${extension}`;
}

/** A name with what file systems refuse left out. */
export function safeFileName(name: string): string {
  return name.replace(/[\\/:*?"<>|\u0000-\u001f]/g, '');
}
