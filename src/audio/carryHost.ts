import type { Performed } from '@/core/engine/replay';
import type { Sample } from '@/core/sample/levels';
import type { CarryReply, CarryRequest } from './messages';
import type { Loudness } from '@/core/measure/loudness';

const WORKER_URL = '/workers/carry.worker.js';

export interface Carried {
  file: Blob;
  loudness: Loudness | null;
}

/**
 * Makes a file of a run in a worker. What is made is handed to the browser piece by piece, which keeps it outside of the page.
 * @param samples what its sounds name
 * @param onProgress called with the share that is done, 0..1
 * @returns the file, and how to give up
 */
export function carry(
  request: Omit<CarryRequest, 'performed'> & { performed: Performed },
  samples: Promise<readonly Sample[]>,
  onProgress: (done: number) => void,
): { made: Promise<Carried>; cancel: () => void } {
  const worker = new Worker(WORKER_URL);
  let giveUp = () => undefined as void;
  let parts: Blob[] = [];
  let fresh: Uint8Array<ArrayBuffer>[] = [];
  const made = new Promise<Carried>((resolve, reject) => {
    giveUp = () => reject(new Error('cancelled'));
    worker.onerror = (event) => reject(new Error(event.message || 'the renderer could not be loaded'));
    worker.onmessage = ({ data }: MessageEvent<CarryReply>) => {
      if ('bytes' in data) {
        fresh.push(data.bytes);
        if (fresh.length >= PIECES) {
          parts.push(new Blob(fresh));
          fresh = [];
        }
      } else if ('progress' in data) onProgress(data.progress);
      else if ('done' in data)
        resolve({ file: new Blob([...parts, ...fresh], { type: typeOf(request) }), loudness: data.loudness });
      else reject(new Error(data.error));
    };
    samples
      .then((all) =>
        worker.postMessage({ ...request, performed: { ...request.performed, samples: all } } satisfies CarryRequest),
      )
      .catch(reject);
  }).finally(() => {
    worker.terminate();
    parts = [];
    fresh = [];
  });
  return { made, cancel: () => giveUp() };
}

/** So many pieces are handed to the browser at once. */
const PIECES = 16;

function typeOf({ what, format }: Pick<CarryRequest, 'what' | 'format'>): string {
  if (what === 'stems') return 'application/zip';
  return format === 'flac' ? 'audio/flac' : format === 'mp3' ? 'audio/mpeg' : 'audio/wav';
}
