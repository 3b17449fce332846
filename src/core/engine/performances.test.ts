import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { decodeEvents } from '../protocol/events';
import { Engine } from './engine';
import { randomPerformance, type Performance } from './performances.testing';

/**
 * What the engine made of these performances when they were last looked at: a change that is not meant to change the sound
 * leaves them alone. Where it is meant to, REFERENCE=1 writes them anew, and the commit says why.
 */
const FILE = path.join(__dirname, 'performances.reference.json');
const COUNT = 240;
const SR = 48000;

interface Heard {
  samples: string;
  left: Float32Array;
  right: Float32Array;
  events: string;
}

/** Plays a performance, in blocks of its own sizes or of one size. */
function play({ commands, frames, blocks }: Performance, size?: number): Heard {
  const engine = new Engine(SR);
  for (const command of commands) engine.post(command);
  // A sample that is never written stays NaN.
  const left = new Float32Array(frames).fill(NaN);
  const right = new Float32Array(frames).fill(NaN);
  const events = createHash('sha256');
  for (let done = 0, i = 0; done < frames; i++) {
    const block = Math.min(frames - done, size ?? blocks[i]!);
    engine.process(left, right, block, done);
    events.update(JSON.stringify(decodeEvents(engine.events.drain())));
    done += block;
  }
  const samples = createHash('sha256').update(new Uint8Array(left.buffer)).update(new Uint8Array(right.buffer));
  return { samples: samples.digest('hex').slice(0, 16), left, right, events: events.digest('hex').slice(0, 16) };
}

test(`${COUNT} random performances of everything sound as they did`, () => {
  const heard = Array.from({ length: COUNT }, (_, seed) => play(randomPerformance(seed + 1)).samples);
  if (process.env.REFERENCE) writeFileSync(FILE, JSON.stringify(heard, null, 1) + '\n');
  const reference = JSON.parse(readFileSync(FILE, 'utf8')) as string[];
  const changed = heard.flatMap((hash, i) => (hash === reference[i] ? [] : [i + 1]));
  expect(changed).toEqual([]);
});
