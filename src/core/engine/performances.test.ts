import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { decodeEvents, type EngineEvent } from '../protocol/events';
import { SOUND } from '../document/run';
import { Engine } from './engine';
import { randomMixedPerformance, randomPerformance, sampleNamed, type Performance } from './performances.testing';

/**
 * What the engine made of these performances when they were last looked at: a change that is not meant to change the sound
 * leaves them alone. Where it is meant to, REFERENCE=1 writes them anew, and the commit says why.
 */
const FILE = path.join(__dirname, 'performances.reference.json');
const COUNT = 100;
const SR = 48000;

/** JSON knows no NaN and no Infinity. */
const words = (_: string, value: unknown) => (typeof value === 'number' ? String(value) : value);

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
  const events: EngineEvent[] = [];
  for (let done = 0, i = 0; done < frames; i++) {
    const block = Math.min(frames - done, size ?? blocks[i]!);
    engine.process(left, right, block, done);
    events.push(...decodeEvents(engine.events.drain()));
    done += block;
  }
  const samples = createHash('sha256').update(new Uint8Array(left.buffer)).update(new Uint8Array(right.buffer));
  return { samples: samples.digest('hex').slice(0, 16), left, right, events: JSON.stringify(events, words) };
}

test(`${COUNT} random performances of everything sound as they did`, () => {
  const heard = Array.from({ length: COUNT }, (_, seed) => play(randomPerformance(seed + 1)).samples);
  if (process.env.REFERENCE) writeFileSync(FILE, JSON.stringify(heard, null, 1) + '\n');
  const reference = JSON.parse(readFileSync(FILE, 'utf8')) as string[];
  const changed = heard.flatMap((hash, i) => (hash === reference[i] ? [] : [i + 1]));
  expect(changed).toEqual([]);
});

test('whoever writes the reference anew raises SOUND, by which a stored run tells that it may sound different', () => {
  const digest = createHash('sha256').update(readFileSync(FILE)).digest('hex').slice(0, 16);
  expect({ SOUND, digest }).toEqual({ SOUND: 6, digest: 'd2153d3164df3461' });
});

/** Plays the log of a performance into a new engine. Patterns are named in it by their revision: their contents are the page's. */
function replay({ commands, frames }: Performance): Heard {
  const engine = new Engine(SR);
  engine.log.keep(true);
  for (const command of commands) engine.post(command);
  engine.process(new Float32Array(frames), new Float32Array(frames));
  const contents = new Map(commands.flatMap((c) => ('revision' in c ? [[c.revision, c] as const] : [])));
  const log = engine.log.drain().map((c) => {
    if (c.type === 'sample') return { ...c, sample: sampleNamed(c.sample.id) };
    return 'revision' in c ? { ...contents.get(c.revision)!, frame: c.frame } : c;
  });
  expect(log.length).toBeGreaterThan(10);
  return play({ commands: log, frames, blocks: [frames] });
}

test('random performances of everything: the same at any block size and from their log; every frame is written, none is beyond the ceiling', () => {
  // PERFORMANCES=10000 looks longer than every test run can.
  const count = Number(process.env.PERFORMANCES ?? 40);
  for (let seed = 1; seed <= count; seed++) {
    // Every other one with a mix.
    const random = seed % 2 === 0 ? randomMixedPerformance : randomPerformance;
    const make = () => random(seed * 7919, 20000, 60);
    const heard = play(make());
    const loudest = heard.left.reduce((most, x) => Math.max(most, Math.abs(x)), 0); // NaN for a frame that was not written
    const whole = play(make(), 20000);
    const name = `seed ${seed}`;
    expect([name, loudest <= 0.9]).toEqual([name, true]);
    expect([name, whole.samples, whole.events]).toEqual([name, heard.samples, heard.events]);
    expect([name, replay(make()).samples]).toEqual([name, heard.samples]);
  }
});
