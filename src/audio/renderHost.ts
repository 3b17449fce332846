import type { RenderReply, RenderRequest } from './messages';

const WORKER_URL = '/workers/render.worker.js';

/**
 * Renders a loop to a WAV file in a worker.
 * @param onProgress called with the share that is done, 0..1
 * @returns the file's bytes, and how to give up
 */
export function renderWav(
  request: RenderRequest,
  onProgress: (done: number) => void,
): { file: Promise<Uint8Array<ArrayBuffer>>; cancel: () => void } {
  const worker = new Worker(WORKER_URL);
  let giveUp = () => undefined as void;
  const file = new Promise<Uint8Array<ArrayBuffer>>((resolve, reject) => {
    giveUp = () => reject(new Error('cancelled'));
    worker.onerror = (event) => reject(new Error(event.message || 'the renderer could not be loaded'));
    worker.onmessage = ({ data }: MessageEvent<RenderReply>) => {
      if ('progress' in data) onProgress(data.progress);
      else if ('wav' in data) resolve(data.wav);
      else reject(new Error(data.error));
    };
    worker.postMessage(request);
  }).finally(() => worker.terminate());
  return { file, cancel: () => giveUp() };
}
