import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { tinykeys } from 'tinykeys';
import { lift, stopAll } from '@/instrument/launches';
import { selectPattern, selectSet, selectShown } from '@/store/selectors';
import { overrideSet, sheetToggled } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { redone, undone } from '@/store/undoable';
import { useInstrument } from '../shared/InstrumentContext';
import { useTapTempo } from '../transport/TempoControl';
import { isOnControl, isTyping } from './focus';
import { LOOP_BARS } from '@/core/document/limits';
import { loopBars } from '@/core/document/pattern';
import { inputQuantizeToggled, metronomeToggled, tempoSet } from '@/store/timeSlice';
import { loopBarsSet } from '@/store/patternsSlice';
import { trackShown } from '@/store/stageSlice';

/** The keys that work everywhere, as the overlay of keys lists them. None is one by which a browser closes, reloads or navigates. */
export const SHORTCUTS = [
  { keys: 'Space', does: 'Play, stop' },
  { keys: 'Enter', does: 'Record' },
  { keys: 'Home', does: 'Back to the top, when stopped' },
  { keys: 'T', does: 'Tap tempo' },
  { keys: '↑ ↓', does: 'Tempo up, down' },
  { keys: 'M', does: 'Metronome' },
  { keys: 'I', does: 'Input quantize' },
  { keys: '[ ]', does: 'Halve, double loop' },
  { keys: ', .', does: 'Track before, after' },
  { keys: 'L', does: 'Lift, while held' },
  { keys: 'O', does: 'Override of Drop on, while held' },
  { keys: '0', does: 'Stop all; again: at once' },
  { keys: '?', does: 'These keys' },
  { keys: 'Ctrl Z', does: 'Undo' },
  { keys: 'Ctrl Shift Z', does: 'Redo' },
] as const;

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
    const once = (act: (event: KeyboardEvent) => void) =>
      everywhere((event) => {
        if (!event.repeat) act(event);
      });
    const changeTempo = (bpm: number) =>
      everywhere((event) => {
        if (!isOnControl(event.target)) store.dispatch(tempoSet(selectSet(store.getState()).tempo + bpm));
      });
    const scaleLoop = (factor: number) => () => {
      const state = store.getState();
      const pattern = selectPattern(state);
      const bars = loopBars(pattern, selectSet(state).meter) * factor;
      if (bars >= LOOP_BARS[0] && bars <= LOOP_BARS[LOOP_BARS.length - 1]!) {
        store.dispatch(loopBarsSet({ place: instrument.placeOf(), bars }));
      }
    };
    const walk = (by: number) =>
      once(() => {
        const state = store.getState();
        const { order } = selectSet(state);
        const next = order[order.indexOf(selectShown(state)) + by];
        if (next !== undefined) store.dispatch(trackShown(next));
      });
    return tinykeys(window, {
      Space: free(() => instrument.playOrStop()),
      Enter: free(() => instrument.toggleRecord()),
      Home: once(() => {
        if (!instrument.performance.anchor.playing) instrument.stop();
      }),
      KeyT: once((event) => tap(event.timeStamp)),
      KeyM: once(() => store.dispatch(metronomeToggled())),
      KeyI: once(() => store.dispatch(inputQuantizeToggled())),
      ArrowUp: changeTempo(1),
      ArrowDown: changeTempo(-1),
      'Shift+?': once(() => store.dispatch(sheetToggled('keys'))),
      Comma: walk(-1),
      Period: walk(1),
      Digit0: once(() => stopAll(store, instrument)),
      BracketLeft: once(scaleLoop(0.5)),
      BracketRight: once(scaleLoop(2)),
      '$mod+KeyZ': everywhere(() => store.dispatch(undone())),
      '$mod+Shift+KeyZ': everywhere(() => store.dispatch(redone())),
      '$mod+KeyY': everywhere(() => store.dispatch(redone())),
    });
  }, [instrument, store, tap]);

  // Keys that hold for as long as they are down; a page that loses the keyboard lets go of them.
  useEffect(() => {
    const holds: Record<string, (held: boolean) => void> = {
      KeyL: (held) => lift(store, instrument, held),
      KeyO: (held) => store.dispatch(overrideSet(held)),
    };
    const down = new Set<string>();
    const letGo = (code: string) => void (down.delete(code) && holds[code]?.(false));
    const press = (event: KeyboardEvent) => {
      const bare = !event.ctrlKey && !event.metaKey && !event.altKey;
      if (!holds[event.code] || event.repeat || !bare || isTyping(event.target)) return;
      down.add(event.code);
      holds[event.code]!(true);
    };
    const release = (event: KeyboardEvent) => letGo(event.code);
    const away = () => [...down].forEach(letGo);
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
