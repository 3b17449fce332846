import type { Performed } from '@/core/engine/replay';
import type { Run } from '@/core/document/run';
import { RunSchema } from '@/core/document/runSchema';
import { samplesOfKit, samplesOfSet } from '@/core/document/samplesOf';
import { sampleOf } from '@/core/document/sound';
import { check } from '@/core/document/validation';
import { isPlain } from '@/core/plain';
import { commandProblem } from '@/core/protocol/commandSchemas';
import { readLog } from '@/core/protocol/performedLog';
import { LOG_PREFIX, RUN_PREFIX, type Storage } from './records';
import { findSet, readStored } from './storedSet';

/** All runs that can be read, the newest first. */
export async function storedRuns(storage: Storage): Promise<Run[]> {
  const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(RUN_PREFIX));
  const texts = Object.values(await storage.getMany(keys));
  return texts.flatMap((text) => readRun(text) ?? []).sort((a, b) => b.at.localeCompare(a.at));
}

/**
 * What a run is heard again from.
 * @throws Error that says what of it is missing or cannot be read
 */
export async function openRun(storage: Storage, run: Run): Promise<Performed> {
  const found = await findSet(storage, run.set);
  if (!found) throw new Error('The set that it was played with is not stored any more.');
  const { plain } = found;
  const read = readStored({ ...found, plain: isPlain(plain) ? { ...plain, stage: run.stage } : plain });
  if ('error' in read) throw new Error(`The set that it was played with cannot be read. ${read.error}`);
  const prefix = `${LOG_PREFIX}${run.log} `;
  const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(prefix));
  keys.sort((a, b) => Number(a.slice(prefix.length)) - Number(b.slice(prefix.length)));
  const texts = await storage.getMany(keys);
  const log = keys.flatMap((key) => readLog(texts[key] ?? ''));
  for (const [i, command] of log.entries()) {
    const problem = commandProblem(command, `line ${i + 1} of its log`);
    if (problem) throw new Error(problem);
  }
  return { set: read.set, stage: read.stage, log, sampleRate: run.sampleRate };
}

/** The samples that the sounds of a performance name, those that came while it was played among them. */
export function samplesOfPerformed({ set, log }: Performed): string[] {
  const came = log.flatMap((command) => {
    if (command.type === 'kit') return samplesOfKit(command.kit);
    return command.type === 'padSound' ? (sampleOf(command.sound.source) ?? []) : [];
  });
  return [...new Set([...samplesOfSet(set), ...came])];
}

/** Reads the record of a run; null if it is none. */
export function readRun(text: string | null): Run | null {
  try {
    const plain: unknown = JSON.parse(text ?? 'null');
    return 'value' in check(RunSchema, plain, 'the run') ? (plain as Run) : null;
  } catch {
    return null;
  }
}
