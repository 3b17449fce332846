import type { RenderReply, RenderRequest } from '@/audio/messages';
import { renderLoop } from '@/core/engine/offline';
import { prepareSample } from '@/core/sample/levels';
import { writeWav } from '@/core/formats/wav';

// The worker's own scope, which TypeScript's page libraries describe otherwise.
declare const self: {
  onmessage: (event: MessageEvent<RenderRequest>) => void;
  postMessage(message: RenderReply, transfer: Transferable[]): void;
};

/** Renders a loop faster than real time, away from the page and from the audio thread. */
self.onmessage = ({ data }) => {
  const reply = (message: RenderReply, transfer: Transferable[] = []) => self.postMessage(message, transfer);
  try {
    let shown = 0;
    const audio = renderLoop({ ...data, samples: data.samples.map(prepareSample) }, (progress) => {
      if (progress - shown < 0.01 && progress < 1) return;
      shown = progress;
      reply({ progress });
    });
    const wav = writeWav(audio, data.sampleRate);
    reply({ wav }, [wav.buffer]);
  } catch (error) {
    reply({ error: error instanceof Error ? error.message : String(error) });
  }
};
