import { Zip, ZipPassThrough } from 'fflate';
import type { CarriedRun, CarryReply, CarryRequest, TracksRequest } from '@/audio/messages';
import { fixed } from '@/core/score/fix';
import type { Stretch } from '@/core/score/make';
import { prepareSample } from '@/core/sample/levels';
import { readScore } from '@/core/score/readScore';
import { stretchFrames } from '@/core/score/scoreRender';
import { ScoreRenders } from '@/core/score/scoreRenders';
import type { Score } from '@/core/score/score';
import { tailFrames } from '@/core/score/tail';
import { LoudnessMeter } from '@/core/measure/loudness';
import { beginFile } from './audioFiles';
import { renderMixed, renderTracks } from './sharedRender';

// The worker's own scope, which TypeScript's page libraries describe otherwise.
declare const self: {
  onmessage: (event: MessageEvent<CarryRequest | TracksRequest>) => void;
  postMessage(message: CarryReply, transfer?: Transferable[]): void;
};

/**
 * Makes files of a run, away from the page and from the audio thread; the music goes on. Two of these share the work: one is asked for the
 * file, the other one renders tracks for it.
 */
self.onmessage = ({ data }) => {
  const failed = (error: unknown) =>
    self.postMessage({ error: error instanceof Error ? error.message : String(error) });
  try {
    if ('tracksTo' in data) renderTracks(data.tracksTo, new ScoreRenders(scoreOf(data), data.performed.sampleRate));
    else make(data).then((loudness) => self.postMessage({ done: true, loudness }), failed);
  } catch (error) {
    failed(error);
  }
};

function scoreOf({ performed, run, fixes }: CarriedRun): Score {
  const samples = performed.samples.map(prepareSample);
  return fixes.reduce(fixed, readScore({ ...performed, samples }, run));
}

async function make(request: CarryRequest) {
  const score = scoreOf(request);
  const { sampleRate } = request.performed;
  const stretch = request.stretch ?? { from: 0, to: score.length };
  const tail = request.tail ? tailFrames(score, stretch.to, sampleRate) : 0;
  const frames = stretchFrames(score, stretch, sampleRate) + tail;
  const wanted = { ...request, sampleRate, stretch, tail, frames };
  return request.what === 'mix' ? mixOf(score, wanted) : stemsOf(score, wanted);
}

interface Wanted extends Pick<CarryRequest, 'format' | 'tracksFrom'> {
  sampleRate: number;
  stretch: Stretch;
  /** Frames after the stretch, and of all of it. */
  tail: number;
  frames: number;
}

async function mixOf(score: Score, { sampleRate, stretch, tail, frames, format, tracksFrom }: Wanted) {
  const file = await beginFile(format, sampleRate, frames);
  const meter = new LoudnessMeter(sampleRate);
  const progress = new Progress();
  let done = 0;
  const sound = { track: null, limited: true, tail };
  for await (const audio of renderMixed(tracksFrom, new ScoreRenders(score, sampleRate), { stretch, sound })) {
    meter.add(audio.left, audio.right);
    send(file.write(audio));
    done += audio.left.length;
    progress.tell(done / frames);
  }
  send(file.end());
  return meter.result;
}

/** A file of each track in one zip. They add up to the mix before the limiter. */
async function stemsOf(score: Score, { sampleRate, stretch, tail, frames, format, tracksFrom }: Wanted): Promise<null> {
  const zip = new Zip((error, bytes) => {
    if (error) throw error;
    send([bytes as Uint8Array<ArrayBuffer>]);
  });
  const sounding = score.tracks.filter(({ blocks, hits }) => blocks.length + hits.length > 0);
  const progress = new Progress();
  const renders = new ScoreRenders(score, sampleRate);
  for (const [i, track] of sounding.entries()) {
    const entry = new ZipPassThrough(
      `${String(i + 1).padStart(2, '0')} ${track.name.replace(/[\\/:*?"<>|]/g, '')}.wav`,
    );
    zip.add(entry);
    const file = await beginFile(format, sampleRate, frames);
    let done = 0;
    const sound = { track: track.id, limited: false, tail };
    for await (const audio of renderMixed(tracksFrom, renders, { stretch, sound })) {
      for (const bytes of file.write(audio)) entry.push(bytes);
      done += audio.left.length;
      progress.tell(stemsDone(i, done / frames, sounding.length));
    }
    for (const bytes of file.end()) entry.push(bytes);
    entry.push(new Uint8Array(0), true);
  }
  zip.end();
  return null;
}

/** What the mixing of a stem costs, in times the voices of one track: between 2 and 7, by what is on. */
const MIXING = 4;

/**
 * The share of all stems that is done, by how long they take: with the first one the voices of all tracks are rendered.
 * @param at place of the one that is being made
 * @param share of it that is done, 0..1
 */
function stemsDone(at: number, share: number, stems: number): number {
  const first = (stems + MIXING) / (1 + MIXING);
  return (at === 0 ? first * share : first + at - 1 + share) / (first + stems - 1);
}

/** Ms from one telling to the next: each has the page draw, which takes time from the work itself. */
const TELL_EVERY = 100;

/** Tells the page how far it is, as often as is worth it. */
class Progress {
  private told = -Infinity;

  /** @param done 0..1 */
  tell(done: number): void {
    const now = performance.now();
    if (now - this.told < TELL_EVERY && done < 1) return;
    this.told = now;
    self.postMessage({ progress: done });
  }
}

function send(parts: readonly Uint8Array<ArrayBuffer>[]): void {
  for (const bytes of parts) if (bytes.length > 0) self.postMessage({ bytes }, [bytes.buffer]);
}
