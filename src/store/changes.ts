import type { Objectish, Patch } from 'immer';
import { difference, ListCopy } from '@/core/difference';
import { isPlain, type Plain } from '@/core/plain';

/** In the place of some parts of a list come others. */
interface Splice {
  op: 'splice';
  path: (string | number)[];
  at: number;
  remove: number;
  insert: readonly unknown[];
}

/** One change of a document. */
export type Change = Patch | Splice;

/** What to do to take a step back, and to do it again. */
export interface RawStep {
  undo: readonly Change[];
  redo: readonly Change[];
}

/**
 * The document after some changes. What they bring is put in as the very object it was: Immer's own `applyPatches` would copy it,
 * which costs time and memory, and one could no longer see that a pattern came back or went elsewhere.
 *
 * Each list and object on the way to a change is copied once, however many changes are in it: a take may be a thousand of them.
 */
export function applyChanges<T extends Objectish>(document: T, changes: readonly Change[]): T {
  const root: Owner = { document };
  /** All that was copied; lists with where they are changed. */
  const own = new Map<object, ListCopy<unknown> | null>([[root, null]]);
  const enter = (owner: Owner, key: string | number): Owner => {
    const part = owner[key] as Owner;
    if (own.has(part)) return part;
    own.get(owner)?.changes(Number(key), 1);
    const list = Array.isArray(part) ? new ListCopy(part as unknown[]) : null;
    const copy = (list?.list ?? { ...part }) as Owner;
    own.set(copy, list);
    owner[key] = copy;
    return copy;
  };
  for (const change of changes) {
    const path = ['document', ...change.path];
    const last = isSplice(change) ? path.length : path.length - 1;
    const owner = path.slice(0, last).reduce(enter, root);
    const list = own.get(owner);
    if (isSplice(change)) list!.splice(change.at, change.remove, change.insert);
    else if (list) patchList(list, path[last]!, change);
    else if (change.op === 'remove') delete owner[path[last]!];
    else owner[path[last]!] = change.value;
  }
  for (const [part, list] of own) Object.freeze(list?.done() ?? part);
  return root.document as T;
}

type Owner = Record<string | number, unknown>;

/** One patch of a list as Immer means it: to add and to remove make room and close it. */
function patchList(list: ListCopy<unknown>, key: string | number, { op, value }: Patch): void {
  if (key === 'length') list.splice(value as number, Infinity, []);
  else list.splice(Number(key), op === 'add' ? 0 : 1, op === 'remove' ? [] : [value]);
}

function isSplice(change: Change): change is Splice {
  return change.op === 'splice';
}

/**
 * Two steps as one. Where both put something in one same place, what lay between is forgotten: a drag of a thousand events
 * keeps what was before it and what is now.
 */
export function joined(first: RawStep, then: RawStep): RawStep {
  const [a, b] = [first.redo, then.redo];
  if (a.length === 1 && b.length === 1 && a[0]!.op === 'replace' && b[0]!.op === 'replace' && samePath(a[0]!, b[0]!)) {
    return { undo: first.undo, redo: then.redo };
  }
  return { undo: [...then.undo, ...first.undo], redo: [...a, ...b] };
}

function samePath(a: Patch, b: Patch): boolean {
  return a.path.length === b.path.length && a.path.every((key, i) => key === b.path[i]);
}

/** A step brought down to what it changed: where an object was replaced by one like it, only the fields that differ are kept. */
export function compacted({ undo, redo }: RawStep): { undo: readonly Change[]; redo: readonly Change[] } {
  const [back, forth] = [undo[0], redo[0]];
  const isOne = undo.length === 1 && redo.length === 1 && back?.op === 'replace' && forth?.op === 'replace';
  if (!isOne || !isPlain(back!.value) || !isPlain(forth!.value)) return { undo, redo };
  const changes = { undo: [] as Change[], redo: [] as Change[] };
  const [old, now] = [back!.value, forth!.value];
  for (const key of new Set([...Object.keys(old), ...Object.keys(now)])) {
    if (old[key] === now[key]) continue;
    const path = [...forth!.path, key];
    changes.redo.push(fieldChange(path, old, now, key));
    changes.undo.unshift(fieldChange(path, now, old, key));
  }
  return changes;
}

function fieldChange(path: (string | number)[], from: Plain, to: Plain, key: string): Change {
  const [a, b] = [from[key], to[key]];
  if (!(key in to)) return { op: 'remove', path };
  if (Array.isArray(a) && Array.isArray(b)) return splice(path, a, b);
  return { op: key in from ? 'replace' : 'add', path, value: b };
}

/** What differs between two lists, from the first part that is not the same to the last. */
function splice(path: (string | number)[], a: readonly unknown[], b: readonly unknown[]): Splice {
  const { start, oldEnd, end } = difference(a, b);
  return { op: 'splice', path, at: start, remove: oldEnd - start, insert: b.slice(start, end) };
}

/** Reads changes that were stored as JSON; null if they are none. A value that was undefined is absent there, and means the same. */
export function readChanges(plain: unknown): Change[] | null {
  return Array.isArray(plain) && plain.every(isChange) ? plain : null;
}

function isChange(plain: unknown): plain is Change {
  if (!isPlain(plain) || !Array.isArray(plain.path)) return false;
  if (!plain.path.every((key) => typeof key === 'string' || typeof key === 'number')) return false;
  const { op, at, remove, insert } = plain;
  if (op === 'splice') return Number.isInteger(at) && Number.isInteger(remove) && Array.isArray(insert);
  return op === 'add' || op === 'remove' || op === 'replace';
}

/** About how many bytes some values take: eight a number or reference, sixteen more an object, two a character. */
export function bytesOf(value: unknown): number {
  if (typeof value === 'string') return 16 + 2 * value.length;
  if (typeof value !== 'object' || value === null) return 8;
  let bytes = 24;
  for (const part of Object.values(value)) bytes += 8 + bytesOf(part);
  return bytes;
}
