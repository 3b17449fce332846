import { saveAs } from 'file-saver';
import { renderWav } from '@/audio/renderHost';
import { writePatternMidi } from '@/core/formats/midiFile';
import { currentPattern, type BeatSet, type Track } from '@/core/document/set';
import { selectSet, selectTrack } from './selectors';
import { exportProgressed, noticed } from './sessionSlice';
import type { Store } from './store';

/** WAV files are always made at this rate, whatever the device plays at. */
export const EXPORT_SAMPLE_RATE = 48000;

let cancelRunning: (() => void) | null = null;

/** Saves the current pattern as a standard MIDI file. */
export function exportMidi(store: Store): void {
  const state = store.getState();
  const [set, track] = [selectSet(state), selectTrack(state)];
  const name = fileName(set, track, 'mid');
  saveAs(new Blob([writePatternMidi(set, track)], { type: 'audio/midi' }), name);
  store.dispatch(noticed(`Saved ${name}.`));
}

/** Renders the current pattern's loop in a worker and saves it as a WAV file. */
export async function exportWav(store: Store): Promise<void> {
  if (cancelRunning) return;
  const state = store.getState();
  const [set, track] = [selectSet(state), selectTrack(state)];
  store.dispatch(exportProgressed(0));
  const request = { track, tempo: set.tempo, sampleRate: EXPORT_SAMPLE_RATE };
  const { file, cancel } = renderWav(request, (done) => store.dispatch(exportProgressed(done)));
  cancelRunning = cancel;
  try {
    const name = fileName(set, track, 'wav');
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

/** Rink Night, Wheels, Fast Laps, 112 BPM -> "Rink Night - Wheels Fast Laps - 112 BPM.mid", with what file systems refuse left out. */
function fileName(set: BeatSet, track: Track, extension: string): string {
  const pattern = currentPattern(track)?.name ?? 'Pattern';
  const name = `${set.name} - ${track.name} ${pattern} - ${set.tempo} BPM`.replace(/[\\/:*?"<>|\u0000-\u001f]/g, '');
  return `${name}.${extension}`;
}
