import { randomPerformance } from '../engine/performances.testing';
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
