import { bent } from './curve';
import { ENCODINGS, type Encoding } from './encodings';
import { sourceKey, type Source } from './source';
import { FUNCTIONS, readTarget, targetKey, UPPER_LAYERS, type Target } from './target';

/** What a knob does that stands elsewhere than what it works: waits until it passes there, goes there at once, or moves it by as much as it is moved. */
export const TAKEOVERS = ['pickUp', 'jump', 'relative'] as const;
export type Takeover = (typeof TAKEOVERS)[number];

/** A button is on while it is held, or from one press to the next. */
export const PRESSES = ['momentary', 'toggle'] as const;
export type Press = (typeof PRESSES)[number];

/** One control of a device works one function. A control may have several, and a function several controls. */
export interface Binding {
  source: Source;
  target: Target;
  /** 0, or an upper layer that holds while its own control is held. */
  layer: number;
  /** Only once it was held for half a second: a second function of the same button. */
  long?: boolean;
  press: Press;
  encoding: Encoding;
  takeover: Takeover;
  /** The stretch of the function's range that the control goes through, 0..1; turned round, it is inverted. */
  from: number;
  to: number;
  /** How the way is bent, -1..1 (see `bent`). */
  bend: number;
}

/** A binding as it is to begin with: a knob picks up, a button is momentary unless it switches. */
export function newBinding(source: Source, target: Target, layer = 0): Binding {
  const press = FUNCTIONS[target.do].kind === 'switch' ? 'toggle' : 'momentary';
  return { source, target, layer, press, encoding: 'absolute', takeover: 'pickUp', from: 0, to: 1, bend: 0 };
}

/** Names a binding within a map: the same source and target on the same layer are the same binding. */
export function bindingKey({ source, target, layer, long }: Binding): string {
  return [sourceKey(source), targetKey(target), layer, long ? 'long' : ''].join('; ');
}

/** Where a control that stands at `x` (0..1) puts its function, 0..1. */
export function placeOf({ from, to, bend }: Pick<Binding, 'from' | 'to' | 'bend'>, x: number): number {
  return from + (to - from) * bent(x, bend);
}

/** A map with a binding added, or in the place of the same one. */
export function withBinding(bindings: readonly Binding[], binding: Binding): Binding[] {
  const key = bindingKey(binding);
  return [...bindings.filter((other) => bindingKey(other) !== key), binding];
}

/** What else a control does on the same layer: shown whenever another function is given to it. */
export function alsoWorks(bindings: readonly Binding[], binding: Binding): Binding[] {
  const [key, source] = [bindingKey(binding), sourceKey(binding.source)];
  return bindings.filter(
    (other) =>
      bindingKey(other) !== key &&
      sourceKey(other.source) === source &&
      other.layer === binding.layer &&
      (other.long === true) === (binding.long === true),
  );
}

const SOURCE_KINDS: readonly unknown[] = ['note', 'control', 'bend', 'pressure', 'program'];
const isWhole = (value: unknown, least: number, most: number) =>
  Number.isInteger(value) && (value as number) >= least && (value as number) <= most;
const isShare = (value: unknown, least = 0) => typeof value === 'number' && value >= least && value <= 1;

/** Reads a source, or null. */
export function readSource(plain: unknown): Source | null {
  const { kind, channel, number } = (plain ?? {}) as Source;
  if (!SOURCE_KINDS.includes(kind) || !isWhole(channel, 1, 16) || !isWhole(number, 0, 127)) return null;
  return { kind, channel, number };
}

/**
 * Reads a binding out of a file or a record. What is left out is as it is to begin with.
 * @returns the binding, or what is wrong with it in words
 */
export function readBinding(plain: unknown): Binding | { problem: string } {
  const read = (plain ?? {}) as Partial<Binding>;
  const source = readSource(read.source);
  if (!source) return { problem: 'source: no control of a device' };
  const target = readTarget(read.target);
  if (!target) return { problem: 'target: no function of Chaffinch' };
  const binding = { ...newBinding(source, target) };
  const { layer, press, encoding, takeover, from, to, bend } = { ...binding, ...read };
  if (!isWhole(layer, 0, UPPER_LAYERS)) return { problem: `layer: must be 0 to ${UPPER_LAYERS}` };
  if (!PRESSES.includes(press)) return { problem: `press: must be one of ${PRESSES.join(', ')}` };
  if (!ENCODINGS.includes(encoding)) return { problem: `encoding: must be one of ${ENCODINGS.join(', ')}` };
  if (!TAKEOVERS.includes(takeover)) return { problem: `takeover: must be one of ${TAKEOVERS.join(', ')}` };
  if (!isShare(from) || !isShare(to)) return { problem: 'from, to: must be 0 to 1' };
  if (!isShare(bend, -1)) return { problem: 'bend: must be -1 to 1' };
  return { ...binding, layer, press, encoding, takeover, from, to, bend, ...(read.long === true && { long: true }) };
}
