import { lazyPlace } from '../shared/lazyPlace';

/** The place *Sets*: all sets of this device, their versions, and what comes from elsewhere. */
export const SetsScreen = lazyPlace(() => import('./SetsPlace'));
