import { nanoid } from '@reduxjs/toolkit';
import { isPlain } from '@/core/plain';
import { readChanges } from '@/store/changes';
import type { Store } from '@/store/store';
import { fits, isChangeOfDocument, newStep, stepsOf, type Step, type Steps } from '@/store/undoable';
import { HISTORY_KEY, STEP_PREFIX, type Storage } from './records';
import type { Companion } from './saver';

/** So many steps each way are stored, and no more letters than these. */
export const MOST_STEPS = 100;
const MOST_LETTERS = 4_000_000;

/** Which steps are stored, by their keys. */
interface HistoryRecord {
  /** Tells the record of the set that they belong to: with any other they would give nonsense. */
  of: string;
  past: string[];
  future: string[];
}

/**
 * Stores the steps of undo with the set, in one write, so that undo survives a reload. A step is stored once, under a key of its own.
 * They go back to where the set was opened: the one that was open before lies in the library.
 */
export class StoredHistory implements Companion {
  private readonly keys = new WeakMap<Step, string>();
  /** Letters of each step. */
  private readonly letters = new Map<string, number>();
  /** Keys that the storage has; that were handed to it since; that the last record names. */
  private stored = new Set<string>();
  private readonly sent = new Set<string>();
  private named = new Set<string>();

  constructor(
    private readonly store: Store,
    private readonly storage: Storage,
  ) {}

  own(): void {
    this.sweep().catch(() => undefined); // another time, then
  }

  lose(): void {
    this.lost();
  }

  lost(): void {
    this.stored.clear();
    this.sent.clear();
  }

  entries(record: string, isLast: boolean): Record<string, string> {
    const { past, future } = stepsOf(this.store.getState().set, !isLast);
    const entries: Record<string, string> = {};
    const names = {
      past: this.name([...past].reverse(), entries).reverse(),
      future: this.name(future, entries),
    };
    this.named = new Set([...names.past, ...names.future]);
    for (const key of Object.keys(entries)) this.sent.add(key);
    const history: HistoryRecord = { of: fingerprint(record), ...names };
    return { ...entries, [HISTORY_KEY]: JSON.stringify(history) };
  }

  written(): string[] {
    const { named } = this;
    const gone = [...this.stored, ...this.sent].filter((key) => !named.has(key));
    this.stored = new Set(named);
    this.sent.clear();
    for (const key of gone) this.letters.delete(key);
    return gone;
  }

  /**
   * The stored steps that belong to the set of a record; none if they do not, or cannot be read: undo begins anew then.
   * @param document the set as it was read from that record
   */
  async read(record: string, document: object): Promise<Steps> {
    const history = readRecord(await this.storage.getItem(HISTORY_KEY));
    if (!history || history.of !== fingerprint(record)) return { past: [], future: [] };
    const texts = await this.storage.getMany([...history.past, ...history.future]);
    const steps = (keys: readonly string[]) => keys.map((key) => readStep(texts[key] ?? null));
    const [past, future] = [steps(history.past), steps(history.future)];
    const found = { past: past.filter((step) => step !== null), future: future.filter((step) => step !== null) };
    const isWhole = found.past.length === past.length && found.future.length === future.length;
    if (!isWhole || !fits(document, found)) return { past: [], future: [] };
    const keys = [...history.past, ...history.future];
    [...found.past, ...found.future].forEach((step, i) => this.keys.set(step, keys[i]!));
    for (const key of keys) this.letters.set(key, texts[key]!.length);
    this.stored = new Set(keys);
    return found;
  }

  /** Names steps from the nearest one as far as they are stored, and adds the texts of those that are not yet. */
  private name(steps: readonly Step[], entries: Record<string, string>): string[] {
    const names: string[] = [];
    let letters = 0;
    for (const step of steps.slice(0, MOST_STEPS)) {
      if (isChangeOfDocument(step)) break;
      const key = this.keys.get(step) ?? STEP_PREFIX + nanoid();
      this.keys.set(step, key);
      const text = this.stored.has(key) ? null : stepText(step);
      if (text !== null) this.letters.set(key, text.length);
      letters += this.letters.get(key)!;
      if (letters > MOST_LETTERS) break;
      if (text !== null) entries[key] = text;
      names.push(key);
    }
    return names;
  }

  /** Removes steps that no record names, as a page leaves them that goes between a write and the removal of what it replaced. */
  private async sweep(): Promise<void> {
    const { storage } = this;
    const keys = (await storage.getAllKeys()).filter((key) => key.startsWith(STEP_PREFIX));
    // Read after the keys were: what is written meanwhile is not among them.
    const history = readRecord(await storage.getItem(HISTORY_KEY));
    const used = new Set([...(history?.past ?? []), ...(history?.future ?? []), ...this.stored, ...this.sent]);
    const loose = keys.filter((key) => !used.has(key));
    if (loose.length > 0) await storage.removeMany(loose);
  }
}

function stepText({ label, undo, redo }: Step): string {
  return JSON.stringify({ label, undo, redo });
}

function readStep(text: string | null): Step | null {
  const plain = parsed(text);
  if (!isPlain(plain) || typeof plain.label !== 'string') return null;
  const [undo, redo] = [readChanges(plain.undo), readChanges(plain.redo)];
  return undo && redo && newStep(plain.label, { undo, redo });
}

function readRecord(text: string | null): HistoryRecord | null {
  const plain = parsed(text);
  const areKeys = (keys: unknown): keys is string[] =>
    Array.isArray(keys) && keys.every((key) => typeof key === 'string' && key.startsWith(STEP_PREFIX));
  if (!isPlain(plain) || typeof plain.of !== 'string') return null;
  const { of, past, future } = plain;
  return areKeys(past) && areKeys(future) ? { of, past, future } : null;
}

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}

/** Tells one text from another: its length and its hash (FNV-1a, 32 bit; Fowler, Noll, Vo, from memory). */
function fingerprint(text: string): string {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return `${text.length} ${(hash >>> 0).toString(16)}`;
}
