import { createContext, useContext } from 'react';
import type { Controllers } from '@/instrument/controllers/controllers';

const ControllersContext = createContext<Controllers | null>(null);
export const ControllersProvider = ControllersContext.Provider;

/** The controllers that are plugged in. */
export function useControllers(): Controllers {
  return useContext(ControllersContext)!;
}
