import type { Target } from '@/core/midi/target';
import type { Desk } from './desk';
import {
  HOLD_FUNCTIONS,
  PRESS_FUNCTIONS,
  SWITCH_FUNCTIONS,
  type HoldFunction,
  type PressFunction,
  type SwitchFunction,
} from './presses';
import { VALUE_FUNCTIONS, type ValueFunction } from './values';

const PRESSED = PRESS_FUNCTIONS as Partial<Record<string, PressFunction>>;
const SWITCHED = SWITCH_FUNCTIONS as Partial<Record<string, SwitchFunction>>;
const HELD = HOLD_FUNCTIONS as Partial<Record<string, HoldFunction>>;
const VALUES = VALUE_FUNCTIONS as Partial<Record<string, ValueFunction>>;

/**
 * All that can be worked by a control that is not on the screen: keys of a computer keyboard, pads, knobs and faders of controllers.
 * Pads are struck by who knows how hard and when (see `Controllers`); all else is done here.
 */
export class Functions {
  constructor(private readonly desk: Desk) {}

  /** A control goes down, or is let go: a press acts when it goes down, a switch turns over, a hold holds until it is let go. */
  press(target: Target, down: boolean, timeStamp: number): void {
    HELD[target.do]?.(down, target, this.desk);
    if (!down) return;
    PRESSED[target.do]?.(target, this.desk, timeStamp);
    SWITCHED[target.do]?.toggle(target, this.desk, timeStamp);
  }

  /** Turns a switch on or off, whatever it is. */
  switchTo(target: Target, on: boolean, timeStamp: number): void {
    if (this.isOn(target) !== on) this.press(target, true, timeStamp);
  }

  /** Whether a switch is on. */
  isOn(target: Target): boolean {
    return SWITCHED[target.do]?.isOn(this.desk.store.getState(), target, this.desk) ?? false;
  }

  /** Where a function with a range stands, 0..1; NaN for one without. */
  placeOf(target: Target): number {
    return VALUES[target.do]?.read(this.desk.store.getState(), target, this.desk) ?? NaN;
  }

  /** Puts a function with a range to a place, 0..1. */
  put(target: Target, place: number, timeStamp: number): void {
    VALUES[target.do]?.write(place, target, this.desk, timeStamp);
  }

  /** What a place of a function is, in words. */
  words(target: Target, place: number): string {
    return VALUES[target.do]?.words(place, target, this.desk.store.getState()) ?? '';
  }
}
