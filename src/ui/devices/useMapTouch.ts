import { useEffect } from 'react';
import { targetOfKey, type Target } from '@/core/midi/target';

/** While a control is being mapped, what can be worked by one is marked. */
const STYLE = '[data-map] { outline: 2px dashed var(--map-colour) !important; outline-offset: -3px; }';
const STOPPED = ['pointerdown', 'pointerup', 'click', 'touchstart', 'touchend', 'mousedown', 'mouseup'] as const;

/**
 * While a control is being mapped, whatever is touched that a control can work is chosen and does nothing. Everything else works as
 * always, so that one can go to another place and open sheets.
 */
export function useMapTouch(isOn: boolean, colour: string, onChoose: (target: Target) => void): void {
  useEffect(() => {
    if (!isOn) return undefined;
    const style = document.createElement('style');
    style.textContent = STYLE;
    document.head.append(style);
    document.documentElement.style.setProperty('--map-colour', colour);
    const targetAt = (event: Event) => {
      const marked = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-map]') : null;
      return marked && targetOfKey(marked.dataset.map!);
    };
    const stop = (event: Event) => {
      const target = targetAt(event);
      if (!target) return;
      event.preventDefault();
      event.stopPropagation();
      // Assistive technology clicks without a pointer.
      const isClickAlone = event.type === 'click' && (event as MouseEvent).detail === 0;
      if (event.type === 'pointerdown' || isClickAlone) onChoose(target);
    };
    const key = (event: KeyboardEvent) => {
      if (event.key !== 'Enter' && event.key !== ' ') return;
      const target = targetAt(event);
      if (!target) return;
      event.preventDefault();
      event.stopPropagation();
      if (!event.repeat) onChoose(target);
    };
    for (const type of STOPPED) window.addEventListener(type, stop, { capture: true });
    window.addEventListener('keydown', key, { capture: true });
    return () => {
      style.remove();
      for (const type of STOPPED) window.removeEventListener(type, stop, { capture: true });
      window.removeEventListener('keydown', key, { capture: true });
    };
  }, [isOn, colour, onChoose]);
}
