import { useState } from 'react';
import type { Controllers } from '@/instrument/controllers/controllers';
import { Bench } from '@/midi/bench/bench';
import { useControllers } from '../devices/ControllersContext';

let bench: Bench | null = null;

/** The stand-ins are made when the page is opened for the first time, and stay plugged in when it is left. */
function benchOf(controllers: Controllers): Bench {
  if (!bench) controllers.add((bench = new Bench()));
  return bench;
}

export function useBench(): Bench {
  const controllers = useControllers();
  const [made] = useState(() => benchOf(controllers));
  return made;
}
