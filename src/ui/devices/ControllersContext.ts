import { createContext, useContext } from 'react';
import type { Controllers } from '@/instrument/controllers/controllers';
import type { Bench } from '@/midi/bench/bench';

/** The controllers that are plugged in, and the stand-ins that ship with the app. */
interface Plugs {
  controllers: Controllers;
  bench: Bench;
}

const ControllersContext = createContext<Plugs | null>(null);
export const ControllersProvider = ControllersContext.Provider;

export function useControllers(): Controllers {
  return useContext(ControllersContext)!.controllers;
}

export function useBench(): Bench {
  return useContext(ControllersContext)!.bench;
}
