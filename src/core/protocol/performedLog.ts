import { POLISHED_FLOOR } from '../document/kits';
import type { CapturedRun } from '../document/run';
import type { OpenSet } from '../document/set';
import type { Command } from './commands';

/** All that an engine was told since it rested, and the set and the stage at that moment: enough to hear again what it played. */
export interface PerformedLog extends OpenSet {
  id: string;
  /** Begins with a snapshot. */
  commands: Command[];
}

/** Told whenever a run has grown or ended. */
export type RunListener = (run: CapturedRun, log: PerformedLog, ended: boolean) => void;

/** Lists of numbers that an engine takes as they are. */
const LIST = '#';

/**
 * The commands of a performance as a text: one a line, JSON with what that has no words for. Arrays of numbers stand as `{"#": [...]}`,
 * numbers that are none as their names.
 */
export function logText(commands: readonly Command[]): string {
  return commands.map((command) => JSON.stringify(command, toPlain)).join('\n');
}

/**
 * Reads what `logText` gave.
 * @throws Error that names the first line that cannot be read
 */
export function readLog(text: string): Command[] {
  if (text === '') return [];
  return text.split('\n').map((line, i) => {
    try {
      const command = upToDate(JSON.parse(line, fromPlain) as Command);
      if (typeof command?.type === 'string' && Number.isFinite(command.frame)) return command;
    } catch {
      // said below
    }
    throw new Error(`Line ${i + 1} of the log is no command.`);
  });
}

/** Logs of before sounds were documents name the one kit that there was. */
function upToDate(command: Command): Command {
  const isOld = command?.type === 'kit' && (command.kit as unknown) === 'polished-floor';
  return isOld ? { ...command, kit: POLISHED_FLOOR } : command;
}

function toPlain(_: string, value: unknown): unknown {
  // By its kind and not its class, which differs for what came from another realm.
  if (ArrayBuffer.isView(value)) return { [LIST]: Array.from(value as Float64Array) };
  return typeof value === 'number' && !Number.isFinite(value) ? String(value) : value;
}

function fromPlain(_: string, value: unknown): unknown {
  if (value === 'NaN' || value === 'Infinity' || value === '-Infinity') return Number(value);
  const list = typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[LIST] : undefined;
  return Array.isArray(list) ? Float64Array.from(list as number[]) : value;
}
