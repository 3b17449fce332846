import { lazyPlace } from '../shared/lazyPlace';

/** The place *Steps*, which comes when it is opened: the first visit begins on the pads. */
export const StepsScreen = lazyPlace(() => import('./StepsPlace'));
