import type { SampleReply, SampleRequest } from '@/audio/messages';
import { prepareSample } from '@/core/sample/levels';

// The worker's own scope, which TypeScript's page libraries describe otherwise.
declare const self: {
  onmessage: (event: MessageEvent<SampleRequest>) => void;
  postMessage(message: SampleReply, transfer?: Transferable[]): void;
};

/** Does with samples what takes long, away from the page and from the audio thread. */
self.onmessage = ({ data: { id, wanted } }) => {
  try {
    const prepared = prepareSample(wanted.prepare);
    const arrays = prepared.levels.flatMap(({ channels }) => channels.map(({ buffer }) => buffer as ArrayBuffer));
    self.postMessage({ id, prepared }, arrays);
  } catch (error) {
    self.postMessage({ id, error: error instanceof Error ? error.message : String(error) });
  }
};
