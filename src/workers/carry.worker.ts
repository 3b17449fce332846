import { Zip, ZipPassThrough } from 'fflate';
import type { CarryReply, CarryRequest } from '@/audio/messages';
import { fixed } from '@/core/score/fix';
import { prepareSample } from '@/core/sample/levels';
import { readScore } from '@/core/score/readScore';
import { renderScore, stretchFrames } from '@/core/score/renderScore';
import type { Score } from '@/core/score/score';
import { LoudnessMeter } from '@/core/measure/loudness';
import { beginFile } from './audioFiles';

// The worker's own scope, which TypeScript's page libraries describe otherwise.
declare const self: {
  onmessage: (event: MessageEvent<CarryRequest>) => void;
  postMessage(message: CarryReply, transfer?: Transferable[]): void;
};

/** Makes files of a run, away from the page and from the audio thread; the music goes on. */
self.onmessage = ({ data }) => {
  make(data).then(
    (loudness) => self.postMessage({ done: true, loudness }),
    (error: unknown) => self.postMessage({ error: error instanceof Error ? error.message : String(error) }),
  );
};

async function make(request: CarryRequest) {
  const { performed, run, fixes, what } = request;
  const samples = performed.samples.map(prepareSample);
  const score = fixes.reduce(fixed, readScore({ ...performed, samples }, run));
  const stretch = request.stretch ?? { from: 0, to: score.length };
  return what === 'mix' ? mixOf(score, { ...request, stretch }) : stemsOf(score, { ...request, stretch });
}

type Wanted = CarryRequest & { stretch: { from: number; to: number } };

async function mixOf(score: Score, { performed, stretch, format, tail }: Wanted) {
  const { sampleRate } = performed;
  const frames = stretchFrames(score, stretch, sampleRate, tail);
  const file = await beginFile(format, sampleRate, frames);
  const meter = new LoudnessMeter(sampleRate);
  let done = 0;
  for (const audio of renderScore(score, stretch, sampleRate, { track: null, limited: true, tail })) {
    meter.add(audio.left, audio.right);
    send(file.write(audio));
    done += audio.left.length;
    self.postMessage({ progress: done / frames });
  }
  send(file.end());
  return meter.result;
}

/** A file of each track in one zip. They add up to the mix before the limiter. */
async function stemsOf(score: Score, { performed, stretch, format, tail }: Wanted): Promise<null> {
  const { sampleRate } = performed;
  const frames = stretchFrames(score, stretch, sampleRate, tail);
  const zip = new Zip((error, bytes) => {
    if (error) throw error;
    send([bytes as Uint8Array<ArrayBuffer>]);
  });
  const sounding = score.tracks.filter(({ blocks, hits }) => blocks.length + hits.length > 0);
  for (const [i, track] of sounding.entries()) {
    const entry = new ZipPassThrough(
      `${String(i + 1).padStart(2, '0')} ${track.name.replace(/[\\/:*?"<>|]/g, '')}.wav`,
    );
    zip.add(entry);
    const file = await beginFile(format, sampleRate, frames);
    let done = 0;
    for (const audio of renderScore(score, stretch, sampleRate, { track: track.id, limited: false, tail })) {
      for (const bytes of file.write(audio)) entry.push(bytes);
      done += audio.left.length;
      self.postMessage({ progress: (i + done / frames) / sounding.length });
    }
    for (const bytes of file.end()) entry.push(bytes);
    entry.push(new Uint8Array(0), true);
  }
  zip.end();
  return null;
}

function send(parts: readonly Uint8Array<ArrayBuffer>[]): void {
  for (const bytes of parts) if (bytes.length > 0) self.postMessage({ bytes }, [bytes.buffer]);
}
