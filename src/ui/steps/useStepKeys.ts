import { usePatternEdit } from '../shared/usePatternEdit';
import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { tinykeys } from 'tinykeys';
import type { Edit } from '@/core/edit/edit';
import { copy, cut, duplicate, erase, laneMove, pasteAtCursor, selectAll } from '@/instrument/stepEdits';
import { hitsSelected, selectSelected, selectStepTicks, selectTargets } from '@/store/stepsSlice';
import type { RootState, Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { isTyping } from '../shell/focus';
import { gestureName } from '../shared/useDrag';

/** The keys of Steps, as the overlay of keys lists them. None is one by which a browser closes, reloads, goes back or bookmarks. */
export const STEP_KEYS = [
  { keys: 'Arrows', does: 'From step to step, when the steps have the focus' },
  { keys: 'Enter', does: 'Fill or empty the step' },
  { keys: 'Shift Enter', does: 'Open the step' },
  { keys: 'Page ↑ ↓', does: 'Velocity of the step' },
  { keys: 'Shift drag', does: 'Choose hits' },
  { keys: 'Ctrl A', does: 'Choose everything' },
  { keys: 'Ctrl X C V', does: 'Cut, copy, paste at the cursor' },
  { keys: 'Ctrl B', does: 'Duplicate' },
  { keys: 'Delete', does: 'Erase what is chosen' },
  { keys: 'Shift ← →', does: 'Move by a step' },
  { keys: 'Shift ↑ ↓', does: 'Move by a lane' },
  { keys: 'Shift , .', does: 'Move by a 64th of a step' },
  { keys: 'Shift Page ↑ ↓', does: 'A semitone up, down' },
  { keys: 'Escape', does: 'Choose nothing' },
] as const;

export function useStepKeys(): void {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const editPattern = usePatternEdit();
  useEffect(() => {
    const on = (act: () => void) => (event: KeyboardEvent) => {
      if (isTyping(event.target)) return;
      event.preventDefault();
      act();
    };
    const edit = (make: (ids: number[], state: RootState) => Edit) =>
      on(() => {
        const state = store.getState();
        editPattern(make(selectTargets(state), state), gestureName('key'));
      });
    const move = (steps: number) =>
      edit((ids, state) => ({ kind: 'move', ids, ticks: steps * selectStepTicks(state), lanes: 0 }));
    const climb = (lanes: number) => edit((ids, state) => laneMove(state, ids, lanes));
    const transpose = (semitones: number) => edit((ids) => ({ kind: 'transpose', ids, semitones }));
    const eraseSelected = on(() => erase(store, selectSelected(store.getState()), 'What was chosen is'));
    return tinykeys(window, {
      '$mod+KeyA': on(() => selectAll(store)),
      '$mod+KeyC': on(() => void copy(store)),
      '$mod+KeyX': on(() => cut(store)),
      '$mod+KeyV': on(() => pasteAtCursor(store, instrument)),
      '$mod+KeyB': on(() => duplicate(store, instrument)),
      Delete: eraseSelected,
      Backspace: eraseSelected,
      'Shift+ArrowLeft': move(-1),
      'Shift+ArrowRight': move(1),
      'Shift+ArrowUp': climb(1),
      'Shift+ArrowDown': climb(-1),
      'Shift+Comma': move(-1 / 64),
      'Shift+Period': move(1 / 64),
      'Shift+PageUp': transpose(1),
      'Shift+PageDown': transpose(-1),
      // With a sheet open it closes that.
      Escape: () => {
        if (store.getState().session.sheet === null) store.dispatch(hitsSelected([]));
      },
    });
  }, [store, instrument, editPattern]);
}
