import type { InputDevice } from '@/store/settingsSlice';

/** A finger, pen or mouse button on a pad. */
export interface PadTouch {
  pad: number;
  device: InputDevice;
  /** With which it struck, 0..1. */
  velocity: number;
  /** `PointerEvent.pressure` of the strike. */
  pressure: number;
  /** Where it came down in the page, px, and the height of its pad. */
  x: number;
  y: number;
  height: number;
}

/** What lies on the pads, by pointer. A pad is let go when the last finger leaves it. */
export class PadTouches {
  private readonly touches = new Map<number, PadTouch>();

  down(pointer: number, touch: PadTouch): void {
    this.touches.set(pointer, touch);
  }

  at(pointer: number): PadTouch | undefined {
    return this.touches.get(pointer);
  }

  /** A pointer leaves. Returns its touch if that lets its pad go. */
  up(pointer: number): PadTouch | null {
    const touch = this.touches.get(pointer);
    this.touches.delete(pointer);
    if (!touch) return null;
    const isHeldStill = [...this.touches.values()].some(({ pad }) => pad === touch.pad);
    return isHeldStill ? null : touch;
  }

  /** All pointers leave. Returns a touch of each pad that was held. */
  upAll(): PadTouch[] {
    return [...this.touches.keys()].flatMap((pointer) => this.up(pointer) ?? []);
  }
}
