import { Engine } from '../engine/engine';
import { randomPerformance } from '../engine/performances.testing';
import { random } from '../random';
import { commandProblem } from './commandSchemas';
import type { Command } from './commands';
import { logText, readLog } from './performedLog';

test('everything that an engine can be told is right, also stored and read again', () => {
  const seen = new Set<string>();
  for (let seed = 1; seed <= 40; seed++) {
    // As an engine keeps them: without the audio of samples.
    const commands = randomPerformance(seed).commands.map((c) => (c.type === 'sample' ? { ...c, sample: { ...c.sample, levels: [] } } : c)); // prettier-ignore
    for (const command of readLog(logText(commands))) {
      seen.add(command.type);
      expect(commandProblem(command, 'line 1')).toBeNull();
    }
  }
  expect(seen.size).toBeGreaterThan(35);
});

test('a command that is none, or has a field that is not right, is said', () => {
  const wrong = (command: object) => commandProblem(command as Command, 'line 7');
  expect(wrong({ type: 'explode', frame: 0 })).toBe('At line 7: “explode” is no command that is known.');
  expect(wrong({ type: 'tempo', frame: 0, bpm: 'fast' })).toMatch(/^At line 7, bpm: /);
  expect(wrong({ type: 'padDown', frame: 0, track: 99, pad: 0, velocity: 1, heard: 0, id: 1 })).toMatch(/^At line 7, track: /); // prettier-ignore
  expect(wrong({ type: 'moves', frame: 0, track: 0, slot: 0, revision: 1, points: [1] })).toMatch(/^At line 7, points: must be a list of numbers/); // prettier-ignore
  expect(wrong({ type: 'stop', frame: -5 })).toMatch(/^At line 7, frame: /);
});

/** Numbers that a damaged log may hold. */
const ODD = [0, -1, 0.5, 127, 1e9, -1e9, 1e15, -1e15, 1e308, -1e308];

/** Puts an odd number into the place of one that a command holds. @param next 0..1 */
function damage(command: Command, next: () => number): void {
  const places: { of: Record<string, unknown>; key: string }[] = [];
  const look = (of: Record<string, unknown>) => {
    for (const key of Object.keys(of)) {
      if (typeof of[key] === 'number') places.push({ of, key });
      else if (typeof of[key] === 'object' && of[key] !== null) look(of[key] as Record<string, unknown>);
    }
  };
  look(command as unknown as Record<string, unknown>);
  const { of, key } = places[Math.floor(next() * places.length)]!;
  of[key] = ODD[Math.floor(next() * ODD.length)];
}

test('what is not refused can be played, however odd: it comes to an end, and no sample is none', () => {
  let played = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const next = random(seed);
    const { commands, frames } = randomPerformance(seed, 12000, 60);
    const log = readLog(logText(commands.filter(({ type }) => type !== 'sample')));
    const odd = log.map((command) => {
      if (next() < 0.7) return command;
      const [damaged] = readLog(logText([command]));
      damage(damaged!, next);
      const isRefused = commandProblem(damaged!, 'line 1') !== null;
      if (!isRefused) played++;
      return isRefused ? command : damaged!;
    });
    const engine = new Engine(48000);
    for (const command of odd) engine.post(command);
    const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
    engine.process(left, right);
    expect([seed, left.every((x) => Math.abs(x) <= 1) && right.every((x) => Math.abs(x) <= 1)]).toEqual([seed, true]);
  }
  expect(played).toBeGreaterThan(200);
});
