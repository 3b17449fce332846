import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { tinykeys } from 'tinykeys';
import type { Target } from '@/core/midi/target';
import { targetOf } from '@/store/keyBindings';
import { selectSet } from '@/store/selectors';
import { sheetToggled } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { redone, undone } from '@/store/undoable';
import { useInstrument } from '../shared/InstrumentContext';
import { isInSheet, isOnControl, isTyping, watchPresses } from './focus';
import { tempoSet } from '@/store/timeSlice';

/** The keys that work everywhere, as the overlay of keys lists them. None is one by which a browser closes, reloads or navigates. */
export const FIXED_KEYS = [
  { keys: 'Space', does: 'Play, stop' },
  { keys: 'Enter', does: 'Record' },
  { keys: 'Home', does: 'Back to the top, when stopped' },
  { keys: '↑ ↓', does: 'Tempo up, down' },
  { keys: '?', does: 'These keys' },
  { keys: 'Ctrl Z', does: 'Undo' },
  { keys: 'Ctrl Shift Z', does: 'Redo' },
] as const;

export function useShortcuts(): void {
  const instrument = useInstrument();
  const store = useStore() as Store;
  useEffect(() => {
    const everywhere = (act: (event: KeyboardEvent) => void) => (event: KeyboardEvent) => {
      if (isTyping(event.target)) return;
      event.preventDefault();
      act(event);
    };
    /** Space and Enter press the control that has the focus; only with none are they the transport's. */
    const free = (act: () => void) => (event: KeyboardEvent) => {
      if (isOnControl(event.target) || event.repeat) return;
      everywhere(act)(event);
    };
    /** The simple view has few keys: a wrong one changes nothing. */
    const isSimple = () => store.getState().settings.simple.on;
    const changeTempo = (bpm: number) => (event: KeyboardEvent) => {
      // Within a sheet the arrows scroll.
      if (isOnControl(event.target) || isInSheet(event.target) || isSimple()) return;
      everywhere(() => store.dispatch(tempoSet(selectSet(store.getState()).tempo + bpm)))(event);
    };
    return tinykeys(window, {
      Space: free(() => instrument.playOrStop()),
      Enter: free(() => instrument.toggleRecord()),
      Home: (event) => {
        if (event.repeat || isSimple() || isInSheet(event.target) || instrument.performance.anchor.playing) return;
        everywhere(() => instrument.stop())(event);
      },
      ArrowUp: changeTempo(1),
      ArrowDown: changeTempo(-1),
      'Shift+?': (event) => {
        if (event.repeat || isSimple() || !store.getState().settings.keys.on) return;
        everywhere(() => store.dispatch(sheetToggled('keys')))(event);
      },
      '$mod+KeyZ': everywhere(() => store.dispatch(undone())),
      '$mod+Shift+KeyZ': everywhere(() => store.dispatch(redone())),
      '$mod+KeyY': everywhere(() => store.dispatch(redone())),
    });
  }, [instrument, store]);

  // Character keys, as the player has set them. Some hold for as long as they are down; a page that loses the keyboard lets go.
  useEffect(() => {
    const down = new Map<string, Target>();
    const letGo = (code: string, timeStamp = performance.now()) => {
      const target = down.get(code);
      down.delete(code);
      if (target) instrument.functions.press(target, false, timeStamp);
    };
    const press = (event: KeyboardEvent) => {
      const { keys, simple } = store.getState().settings;
      if (!keys.on || simple.on || event.repeat || isTyping(event.target)) return;
      if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey || event.defaultPrevented) return;
      const target = targetOf(keys, event.code);
      if (!target || target.do === 'pad') return; // pads have hands of their own (see `usePadKeys`)
      event.preventDefault();
      down.set(event.code, target);
      instrument.functions.press(target, true, event.timeStamp);
    };
    const release = (event: KeyboardEvent) => letGo(event.code, event.timeStamp);
    const away = () => [...down.keys()].forEach((code) => letGo(code));
    window.addEventListener('keydown', press);
    window.addEventListener('keyup', release);
    window.addEventListener('blur', away);
    return () => {
      away();
      window.removeEventListener('keydown', press);
      window.removeEventListener('keyup', release);
      window.removeEventListener('blur', away);
    };
  }, [instrument, store]);

  useEffect(watchPresses, []);

  // The browser gives sound to a page that was touched: any touch will do.
  useEffect(() => {
    const unlock = () => instrument.unlock();
    const gestures = ['pointerdown', 'pointerup', 'keydown'] as const;
    for (const gesture of gestures) window.addEventListener(gesture, unlock);
    return () => gestures.forEach((gesture) => window.removeEventListener(gesture, unlock));
  }, [instrument]);

  // A key that was pressed with the mouse or a finger gives the keyboard back, so that Space is play again.
  useEffect(() => {
    const giveBack = () => {
      const { activeElement } = document;
      if (activeElement instanceof HTMLElement && activeElement.matches('a, [role="button"]')) activeElement.blur();
    };
    window.addEventListener('pointerup', giveBack);
    return () => window.removeEventListener('pointerup', giveBack);
  }, []);
}
