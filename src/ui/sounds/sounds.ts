/**
 * All of the place *Sounds* as one piece of code that is loaded late: in several, what they share (the sound engine's voices, for the
 * pictures of sounds) would be put into the first load.
 */
export { SoundsPlace } from './SoundsPlace';
export { ShelfSheet } from './ShelfSheet';
export { KitSheet } from './KitSheet';
export { CutsSheet } from './CutsSheet';
export { AlsoSheet } from './AlsoSheet';
export { LfoSheet } from './LfoSheet';
export { RecordSheet } from './RecordSheet';
export { MixSheet } from '../mix/MixSheet';
export { SliceSheet } from '../slice/SliceSheet';
export { loadSamples } from './sampleActs';
// Demos that play kits of the shelf.
export { lateTram } from '@/core/shelf/sets/lateTram';
export { oneAtATime } from '@/core/shelf/sets/oneAtATime';
