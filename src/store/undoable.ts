import type { Action, Reducer } from '@reduxjs/toolkit';
import { applyPatches, enablePatches, produceWithPatches, type Objectish, type Patch } from 'immer';

enablePatches();

/** One step back or forth, as the patches of exactly what it changed: undoing a take never touches the tempo. */
export interface Step {
  /** What it was, for the Undo button: "take", "loop length". */
  label: string;
  group: string | null;
  undo: Patch[];
  redo: Patch[];
}

export interface History<T> {
  present: T;
  past: Step[];
  future: Step[];
}

/** How an action counts: a step of its own, part of the step of its `group`, an amendment to the last step, or (null) none. */
export type StepOf = (action: Action) => { label: string; group?: string } | 'amend' | 'reset' | null;

export const undone = () => ({ type: 'history/undone' }) as const;
export const redone = () => ({ type: 'history/redone' }) as const;

/** Wraps a reducer so that its steps can be undone and redone without limit. */
export function undoable<T extends Objectish>(reducer: Reducer<T>, stepOf: StepOf): Reducer<History<T>> {
  const start: History<T> = { present: reducer(undefined, { type: '@@init' }), past: [], future: [] };
  return (history = start, action) => {
    if (action.type === 'history/undone') return stepBack(history);
    if (action.type === 'history/redone') return stepForth(history);
    const [present, redo, undo] = produceWithPatches(
      history.present,
      (draft: T) => reducer(draft, action) as typeof draft,
    );
    if (present === history.present) return history;
    const step = stepOf(action);
    if (step === 'reset') return { present, past: [], future: [] };
    return { ...remember(history, step, redo, undo), present } as History<T>;
  };
}

function remember<T>(
  history: History<T>,
  step: Exclude<ReturnType<StepOf>, 'reset'>,
  redo: Patch[],
  undo: Patch[],
): History<T> {
  if (step === null) return history;
  const last = history.past[history.past.length - 1];
  const joins = last && (step === 'amend' || (step.group !== undefined && step.group === last.group));
  if (joins) {
    const joined: Step = { ...last, undo: [...undo, ...last.undo], redo: [...last.redo, ...redo] };
    return { ...history, past: [...history.past.slice(0, -1), joined], future: step === 'amend' ? history.future : [] };
  }
  if (step === 'amend') return history;
  const made: Step = { label: step.label, group: step.group ?? null, undo, redo };
  return { ...history, past: [...history.past, made], future: [] };
}

function stepBack<T extends Objectish>(history: History<T>): History<T> {
  const step = history.past[history.past.length - 1];
  if (!step) return history;
  return {
    present: applyPatches(history.present, step.undo),
    past: history.past.slice(0, -1),
    future: [step, ...history.future],
  };
}

function stepForth<T extends Objectish>(history: History<T>): History<T> {
  const [step, ...future] = history.future;
  if (!step) return history;
  return { present: applyPatches(history.present, step.redo), past: [...history.past, step], future };
}
