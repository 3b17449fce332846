import type { ReplayReply, ReplayRequest } from '@/audio/messages';
import type { Engine } from '@/core/engine/engine';
import { replayEngine, skipTo } from '@/core/engine/replay';

// The worker's own scope, which TypeScript's page libraries describe otherwise.
declare const self: {
  onmessage: (event: MessageEvent<ReplayRequest>) => void;
  postMessage(message: ReplayReply, transfer?: Transferable[]): void;
};

let engine: Engine | null = null;
let end = 0;

/** Plays a run again, away from the page and from the audio thread, as far as the page asks for it. */
self.onmessage = ({ data }) => {
  try {
    if ('performed' in data) {
      engine = replayEngine(data.performed);
      end = data.to;
      skipTo(engine, data.from);
      return;
    }
    const frames = Math.max(0, Math.min(data.frames, end - engine!.frame));
    const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
    engine!.process(left, right);
    engine!.events.clear();
    self.postMessage({ left, right }, [left.buffer, right.buffer]);
  } catch (error) {
    self.postMessage({ error: error instanceof Error ? error.message : String(error) });
  }
};
