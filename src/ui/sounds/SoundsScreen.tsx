import { lazyPlace } from '../shared/lazyPlace';

/** The place *Sounds*: kits and the sounds of pads, found, tried and shaped in the running beat. */
export const SoundsScreen = lazyPlace(() => import('./SoundsPlace'));
