import type { CapturedRun, Run } from '@/core/document/run';
import type { Performed } from '@/core/engine/replay';
import { fixesText, NO_FIXES, readFixes, type Fixes } from '@/core/score/fixSchema';
import { logText, type PerformedLog, type RunListener } from '@/core/protocol/performedLog';
import type { Sample } from '@/core/sample/levels';
import { SampleStore } from './samples';
import { FIXES_PREFIX, LOG_PREFIX, RUN_PREFIX, type Storage } from './records';
import { openRun, samplesOfPerformed, readRun, storedRuns } from './storedRuns';
import type { Versions } from './versions';

/** A run is written so soon after it has grown: at most this much of it is lost if the browser dies. */
const WRITE_AFTER_MS = 700;
/** Letters of one piece of a log. Only the last one is written again as the log grows. */
const PIECE = 32_000;
/** So many runs, and letters of logs, stay. */
export const MOST_RUNS = 20;
export const MOST_LETTERS = 50_000_000;

/** A log as far as it is written. */
interface Written {
  /** Key of the stored set that it begins with. */
  set: string;
  /** How many of its commands are in its text. */
  commands: number;
  /** Number of the piece that grows, and its text. */
  piece: number;
  text: string;
  letters: number;
}

/** What hands change of a run. */
export type RunChange = Partial<Pick<Run, 'name' | 'note' | 'marked' | 'picture'>>;

/** Writes runs away as they are played, and keeps the last ones and those that are marked. */
export class RunStore {
  private readonly logs = new Map<PerformedLog, Written>();
  /** What has grown since it was written. */
  private readonly grown = new Map<string, { run: CapturedRun; log: PerformedLog }>();
  private timer: ReturnType<typeof setTimeout> | null = null;
  private turn: Promise<void> = Promise.resolve();
  /** What hands have changed of runs, some of which are still written as they go on. */
  private readonly changes = new Map<string, RunChange>();
  /** Runs that were removed since the page was opened, and can be brought back. */
  private readonly removed = new Map<string, Run>();
  private gone: readonly Run[] = [];
  private readonly listeners = new Set<() => void>();

  /** @param versions those of the tab that owns the set; another tab writes no runs */
  constructor(
    private readonly storage: Storage,
    private readonly versions: () => Versions | null,
  ) {}

  /** Hand it to `RunCapture.onRun`. */
  readonly note: RunListener = (run, log, ended) => {
    this.grown.set(run.id, { run: { ...run, tempo: { ...run.tempo } }, log });
    if (!ended) {
      this.timer ??= setTimeout(() => void this.writeNow(), WRITE_AFTER_MS);
      return;
    }
    void this.writeNow();
    void this.inTurn(() => this.prune());
  };

  /** Runs that were removed since the page was opened, the last one first. */
  readonly deleted = (): readonly Run[] => this.gone;

  /** All runs, the newest first. */
  readonly list = (): Promise<Run[]> => storedRuns(this.storage);

  /**
   * What a run is heard again from.
   * @throws Error that says what of it is missing or cannot be read
   */
  performed(run: Run): Promise<Performed> {
    return openRun(this.storage, run);
  }

  /** The samples that its sounds name, as far as they are on this device. */
  samplesOf(performed: Performed): Promise<Sample[]> {
    return new SampleStore(this.storage).loadAll(samplesOfPerformed(performed));
  }

  /**
   * What was put right in a run.
   * @throws Error that says what is wrong with its record
   */
  async fixes({ id }: Run): Promise<Fixes> {
    const text = await this.storage.getItem(FIXES_PREFIX + id);
    if (text === null) return NO_FIXES;
    const read = readFixes(text);
    if ('problem' in read) throw new Error(`What was put right in it cannot be read. ${read.problem}`);
    return read.value;
  }

  /** Keeps what was put right in a run; it counts as kept from then on. */
  keepFixes(run: Run, fixes: Fixes): Promise<void> {
    return this.inTurn(async () => {
      await this.storage.setItem(FIXES_PREFIX + run.id, fixesText(fixes));
    });
  }

  /** Asks to be told when the runs are others. Returns what ends it. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  change(run: Run, change: RunChange): Promise<void> {
    this.changes.set(run.id, { ...this.changes.get(run.id), ...change });
    return this.inTurn(() => this.put(run));
  }

  /** Removes a run. Its log stays until the page is opened again: until then it can be brought back. */
  remove(run: Run): Promise<void> {
    return this.inTurn(async () => {
      await this.storage.removeItem(RUN_PREFIX + run.id);
      this.removed.set(run.id, run);
      this.tellRemoved();
    });
  }

