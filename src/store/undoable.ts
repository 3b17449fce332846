import type { Action, Reducer } from '@reduxjs/toolkit';
import { enablePatches, produceWithPatches, type Objectish } from 'immer';
import { applyChanges, bytesOf, compacted, joined, type Change, type RawStep } from './changes';

enablePatches();

/** What an action says of itself in `meta.undo`: a step of its own, part of the step of its group, or an amendment to the last. */
export type UndoMeta = { label: string; group?: string | undefined } | 'amend' | 'reset';

/** One step back or forth: exactly what it changed, so that undoing a take never touches the tempo. */
export interface Step {
  /** What it was, for the Undo button: "take", "loop length". */
  label: string;
  undo: readonly Change[];
  redo: readonly Change[];
  /** About how much memory it keeps. */
  bytes: number;
}

/** The last step, which others of its group still join. */
interface OpenStep extends RawStep {
  label: string;
  group: string | undefined;
}

export interface History<T> {
  present: T;
  past: readonly Step[];
  /** The newest step, while it may still grow. */
  open: OpenStep | null;
  future: readonly Step[];
  /** About how much memory the closed steps of the past keep. */
  bytes: number;
}

/** The oldest steps are dropped beyond this. */
const MOST_BYTES = 64e6;

/** While a step has more changes than this, it is written out only when that cannot wait. */
const MOST_CHANGES = 500;

/** What can be undone, the oldest first, and what can be redone, the next first. */
export type Steps = Pick<History<unknown>, 'past' | 'future'>;

export const undone = () => ({ type: 'history/undone' }) as const;
export const redone = () => ({ type: 'history/redone' }) as const;

/** Steps that were stored with the document, as it is now: they can be undone and redone again. */
export const historyRestored = (payload: Steps) => ({ type: 'history/restored', payload }) as const;

/** Whether an action goes back or forth in the history. */
export function isTimeTravel({ type }: Action): boolean {
  return type === undone().type || type === redone().type;
}

/** Whether an action makes a step, or goes on with one. */
export function isUndoable(action: Action): boolean {
  const meta = undoOf(action);
  return meta !== undefined && meta !== 'amend';
}

/** Makes a payload one step of undo. For a slice's `prepare`. */
export function undoStep<P>(label: string | ((payload: P) => string), group?: (payload: P) => string | undefined) {
  return (payload: P) => {
    const undo: UndoMeta = { label: typeof label === 'string' ? label : label(payload), group: group?.(payload) };
    return { payload, meta: { undo } };
  };
}

/** Makes a payload a change that belongs to the last step. */
export function amendment<P>(payload: P) {
  return { payload, meta: { undo: 'amend' as UndoMeta } };
}

/** Makes a payload the beginning of a new history. */
export function newHistory<P>(payload: P) {
  return { payload, meta: { undo: 'reset' as UndoMeta } };
}

const NO_STEPS: Steps = { past: [], future: [] };

/**
 * The steps of a history, each of them one object for as long as it does not change.
 * @param mayWait none are given while the newest one is long and still grows
 */
export function stepsOf<T>(history: History<T>, mayWait: boolean): Steps {
  const { open } = history;
  if (mayWait && open && open.undo.length + open.redo.length > MOST_CHANGES) return NO_STEPS;
  return closed(history);
}

/** Whether a step puts another document in the place of this one. */
export function isChangeOfDocument({ undo, redo }: Step): boolean {
  return [...undo, ...redo].some(({ path }) => path.length === 0 || (path.length === 1 && path[0] === 'id'));
}

/** Whether steps lead from a document all the way back, and all the way on. */
export function fits(document: Objectish, { past, future }: Steps): boolean {
  try {
    [...past].reverse().reduce((now, step) => applyChanges(now, step.undo), document);
    future.reduce((now, step) => applyChanges(now, step.redo), document);
    return true;
  } catch {
    return false;
  }
}

/** The label of what would be undone, or null. */
export function undoLabel<T>({ past, open }: History<T>): string | null {
  return (open ?? past[past.length - 1])?.label ?? null;
}

/** What an action changes, said outright; null for an action that is left to the reducer. */
type Outright<T> = (state: T, action: Action) => RawStep | null;

