import { useDeferredValue, type ReactNode } from 'react';

/**
 * What lies below the part of a sheet that is in sight when it opens: it comes right after that is drawn, and gives way to touches,
 * so that on a slow phone a long sheet opens as fast as a short one.
 */
export function Below({ children }: { children: ReactNode }) {
  return useDeferredValue(true, false) ? children : null;
}
