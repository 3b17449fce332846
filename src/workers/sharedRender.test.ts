import type { Stereo } from '@/core/engine/offline';
import { readScore } from '@/core/score/readScore';
import type { Score } from '@/core/score/score';
import { copied, performed, play, SR } from '@/core/score/score.testing';
import { stretchFrames } from '@/core/score/scoreRender';
import { ScoreRenders, type Part } from '@/core/score/scoreRenders';
import { renderMixed, renderTracks } from './sharedRender';

let channel: MessageChannel;
beforeEach(() => (channel = new MessageChannel()));
// A port that listens keeps the process alive.
afterEach(() => channel.port1.close());

function demoScore(): Score {
  const run = performed([play(1000)], 3 * SR);
  return readScore(copied(run), run);
}

async function all(port: MessagePort | null, renders: ScoreRenders, part: Part): Promise<Stereo> {
  const pieces: Stereo[] = [];
  for await (const piece of renderMixed(port, renders, part)) pieces.push(piece);
  const joined = (side: keyof Stereo) => Float32Array.from(pieces.flatMap((piece) => [...piece[side]]));
  return { left: joined('left'), right: joined('right') };
}

test('what two workers render together is to the bit what one renders alone: mix and stems, one after the other', async () => {
  const score = demoScore();
  const stretch = { from: 960, to: score.length };
  renderTracks(channel.port2, new ScoreRenders(demoScore(), SR));
  const renders = new ScoreRenders(score, SR);
  const sounds = [null, score.tracks[0]!.id, score.tracks[1]!.id].map((track) => ({ track, limited: track === null, tail: track === null ? 2 * SR : 0 })); // prettier-ignore
  for (const sound of sounds) {
    const alone = await all(null, new ScoreRenders(score, SR), { stretch, sound });
    const together = await all(channel.port1, renders, { stretch, sound });
    expect(together.left.length).toBe(stretchFrames(score, stretch, SR) + sound.tail);
    expect(together.left.some((x) => x > 0.01)).toBe(true);
    expect([sound.track, together.left.findIndex((x, i) => x !== alone.left[i])]).toEqual([sound.track, -1]);
    expect([sound.track, together.right.findIndex((x, i) => x !== alone.right[i])]).toEqual([sound.track, -1]);
  }
}, 60_000);

test('what goes wrong in the worker that renders the tracks ends the render, with its reason', async () => {
  const broken = demoScore();
  Object.defineProperty(broken, 'tempo', { get: () => { throw new Error('no tempo'); } }); // prettier-ignore
  renderTracks(channel.port2, new ScoreRenders(broken, SR));
  const part = { stretch: { from: 0, to: 960 }, sound: { track: null, limited: true, tail: 0 } };
  await expect(all(channel.port1, new ScoreRenders(demoScore(), SR), part)).rejects.toThrow('no tempo');
});
