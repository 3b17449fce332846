import { renderWav } from '@/audio/renderHost';
import { samplesOfKit } from '@/core/document/samplesOf';
import { newTrack } from '@/core/document/track';
import { beatOf } from '@/core/shelf/kitBeats';
import { phraseOf } from '@/core/shelf/tonePhrases';
import type { Shelved } from '@/core/shelf/shelved';
import { EXPORT_SAMPLE_RATE } from './exportFiles';
import { samples } from './storage';

/**
 * Renders a kit of the shelf in its own beat, or a voice in its own phrase, in a worker.
 * @returns the bytes of a WAV file, and how to give up: then the promise is rejected
 */
export function renderBeat(entry: Shelved): { file: Promise<Uint8Array<ArrayBuffer>>; cancel: () => void } {
  const { kit, tones } = entry;
  const played = tones ? phraseOf(tones) : { ...beatOf(entry), kit: kit! };
  const { pattern, tempo, ...sounds } = played;
  const track = { ...newTrack(entry.name, 0, [pattern]), ...sounds };
  let giveUp = () => undefined as void;
  let isGivenUp = false;
  const file = samples.loadAll(samplesOfKit(track.kit)).then((audio) => {
    if (isGivenUp) throw new Error('cancelled');
    const rendering = renderWav({ track, pattern, tempo, sampleRate: EXPORT_SAMPLE_RATE, samples: audio }, () => undefined); // prettier-ignore
    giveUp = rendering.cancel;
    return rendering.file;
  });
  const cancel = () => {
    isGivenUp = true;
    giveUp();
  };
  return { file, cancel };
}
