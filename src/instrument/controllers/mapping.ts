import { newBinding, type Binding } from '@/core/midi/binding';
import { finePartner, guessedEncoding } from '@/core/midi/encodings';
import type { MidiMessage } from '@/core/midi/message';
import { sourceKey, type Source } from '@/core/midi/source';
import type { Target } from '@/core/midi/target';
import { bound } from '@/store/devicesSlice';
import type { Store } from '@/store/store';

/** A control that was moved while something is mapped. */
export interface Learnt {
  device: string;
  source: Source;
  message: MidiMessage;
}

/** What was made of a control and a function. */
export interface Made {
  device: string;
  binding: Binding;
}

/** How far it has come: a function was chosen, a control was moved, or both have found each other. */
export interface MappingState {
  target: Target | null;
  learnt: Learnt | null;
  made: Made | null;
}

const NOTHING: MappingState = { target: null, learnt: null, made: null };

/**
 * Gives a control to a function: touch something and move a control, or the other way round. A control that goes on being moved tells
 * more of how it counts, and the binding follows.
 */
export class Mapping {
  state = NOTHING;
  isOn = false;
  private counts: ControlCounts | null = null;
  private readonly listeners = new Set<() => void>();

  /** @param layer the layer that is held */
  constructor(
    private readonly store: Store,
    private readonly layer: () => number,
  ) {}

  /** From now on controls are learnt, and work nothing. @returns ends it */
  begin(): () => void {
    this.isOn = true;
    this.change(NOTHING);
    return () => {
      this.isOn = false;
      this.counts = null;
    };
  }

  /** A function was touched. A control that waits for one is given to it. */
  choose(target: Target): void {
    const { learnt, made } = this.state;
    if (learnt && !made) return this.pair(learnt, target);
    // The control that was mapped last can be given to another function, too.
    this.counts = null;
    this.change({ target, learnt: null, made: null });
  }

  /** A control was moved. */
  learn(learnt: Learnt): void {
    const { target, made } = this.state;
    if (this.counts?.take(learnt)) {
      if (made) this.pair(this.counts.first, made.binding.target);
      return;
    }
    this.counts = new ControlCounts(learnt);
    if (target) this.pair(learnt, target);
    else this.change({ target: null, learnt, made: null });
  }

  /** What was made last is of no more concern. */
  forget(): void {
    this.counts = null;
    this.change(NOTHING);
  }

  /** Calls back with every change. @returns ends it */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  private pair(learnt: Learnt, target: Target): void {
    const binding = this.counts!.to(target, this.layer());
    this.store.dispatch(bound({ name: learnt.device, binding }));
    this.change({ target: null, learnt, made: { device: learnt.device, binding } });
  }

  private change(state: MappingState): void {
    this.state = state;
    for (const listener of [...this.listeners]) listener();
  }
}

/** How a control counts, from what it has sent so far. */
class ControlCounts {
  private readonly values: number[] = [];
  private isFine = false;

  constructor(readonly first: Learnt) {
    this.take(first);
  }

  /** Another message. Returns whether it is of the same control: of its coarse half, or its fine one. */
  take({ device, source, message }: Learnt): boolean {
    const { first } = this;
    if (device !== first.device) return false;
    if (sourceKey(source) !== sourceKey(first.source)) {
      const isPartner = source.kind === 'control' && first.source.kind === 'control' && source.channel === first.source.channel && source.number === finePartner(first.source.number); // prettier-ignore
      if (isPartner) this.isFine = true;
      return isPartner;
    }
    if (message.type === 'control') this.values.push(message.value);
    return true;
  }

  to(target: Target, layer: number): Binding {
    const encoding = this.isFine ? 'fine' : (guessedEncoding(this.values) ?? 'absolute');
    return { ...newBinding(this.first.source, target, layer), encoding };
  }
}
