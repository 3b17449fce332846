import { createContext, useContext } from 'react';

const PaneContext = createContext(false);
export const PaneProvider = PaneContext.Provider;

/** Whether the place has to share its room with another. */
export function useSharesRoom(): boolean {
  return useContext(PaneContext);
}
