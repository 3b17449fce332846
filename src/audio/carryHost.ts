import type { Performed } from '@/core/engine/replay';
import type { Sample } from '@/core/sample/levels';
import type { CarriedRun, CarryReply, CarryRequest, CarryWanted, TracksRequest } from './messages';
import type { Loudness } from '@/core/measure/loudness';

const WORKER_URL = '/workers/carry.worker.js';

export interface Carried {
  file: Blob;
  loudness: Loudness | null;
}

/** What a file is made of: the workers get what its sounds name with it. */
type Carrying = CarryWanted & Omit<CarriedRun, 'performed'> & { performed: Performed };

/**
 * Makes a file of a run, in two workers where there are two processors. What is made is handed to the browser piece by piece, which
 * keeps it outside of the page.
 * @param samples what its sounds name
 * @param onProgress called with the share that is done, 0..1
 * @returns the file, and how to give up
 */
export function carry(
  { performed, run, fixes, ...wanted }: Carrying,
  samples: Promise<readonly Sample[]>,
  onProgress: (done: number) => void,
): { made: Promise<Carried>; cancel: () => void } {
  const worker = new Worker(WORKER_URL);
  const helper = navigator.hardwareConcurrency > 1 ? new Worker(WORKER_URL) : null;
  let giveUp = () => undefined as void;
  let parts: Blob[] = [];
  let fresh: Uint8Array<ArrayBuffer>[] = [];
  const made = new Promise<Carried>((resolve, reject) => {
    giveUp = () => reject(new Error('cancelled'));
    for (const each of helper ? [worker, helper] : [worker]) {
      each.onerror = (event) => reject(new Error(event.message || 'the renderer could not be loaded'));
      each.onmessage = ({ data }: MessageEvent<CarryReply>) => {
        if ('bytes' in data) {
          fresh.push(data.bytes);
          if (fresh.length >= PIECES) {
            parts.push(new Blob(fresh));
            fresh = [];
          }
        } else if ('progress' in data) onProgress(data.progress);
        else if ('done' in data)
          resolve({ file: new Blob([...parts, ...fresh], { type: typeOf(wanted) }), loudness: data.loudness });
        else reject(new Error(data.error));
      };
    }
    samples
      .then((all) => {
        const carried: CarriedRun = { performed: { ...performed, samples: all }, run, fixes };
        if (!helper) return worker.postMessage({ ...carried, ...wanted, tracksFrom: null } satisfies CarryRequest);
        const { port1, port2 } = new MessageChannel();
        helper.postMessage({ ...carried, tracksTo: port2 } satisfies TracksRequest, [port2]);
        worker.postMessage({ ...carried, ...wanted, tracksFrom: port1 } satisfies CarryRequest, [port1]);
      })
      .catch(reject);
  }).finally(() => {
    worker.terminate();
    helper?.terminate();
    parts = [];
    fresh = [];
  });
  return { made, cancel: () => giveUp() };
}

/** So many pieces are handed to the browser at once. */
const PIECES = 64;

function typeOf({ what, format }: CarryWanted): string {
  if (what === 'stems') return 'application/zip';
  return format === 'flac' ? 'audio/flac' : format === 'mp3' ? 'audio/mpeg' : 'audio/wav';
}
