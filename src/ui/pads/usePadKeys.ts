import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { pressLaunchPad } from '@/instrument/launches';
import { pressPadStep } from '@/instrument/padSteps';
import { padOfCode } from '@/store/keyBindings';
import type { Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { isTyping } from '../shell/focus';
import { KEY_VELOCITY } from './PadGrid';

/** Whether the pads that are steps are on the screen: elsewhere the keys play. */
const seesStepPads = () => document.querySelector('[aria-label="Step pads"]') !== null;

/** Sixteen computer keys play the pads, by their place on the keyboard. Shift strikes hard. */
export function usePadKeys(): void {
  const instrument = useInstrument();
  const store = useStore() as Store;
  useEffect(() => {
    /** Pads by the keys that hold them. */
    const held = new Map<string, number>();
    const padOf = (event: KeyboardEvent) => {
      const { keys } = store.getState().settings;
      return keys.on ? padOfCode(keys, event.code) : -1;
    };
    const down = (event: KeyboardEvent) => {
      const pad = padOf(event);
      if (pad < 0 || event.repeat || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const { on, value } = store.getState().settings.fixedVelocity;
      const velocity = on ? value : event.shiftKey ? 1 : KEY_VELOCITY;
      const { padsLaunch } = store.getState().session;
      if (padsLaunch) pressLaunchPad(store, instrument, padsLaunch, pad);
      else if (store.getState().steps.padSteps && seesStepPads()) pressPadStep(store, instrument, pad, velocity);
      else {
        held.set(event.code, pad);
        instrument.padDown(pad, velocity, event.timeStamp, 'keys');
      }
    };
    const up = ({ code, timeStamp }: { code: string; timeStamp: number }) => {
      const pad = held.get(code);
      held.delete(code);
      if (pad !== undefined) instrument.padUp(pad, timeStamp, 'keys');
    };
    // A page that loses the keyboard never hears the release. Fingers stay where they are, and what is latched goes on.
    const away = () => {
      for (const code of [...held.keys()]) up({ code, timeStamp: window.performance.now() });
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', away);
    return () => {
      away();
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', away);
    };
  }, [instrument, store]);
}
