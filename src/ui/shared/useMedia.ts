import { useCallback, useSyncExternalStore } from 'react';

/** Whether a media query holds, now and whenever that changes. @example useMedia('(prefers-reduced-motion: reduce)') */
export function useMedia(query: string): boolean {
  const subscribe = useCallback(
    (tell: () => void) => {
      const list = window.matchMedia(query);
      list.addEventListener('change', tell);
      return () => list.removeEventListener('change', tell);
    },
    [query],
  );
  return useSyncExternalStore(subscribe, () => matches(query));
}

/** Whether a media query holds now. */
export function matches(query: string): boolean {
  return window.matchMedia(query).matches;
}

/** The player's wish for less motion (WCAG 2.2, 2.3.3). */
export const LESS_MOTION = '(prefers-reduced-motion: reduce)';
