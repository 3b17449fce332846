import type { Answer, Asked } from '@/audio/askedWorker';

// The worker's own scope, which TypeScript's page libraries describe otherwise.
declare const self: {
  onmessage: (event: MessageEvent<Asked<unknown>>) => void;
  postMessage(message: Answer<unknown>, transfer?: Transferable[]): void;
};

/**
 * Has this worker answer what it is asked (see `AskedWorker`).
 * @param answer what is given, with the arrays that go over to the page
 */
export function answering<Wanted, Given>(
  answer: (wanted: Wanted) => Promise<[Given, readonly Float32Array[]]> | [Given, readonly Float32Array[]],
): void {
  self.onmessage = async ({ data: { id, wanted } }) => {
    try {
      const [given, arrays] = await answer(wanted as Wanted);
      self.postMessage({ id, given }, [...new Set(arrays.map(({ buffer }) => buffer as ArrayBuffer))]); // prettier-ignore
    } catch (error) {
      self.postMessage({ id, error: error instanceof Error ? error.message : String(error) });
    }
  };
}
