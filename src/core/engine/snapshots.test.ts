import { at, type Command, type Instruction } from '../protocol/commands';
import { decodeEvents, type EngineEvent } from '../protocol/events';
import { HIT_WIDTH } from '../sequence/hitRows';
import { Engine } from './engine';
import { randomDeeds, randomPerformance } from './performances.testing';
import type { Snapshots } from './snapshots';
import type { TrackRack } from './trackRack';

const SR = 48000;

/** Events of what is played. What a launcher tells depends on what it has told before. */
const OF_MUSIC = new Set<EngineEvent['kind']>(['anchor', 'sounded', 'recorded', 'released', 'loop']);

function run(engine: Engine, frames: number) {
  const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
  engine.process(left, right);
  const events = decodeEvents(engine.events.drain()).filter(({ kind }) => OF_MUSIC.has(kind));
  return { left, right, events };
}

/** What of the commands the document would tell a new engine; the last word on each thing comes last. */
const OF_DOCUMENT = new Set<Command['type']>(['sample', 'kit', 'padSound', 'notes', 'trackLevel', 'removeTrack', 'heardPads', 'moves', 'loopWindow', 'sections', 'chain', 'metronome', 'inputQuantize', 'meter', 'pattern']); // prettier-ignore

/** Copies, since an engine adopts the arrays of what it is told. */
const copied = (commands: readonly Command[]): Command[] => structuredClone([...commands]);

/** The hits as the engine has them, with those that were recorded. */
function hits(engine: Engine): Instruction[] {
  const { rack } = (engine as unknown as { snapshots: { parts: { rack: TrackRack } } }).snapshots.parts;
  return rack.tracks.flatMap(({ slots }, track) =>
    slots.flatMap((player, slot): Instruction[] => {
      if (!player) return [];
      const rows = Array.from({ length: player.hits.count * HIT_WIDTH }, (_, i) =>
        player.hits.get(Math.floor(i / HIT_WIDTH), i % HIT_WIDTH),
      );
      return [{ type: 'patternEdit', track, slot, revision: 0, removed: new Float64Array(0), hits: Float64Array.from(rows) }];
    }),
  ); // prettier-ignore
}

const resting = (engine: Engine) => (engine as unknown as { snapshots: Snapshots }).snapshots.isResting;

/** An engine that has played everything, and rests. */
function rested(seed: number) {
  const engine = new Engine(SR);
  engine.log.keep(true);
  const { commands, frames } = randomPerformance(seed);
  for (const command of copied(commands)) engine.post(command);
  run(engine, frames);
  const end: Instruction[] = [
    { type: 'releaseAll' },
    { type: 'noteRepeat', on: false, latch: false },
    { type: 'stop' },
  ];
  for (const instruction of end) engine.post(at(frames, instruction));
  for (let seconds = 0; seconds < 12 && !resting(engine); seconds++) run(engine, SR);
  engine.log.drain();
  return { engine, document: commands.filter(({ type }) => OF_DOCUMENT.has(type)) };
}

test('an engine that has played for long and a new one that takes its state over sound the same from there on', () => {
  const count = Number(process.env.SNAPSHOTS ?? 12);
  let taken = 0;
  for (let seed = 1; seed <= count; seed++) {
    const { engine, document } = rested(seed);
    const { frame } = engine;
    engine.post(at(frame, { type: 'snapshot', id: 1, state: null }));
    run(engine, 128);
    const [snapshot] = engine.log.drain();
    if (!snapshot) continue; // a sound was left to ring
    taken++;
    const { serial } = (snapshot as Command<'snapshot'>).state!;
    const other = new Engine(SR, frame);
    for (const command of copied(document)) other.post({ ...command, frame });
    for (const instruction of hits(engine)) other.post(at(frame, instruction));
    other.post(JSON.parse(JSON.stringify(snapshot, words), values) as Command);
    run(other, 128);
    const after = [...randomDeeds(seed + 1000, engine.frame, 72000, 90), at(engine.frame + 4000, { type: 'play', startTick: 0, countInTicks: 0 } as const)]; // prettier-ignore
    // The document has all that was recorded before.
    for (const command of after) if (command.type === 'pattern') command.seen = serial;
    for (const command of copied(after)) engine.post(command);
    for (const command of copied(after)) other.post(command);
    const [a, b] = [run(engine, 96000), run(other, 96000)];
    const differs = a.left.findIndex((x, i) => x !== b.left[i] || a.right[i] !== b.right[i]);
    expect({ seed, differs }).toEqual({ seed, differs: -1 });
    expect(b.events).toEqual(a.events);
  }
  expect(taken).toBeGreaterThan(count / 2);
}, 120_000);

/** JSON knows no NaN and no Infinity. */
const words = (_: string, value: unknown) => (typeof value === 'number' && !Number.isFinite(value) ? String(value) : value); // prettier-ignore
const values = (_: string, value: unknown) => (value === 'NaN' || value === 'Infinity' || value === '-Infinity' ? Number(value) : value); // prettier-ignore

test('a snapshot is noted only by an engine that rests and keeps its log', () => {
  const engine = new Engine(SR);
  const noted = () => {
    engine.post(at(engine.frame, { type: 'snapshot', id: 1, state: null }));
    run(engine, 128);
    return engine.log.drain().filter(({ type }) => type === 'snapshot').length;
  };
  expect(noted()).toBe(0);
  engine.log.keep(true);
  expect(noted()).toBe(1);
  engine.post(at(engine.frame, { type: 'padDown', track: 0, pad: 0, velocity: 1, heard: engine.frame, id: 1 }));
  run(engine, 4800);
  expect(noted()).toBe(0);
  run(engine, 10 * SR);
  expect(noted()).toBe(0); // it is still held
  engine.post(at(engine.frame, { type: 'padUp', track: 0, pad: 0, heard: engine.frame }));
  run(engine, 128);
  expect(noted()).toBe(1);
});