/**
 * Wraps a reducer so that the actions which say so can be undone and redone.
 * @param outright for what comes often and concerns a few of thousands: Immer would look at every part of the list
 */
export function undoable<T extends Objectish>(reducer: Reducer<T>, outright: Outright<T>): Reducer<History<T>> {
  const start: History<T> = {
    present: reducer(undefined, { type: '@@init' }),
    past: [],
    open: null,
    future: [],
    bytes: 0,
  };
  return (history = start, action) => {
    if (action.type === undone().type) return stepBack(closed(history));
    if (action.type === redone().type) return stepForth(closed(history));
    if (isRestoring(action)) {
      const { past, future } = action.payload;
      return { ...history, past, future, open: null, bytes: past.reduce((sum, step) => sum + step.bytes, 0) };
    }
    const [present, step] = changed(history.present, action);
    if (present === history.present) return history;
    const meta = undoOf(action);
    if (meta === 'reset') return { ...start, present };
    return { ...remember(history, meta, step), present };
  };

  function changed(state: T, action: Action): [T, RawStep] {
    const step = outright(state, action);
    if (step) return [step.redo.length > 0 ? applyChanges(state, step.redo) : state, step];
    const [now, redo, undo] = produceWithPatches(state, (draft: T) => reducer(draft, action) as typeof draft);
    return [now as T, { redo, undo }];
  }
}

function isRestoring(action: Action): action is ReturnType<typeof historyRestored> {
  return action.type === historyRestored(NO_STEPS).type;
}

function undoOf(action: Action): UndoMeta | undefined {
  return (action as { meta?: { undo?: UndoMeta } }).meta?.undo;
}

function remember<T>(history: History<T>, meta: UndoMeta | undefined, step: RawStep): History<T> {
  if (meta === undefined || meta === 'reset') return history;
  if (meta === 'amend') return amend(history, step);
  const { open } = history;
  if (open && meta.group !== undefined && meta.group === open.group) {
    return { ...history, open: { ...open, ...joined(open, step) }, future: [] };
  }
  return { ...closed(history), open: { ...step, label: meta.label, group: meta.group }, future: [] };
}

/** What belongs to the last step goes with it; what was undone can still be redone. */
function amend<T>(history: History<T>, step: RawStep): History<T> {
  const { open, past } = history;
  if (open) return { ...history, open: { ...open, ...joined(open, step) } };
  const last = past[past.length - 1];
  if (!last) return history;
  const amended = { ...last, undo: [...step.undo, ...last.undo], redo: [...last.redo, ...step.redo] };
  return { ...history, past: [...past.slice(0, -1), amended] };
}

/** Open steps as they were closed: asked again, a step is the same object. */
const closedSteps = new WeakMap<OpenStep, Step>();

/** The open step becomes one of the past, brought down to what it changed; the oldest steps make room. */
function closed<T>(history: History<T>): History<T> {
  const { open } = history;
  if (!open) return history;
  const step = closedSteps.get(open) ?? newStep(open.label, compacted(open));
  closedSteps.set(open, step);
  const past = [...history.past, step];
  let bytes = history.bytes + step.bytes;
  while (bytes > MOST_BYTES && past.length > 1) bytes -= past.shift()!.bytes;
  return { ...history, past, open: null, bytes };
}

/** A step of changes, with what it weighs. */
export function newStep(label: string, { undo, redo }: RawStep): Step {
  return { label, undo, redo, bytes: bytesOf(undo) + bytesOf(redo) };
}

function stepBack<T extends Objectish>(history: History<T>): History<T> {
  const step = history.past[history.past.length - 1];
  if (!step) return history;
  return {
    ...history,
    present: applyChanges(history.present, step.undo),
    past: history.past.slice(0, -1),
    future: [step, ...history.future],
    bytes: history.bytes - step.bytes,
  };
}

function stepForth<T extends Objectish>(history: History<T>): History<T> {
  const [step, ...future] = history.future;
  if (!step) return history;
  return {
    ...history,
    present: applyChanges(history.present, step.redo),
    past: [...history.past, step],
    future,
    bytes: history.bytes + step.bytes,
  };
}
