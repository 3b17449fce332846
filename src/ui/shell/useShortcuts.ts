import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { tinykeys } from 'tinykeys';
import type { Instrument } from '@/instrument/instrument';
import { lift, stopAll } from '@/instrument/launches';
import { targetOf, type ShortcutName } from '@/store/keyBindings';
import { selectPattern, selectSet, selectShown } from '@/store/selectors';
import { overrideSet, sheetToggled } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { redone, undone } from '@/store/undoable';
import { useInstrument } from '../shared/InstrumentContext';
import { useTapTempo } from '../transport/TempoControl';
import { isInSheet, isOnControl, isTyping, watchPresses } from './focus';
import { LOOP_BARS } from '@/core/document/limits';
import { loopBars } from '@/core/document/pattern';
import { inputQuantizeToggled, metronomeToggled, tempoSet } from '@/store/timeSlice';
import { loopBarsSet } from '@/store/patternsSlice';
import { trackShown } from '@/store/stageSlice';

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

/** And what the character keys do that the player can change. */
export const SHORTCUT_WORDS: Record<ShortcutName, string> = {
  tap: 'Tap tempo',
  metronome: 'Metronome',
  quantize: 'Input quantize',
  halveLoop: 'Halve loop',
  doubleLoop: 'Double loop',
  trackBefore: 'Track before',
  trackAfter: 'Track after',
  lift: 'Lift, while held',
  override: 'Override of Drop on, while held',
  stopAll: 'Stop all; again: at once',
};

export function useShortcuts(): void {
  const instrument = useInstrument();
  const store = useStore() as Store;
  const tap = useTapTempo();
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
    const shortcuts = shortcutsOf(store, instrument, tap);
    const down = new Map<string, (() => void) | void>();
    const letGo = (code: string) => {
      down.get(code)?.();
      down.delete(code);
    };
    const press = (event: KeyboardEvent) => {
      const { keys, simple } = store.getState().settings;
      if (!keys.on || simple.on || event.repeat || isTyping(event.target)) return;
      if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey || event.defaultPrevented) return;
      const target = targetOf(keys, event.code);
      if (!target || !('shortcut' in target)) return;
      event.preventDefault();
      down.set(event.code, shortcuts[target.shortcut](event));
    };
    const release = (event: KeyboardEvent) => letGo(event.code);
    const away = () => [...down.keys()].forEach(letGo);
    window.addEventListener('keydown', press);
    window.addEventListener('keyup', release);
    window.addEventListener('blur', away);
    return () => {
      away();
      window.removeEventListener('keydown', press);
      window.removeEventListener('keyup', release);
      window.removeEventListener('blur', away);
    };
  }, [instrument, store, tap]);

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

/** What each shortcut does, and what it does when its key is let go. */
function shortcutsOf(
  store: Store,
  instrument: Instrument,
  tap: (timeStamp: number) => void,
): Record<ShortcutName, (event: KeyboardEvent) => (() => void) | void> {
  const scaleLoop = (factor: number) => () => {
    const state = store.getState();
    const bars = loopBars(selectPattern(state), selectSet(state).meter) * factor;
    if (bars >= LOOP_BARS[0] && bars <= LOOP_BARS[LOOP_BARS.length - 1]!) {
      store.dispatch(loopBarsSet({ place: instrument.placeOf(), bars }));
    }
  };
  const walk = (by: number) => () => {
    const state = store.getState();
    const { order } = selectSet(state);
    const next = order[order.indexOf(selectShown(state)) + by];
    if (next !== undefined) store.dispatch(trackShown(next));
  };
  return {
    tap: (event) => tap(event.timeStamp),
    metronome: () => void store.dispatch(metronomeToggled()),
    quantize: () => void store.dispatch(inputQuantizeToggled()),
    halveLoop: scaleLoop(0.5),
    doubleLoop: scaleLoop(2),
    trackBefore: walk(-1),
    trackAfter: walk(1),
    stopAll: () => stopAll(store, instrument),
    lift: () => {
      lift(store, instrument, true);
      return () => lift(store, instrument, false);
    },
    override: () => {
      store.dispatch(overrideSet(true));
      return () => void store.dispatch(overrideSet(false));
    },
  };
}
