import { registered, scope, type StretchProcessor } from './stretchScope';
// After the scope, which it registers itself in.
import 'signalsmith-stretch';
import { SAMPLE_RATE, type SampleAudio } from '@/core/sample/levels';

/** Frames that are made at once. */
const BLOCK = 128;
/** Seconds of silence before the beginning, so that what begins with the first frame begins at once. */
const LEAD = 0.5;

/**
 * A sound made longer or shorter without a change of pitch. What begins in it begins in the same share of it afterwards.
 * @param frames how long it is to be; a quarter to four times as long as it is
 */
export async function stretched({ channels }: SampleAudio, frames: number): Promise<SampleAudio> {
  const rate = channels[0]!.length / frames;
  const processor = await begin(channels.length);
  processor.port.onmessage({ data: ['', 'addBuffers', [...channels]] });
  processor.port.onmessage({ data: ['', 'schedule', { active: true, rate, input: -LEAD * rate, output: -LEAD, outputTime: -LEAD }] }); // prettier-ignore
  const made = channels.map(() => new Float32Array(frames));
  const block = channels.map(() => new Float32Array(BLOCK));
  for (let frame = -LEAD * SAMPLE_RATE; frame < frames; frame += BLOCK) {
    scope.currentTime = frame / SAMPLE_RATE;
    processor.process([[]], [block]);
    const skipped = Math.max(0, -frame);
    if (skipped >= BLOCK) continue;
    made.forEach((channel, c) => channel.set(block[c]!.subarray(skipped, Math.min(BLOCK, frames - frame)), frame + skipped)); // prettier-ignore
  }
  return { channels: made };
}

function begin(channels: number): Promise<StretchProcessor> {
  return new Promise((done) => {
    const processor = new registered.processor!({ numberOfOutputs: 1, outputChannelCount: [channels] });
    processor.port.postMessage = ([word]) => word === 'ready' && done(processor);
  });
}
