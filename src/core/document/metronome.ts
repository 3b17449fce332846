import type { GridName } from '../quantize/grid';

export const CLICK_SOUNDS = ['wood', 'bell', 'tick'] as const;
export type ClickSound = (typeof CLICK_SOUNDS)[number];
/** When the metronome that is on clicks. A count-in always clicks. */
export const CLICK_TIMES = ['always', 'recording', 'countIn'] as const;
export type ClickTime = (typeof CLICK_TIMES)[number];

export interface Metronome {
  on: boolean;
  /** 0..1 */
  level: number;
  sound: ClickSound;
  when: ClickTime;
  /** Softer clicks between the beats, or null. */
  between: GridName | null;
}