  bringBack(run: Run): Promise<void> {
    this.removed.delete(run.id);
    this.tellRemoved();
    return this.inTurn(() => this.put(run));
  }

  /** What was stored is gone: what goes on is written from its beginning. */
  writeAgain(): void {
    this.logs.clear();
  }

  /** Writes all that has grown, as when the page is about to go away. What cannot be written is tried again with what comes next. */
  writeNow(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    return this.inTurn(() => this.writeGrown());
  }

  /** One after the other: a version that is stored and not yet named by its run is not to be removed. */
  private inTurn(act: () => Promise<void>): Promise<void> {
    return (this.turn = this.turn.then(act, act));
  }

  private async writeGrown(): Promise<void> {
    const grown = [...this.grown.values()];
    this.grown.clear();
    for (const { run, log } of grown) {
      try {
        await this.write(run, log);
      } catch {
        // The saver of the set says what the storage refuses.
        if (!this.grown.has(run.id)) this.grown.set(run.id, { run, log });
      }
    }
  }

  private async write(run: CapturedRun, log: PerformedLog): Promise<void> {
    const written = await this.begun(log);
    if (!written) return;
    const entries: Record<string, string> = {};
    const { piece, text, lines, letters } = this.grow(log, written, entries);
    const stored = { ...run, marked: false, set: written.set, stage: log.stage, letters };
    // One that was removed while it went on stays removed.
    if (!this.removed.has(run.id)) entries[RUN_PREFIX + run.id] = this.textOf(stored);
    await this.storage.setMany(entries);
    Object.assign(written, { piece, text, letters, commands: lines });
    this.tell();
  }

  /** Writes what hands have changed into the record as it is now: the run may have gone on since it was listed. */
  private async put(run: Run): Promise<void> {
    const key = RUN_PREFIX + run.id;
    const now = readRun(await this.storage.getItem(key)) ?? run;
    await this.storage.setItem(key, this.textOf(now));
    this.tell();
  }

  private textOf(run: Run): string {
    return JSON.stringify({ ...run, ...this.changes.get(run.id) });
  }

  private tellRemoved(): void {
    this.gone = [...this.removed.values()].reverse();
    this.tell();
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }

  /** What of a log is written; null where nothing is to be. */
  private async begun(log: PerformedLog): Promise<Written | null> {
    const known = this.logs.get(log);
    if (known) return known;
    const set = await this.versions()?.keep(log.set);
    if (set === undefined) return null;
    const written = this.logs.get(log) ?? { set, commands: 0, piece: 0, text: '', letters: 0 };
    this.logs.clear(); // the one before grows no more
    this.logs.set(log, written);
    return written;
  }

  /** The pieces of a log that its new commands make or make longer. */
  private grow({ id, commands }: PerformedLog, written: Written, entries: Record<string, string>) {
    let { piece, text, letters } = written;
    for (const command of commands.slice(written.commands)) {
      const line = logText([command]);
      letters += line.length + 1;
      if (text.length > 0 && text.length + line.length > PIECE) {
        piece++;
        text = '';
      }
      text += text === '' ? line : `\n${line}`;
      entries[`${LOG_PREFIX}${id} ${piece}`] = text;
    }
    return { piece, text, letters, lines: commands.length };
  }

  /** Removes the oldest runs above what may stay, with the logs and sets that only they refer to. */
  private async prune(): Promise<void> {
    const { storage } = this;
    const runs = await storedRuns(storage);
    let [count, letters] = [0, 0];
    // Runs that share a log take its room once: the newest one counts all of it.
    const counted = new Set<string>();
    const stays = (run: Run) => {
      letters += counted.has(run.log) ? 0 : run.letters;
      counted.add(run.log);
      return ++count <= MOST_RUNS && letters <= MOST_LETTERS;
    };
    const kept = runs.filter((run) => run.marked || stays(run));
    const named = [...kept, ...this.removed.values()];
    const logs = new Set(named.map((run) => run.log));
    const keptKeys = new Set(kept.map(({ id }) => RUN_PREFIX + id));
    const isGone = (key: string) =>
      (key.startsWith(FIXES_PREFIX) && !named.some(({ id }) => key === FIXES_PREFIX + id)) ||
      (key.startsWith(RUN_PREFIX) && !keptKeys.has(key)) ||
      (key.startsWith(LOG_PREFIX) && !logs.has(key.split(' ')[1]!));
    const gone = (await storage.getAllKeys()).filter(isGone);
    if (gone.length > 0) await storage.removeMany(gone);
    this.tell();
    const going = [...this.logs.values()].map(({ set }) => set);
    await this.versions()?.keepOnly(new Set([...named.map((run) => run.set), ...going]));
  }
}
