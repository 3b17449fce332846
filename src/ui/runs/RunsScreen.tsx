import { lazyPlace } from '../shared/lazyPlace';

/** The place *Runs*: captured performances, looked at, heard again, put right and carried away. */
export const RunsScreen = lazyPlace(() => import('./RunsPlace'));
