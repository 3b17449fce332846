import * as Tone from 'tone';
import { framesPerTick } from '@/core/time/ticks';
import type { Instruction } from '@/core/protocol/commands';
import type { ToWorklet } from '@/audio/messages';

const BPM = 174;
const STALL_MS = 400;
const STEP_SECONDS = 60 / BPM / 4;

/** What comes out is heard by a worklet of its own at the graph's end. */
async function ear(context: BaseAudioContext, source: { connect: (node: AudioNode) => unknown }) {
  const code = `registerProcessor('ear', class extends AudioWorkletProcessor {
    process([input]) { if (input[0]) this.port.postMessage([currentFrame, input[0].slice()]); return true; } });`;
  await context.audioWorklet.addModule(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
  const node = new AudioWorkletNode(context, 'ear');
  const chunks: [number, Float32Array][] = [];
  node.port.onmessage = ({ data }: MessageEvent<[number, Float32Array]>) => void chunks.push(data);
  source.connect(node);
  node.connect(context.destination);
  return chunks;
}

/** Frames at which sound begins after 20 ms of silence. */
function onsets(chunks: readonly [number, Float32Array][], sampleRate: number): number[] {
  const found: number[] = [];
  let lastLoud = -Infinity;
  for (const [first, samples] of chunks) {
    samples.forEach((sample, i) => {
      if (Math.abs(sample) < 1e-4) return;
      if (first + i - lastLoud > 0.02 * sampleRate) found.push(first + i);
      lastLoud = first + i;
    });
  }
  return found;
}

async function stallWhilePlaying(seconds: number) {
  const end = performance.now() + seconds * 1000;
  while (performance.now() < end) {
    const until = performance.now() + STALL_MS;
    while (performance.now() < until);
    await new Promise((done) => setTimeout(done, 60));
  }
}

/** A click of 10 ms for the schedulers that are not ours. */
function clickBuffer(context: BaseAudioContext): AudioBuffer {
  const buffer = context.createBuffer(1, context.sampleRate * 0.01, context.sampleRate);
  buffer.getChannelData(0).forEach((_, i, data) => (data[i] = 0.5 * (1 - i / data.length)));
  return buffer;
}

const schedulers = {
  /** The metronome of our engine in a meter of sixteenths: a click each. */
  async engine(seconds: number) {
    const context = new AudioContext();
    await context.audioWorklet.addModule('/workers/engine.worklet.js');
    const node = new AudioWorkletNode(context, 'chaffinch-engine', { numberOfInputs: 0, outputChannelCount: [2] });
    const chunks = await ear(context, node);
    const instructions: Instruction[] = [
      { type: 'tempo', bpm: BPM },
      { type: 'meter', beats: 16, unit: 16 },
      { type: 'metronome', on: true, level: 1, sound: 'wood', when: 'always', between: 0 },
      { type: 'play', startTick: 0, countInTicks: 0 },
    ];
    node.port.postMessage({ instructions } satisfies ToWorklet);
    await stallWhilePlaying(seconds);
    return { chunks, context, step: 240 * framesPerTick(BPM, context.sampleRate) };
  },

  /** The usual way on the main thread: every 25 ms, schedule what falls into the next 100 ms. */
  async lookahead(seconds: number) {
    const context = new AudioContext();
    const out = context.createGain();
    const chunks = await ear(context, out);
    const buffer = clickBuffer(context);
    let next = context.currentTime + 0.1;
    const timer = setInterval(() => {
      for (; next < context.currentTime + 0.1; next += STEP_SECONDS) {
        const source = new AudioBufferSourceNode(context, { buffer });
        source.connect(out);
        source.start(next);
      }
    }, 25);
    await stallWhilePlaying(seconds);
    clearInterval(timer);
    return { chunks, context, step: STEP_SECONDS * context.sampleRate };
  },

  async tone(seconds: number) {
    const context = new AudioContext();
    Tone.setContext(context);
    await Tone.start();
    const out = context.createGain();
    const chunks = await ear(context, out);
    const buffer = clickBuffer(context);
    Tone.getTransport().bpm.value = BPM;
    Tone.getTransport().scheduleRepeat((time) => {
      const source = new AudioBufferSourceNode(context, { buffer });
      source.connect(out);
      source.start(time);
    }, STEP_SECONDS);
    Tone.getTransport().start('+0.1');
    await stallWhilePlaying(seconds);
    Tone.getTransport().stop();
    return { chunks, context, step: STEP_SECONDS * context.sampleRate };
  },
};

/** The onset from which most others lie within a sample of a whole number of steps: the fairest start of the ideal. */
function bestStart(found: readonly number[], step: number): number {
  const fits = (start: number) =>
    found.filter((f) => Math.abs(f - start - Math.round((f - start) / step) * step) <= 1).length;
  const anchor = found.reduce((best, f) => (fits(f) > fits(best) ? f : best), found[0]!);
  return anchor - Math.round((anchor - found[0]!) / step) * step;
}

(window as unknown as { measure: unknown }).measure = async (name: keyof typeof schedulers, seconds: number) => {
  const { chunks, context, step } = await schedulers[name](seconds);
  await new Promise((done) => setTimeout(done, 1000));
  const found = onsets(chunks, context.sampleRate);
  if (found.length === 0) throw new Error(`Nothing was heard of ${name}.`);
  const first = bestStart(found, step);
  const last = chunks[chunks.length - 1]![0];
  const expected = Math.floor((Math.min(last - first, seconds * context.sampleRate) - step / 2) / step);
  let within = 0;
  let missing = 0;
  let worst = 0;
  for (let i = 0; i < expected; i++) {
    const ideal = first + i * step;
    const error = Math.min(...found.map((frame) => Math.abs(frame - ideal)));
    if (error <= 1) within++;
    if (error > step / 2) missing++;
    worst = Math.max(worst, error);
  }
  return { expected, within, missing, worstMs: (worst * 1000) / context.sampleRate };
};
