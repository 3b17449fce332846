import { createContext, useContext } from 'react';
import type { Instrument } from '@/instrument/instrument';

const InstrumentContext = createContext<Instrument | null>(null);
export const InstrumentProvider = InstrumentContext.Provider;

/** The player's hands on the engine. */
export function useInstrument(): Instrument {
  const instrument = useContext(InstrumentContext);
  if (!instrument) throw new Error('useInstrument needs an InstrumentProvider above it');
  return instrument;
}
