import { bindingKey, placeOf, type Binding } from '@/core/midi/binding';
import { encoderSteps, FinePair, finePartner, isRelative } from '@/core/midi/encodings';
import { KnobTakeover } from '@/core/midi/takeover';
import { FUNCTIONS } from '@/core/midi/target';
import type { Functions } from '../functions/functions';

/** Held so long, a button does its second function, ms. */
const LONG_MS = 500;
/** A value is put no oftener than this, ms: more cannot be heard apart, and a flood would starve the page. */
const PUT_EVERY_MS = 8;
/** A control that is no button is down above the middle. */
export const DOWN = 0.5;

/** How a control was moved. */
export interface Movement {
  /** 0..1 */
  value: number;
  /** As it was sent, 0..127, for encoders and pairs; -1 where there are none. */
  raw: number;
  /** A note that was struck (0 when it is let go), so that every one counts. */
  isNote: boolean;
  /** ms */
  at: number;
}

/** One binding at work: what it must remember between movements. */
class Working {
  isDown = false;
  /** Of a toggle. */
  isOn = false;
  readonly knob = new KnobTakeover();
  readonly pair = new FinePair();
  /** Where the function is put when its time has come. */
  private waiting: number | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private putAt = -Infinity;

  constructor(
    readonly binding: Binding,
    private readonly functions: Functions,
  ) {}

  /** Where the function stands, or is about to. */
  get now(): number {
    return this.waiting ?? this.functions.placeOf(this.binding.target);
  }

  put(place: number | null, at: number): void {
    if (place === null) return;
    this.waiting = place;
    if (this.timer !== null) return;
    const wait = this.putAt + PUT_EVERY_MS - at;
    if (wait <= 0) this.putNow(at);
    else this.timer = setTimeout(() => this.putNow(at + wait), wait);
  }

  private putNow(at: number): void {
    this.timer = null;
    this.putAt = at;
    const { waiting } = this;
    this.waiting = null;
    if (waiting !== null) this.functions.put(this.binding.target, waiting, at);
  }
}

/** What the mapped controls of one device work, but for pads, which are struck. */
export class Workings {
  private readonly working = new Map<string, Working>();
  /** Buttons that are down and have a second function: what each does, short and long. */
  private readonly presses = new Map<string, { timer: ReturnType<typeof setTimeout>; short: Binding[] }>();

  constructor(
    private readonly functions: Functions,
    private readonly onLayer: (layer: number, down: boolean) => void,
  ) {}

  /**
   * A control was moved.
   * @param key names the control
   * @param bindings all that it works now
   */
  move(key: string, bindings: readonly Binding[], movement: Movement): void {
    const long = bindings.filter((binding) => binding.long);
    const short = bindings.filter((binding) => !binding.long);
    if (long.length === 0) return short.forEach((binding) => this.work(binding, movement));
    this.moveLong(key, short, long, movement);
  }

  /** The fine half of a pair was moved: of a control that counts in 14 bits. */
  moveFine(bindings: readonly Binding[], raw: number, at: number): void {
    for (const binding of bindings) {
      if (binding.encoding !== 'fine') continue;
      const working = this.of(binding);
      working.put(working.knob.move(binding, working.pair.takeFine(raw), working.now), at);
    }
  }

  /** What is held is let go. */
  letGoOfAll(at: number): void {
    for (const { timer } of this.presses.values()) clearTimeout(timer);
    this.presses.clear();
    for (const working of this.working.values()) {
      if (working.isDown || working.isOn) this.letGo(working, at);
    }
    this.working.clear();
  }

  /** A button with two functions: the short one when it is let go soon, the other when it is held. */
  private moveLong(key: string, short: Binding[], long: readonly Binding[], movement: Movement): void {
    const down = movement.value >= (movement.isNote ? 1e-9 : DOWN);
    const pressed = this.presses.get(key);
    const up = { ...movement, value: 0 };
    if (down && !pressed) {
      const timer = setTimeout(() => {
        this.presses.delete(key);
        for (const binding of long) this.work(binding, { ...movement, at: movement.at + LONG_MS });
      }, LONG_MS);
      this.presses.set(key, { timer, short });
    } else if (!down && pressed) {
      clearTimeout(pressed.timer);
      this.presses.delete(key);
      for (const binding of pressed.short) {
        this.work(binding, { ...movement, value: 1 });
        this.work(binding, up);
      }
    } else if (!down) for (const binding of long) this.work(binding, up);
  }

  private work(binding: Binding, movement: Movement): void {
    const working = this.of(binding);
    const { kind } = FUNCTIONS[binding.target.do];
    if (kind === 'value') this.workValue(working, movement);
    else this.workButton(working, movement);
  }

  private workValue(working: Working, { value, raw, isNote, at }: Movement): void {
    const { binding } = working;
    if (isNote) return this.workEnds(working, value > 0, at);
    if (raw >= 0 && isRelative(binding.encoding)) {
      return working.put(working.knob.turn(binding, encoderSteps(raw, binding.encoding), working.now), at);
    }
    if (raw >= 0 && binding.encoding === 'fine' && finePartner(binding.source.number) !== null) {
      return working.pair.takeCoarse(raw);
    }
    working.put(working.knob.move(binding, value, working.now), at);
  }

  /** A button on a range goes to its one end and its other. */
  private workEnds(working: Working, down: boolean, at: number): void {
    const { binding } = working;
    if (binding.press === 'toggle') {
      if (!down) return;
      working.isOn = !working.isOn;
    } else working.isOn = down;
    working.put(placeOf(binding, working.isOn ? 1 : 0), at);
  }

  private workButton(working: Working, { value, isNote, at }: Movement): void {
    const { binding } = working;
    const down = isNote ? value > 0 : value >= DOWN;
    // A note that is struck twice was let go between, even if nobody said so.
    if (down === working.isDown && !(isNote && down)) return;
    working.isDown = down;
    const { kind } = FUNCTIONS[binding.target.do];
    const isToggle = binding.press === 'toggle';
    if (binding.target.do === 'layer' || kind === 'hold') {
      if (isToggle && !down) return;
      working.isOn = isToggle ? !working.isOn : down;
      return this.hold(binding, working.isOn, at);
    }
    if (kind === 'switch' && !isToggle) return this.functions.switchTo(binding.target, down, at);
    if (down) this.functions.press(binding.target, true, at);
  }

  private letGo({ binding, isDown }: Working, at: number): void {
    const { kind } = FUNCTIONS[binding.target.do];
    if (kind === 'hold') this.hold(binding, false, at);
    else if (kind === 'switch' && binding.press === 'momentary' && isDown) {
      this.functions.switchTo(binding.target, false, at);
    }
  }

  private hold(binding: Binding, on: boolean, at: number): void {
    if (binding.target.do === 'layer') this.onLayer(binding.target.layer!, on);
    else this.functions.press(binding.target, on, at);
  }

  private of(binding: Binding): Working {
    const key = bindingKey(binding);
    let working = this.working.get(key);
    if (!working || working.binding !== binding) {
      const before = working;
      working = new Working(binding, this.functions);
      if (before) Object.assign(working, { isDown: before.isDown, isOn: before.isOn });
      this.working.set(key, working);
    }
    return working;
  }
}
