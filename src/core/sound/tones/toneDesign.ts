import type { Layer } from '../recipe';
import type { Tone } from '../tone';

/** A preset of a voice that plays notes: its tone, and what is done with it. How loud it is lies in `TONE_LEVELS`. */
export interface ToneDesign {
  /** Share sent to the room, 0..1. */
  room: number;
  /** Saturation: 0 none. */
  drive: number;
  /** One note at a time. */
  isMono?: true;
  /** What is heard of the stroke itself: a key, a hammer, breath. */
  layers?: readonly Layer[];
  tone: Omit<Tone, 'even'>;
}
