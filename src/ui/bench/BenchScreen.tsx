import { lazyPlace } from '../shared/lazyPlace';

/** The page *Bench*: the simulated controllers that ship with the app. */
export const BenchScreen = lazyPlace(() => import('./BenchPage'));
