import { PADS } from '@/core/document/limits';
import { FUNCTIONS, readTarget, targetKey, targetOfKey, type FunctionName, type Target } from '@/core/midi/target';

/** Four rows of four keys that lie as the pads do. */
const PAD_KEYS = [
  ...['KeyZ', 'KeyX', 'KeyC', 'KeyV'],
  ...['KeyA', 'KeyS', 'KeyD', 'KeyF'],
  ...['KeyQ', 'KeyW', 'KeyE', 'KeyR'],
  ...['Digit1', 'Digit2', 'Digit3', 'Digit4'],
];

/** What character keys do besides striking pads, to begin with. */
const SHORTCUT_KEYS = {
  tap: 'KeyT',
  metronome: 'KeyM',
  quantize: 'KeyI',
  halveLoop: 'BracketLeft',
  doubleLoop: 'BracketRight',
  trackBefore: 'Comma',
  trackAfter: 'Period',
  sustain: 'KeyH',
  lift: 'KeyL',
  override: 'KeyO',
  stopAll: 'Digit0',
} as const;

/**
 * What the character keys do, each by its `KeyboardEvent.code` (W3C UI Events): its place on the keyboard, whatever is printed on
 * it. They can be switched off and changed, as WCAG 2.2 asks in 2.1.4: who speaks to the device types by accident.
 */
export interface KeyBindings {
  on: boolean;
  /** The code of each function's key, by the key of its target (see `targetKey`). */
  codes: Record<string, string>;
}

export const padTarget = (pad: number): Target => ({ do: 'pad', pad });

export const DEFAULT_KEYS: KeyBindings = {
  on: true,
  codes: { ...Object.fromEntries(PAD_KEYS.map((code, pad) => [targetKey(padTarget(pad)), code])), ...SHORTCUT_KEYS },
};

/** Whether a key prints a character: the others belong to the browser, the focus and the transport. */
export function isCharacterKey(code: string): boolean {
  return /^(Key[A-Z]|Digit\d|Numpad\d|Bracket\w+|Comma|Period|Semicolon|Quote|Backquote|Minus|Equal|Backslash|Slash|Intl\w+)$/.test(code); // prettier-ignore
}

/** Why a key cannot be chosen, in words; null for one that can. */
export function whyNotKey(code: string): string | null {
  if (isCharacterKey(code)) return null;
  if (/^F(5|1[12])$/.test(code) || /^Browser/.test(code))
    return 'the browser loads the page anew, or changes it, with it';
  if (['Space', 'Enter', 'Home', 'ArrowUp', 'ArrowDown'].includes(code)) return 'it belongs to the transport';
  return 'it belongs to the browser, or to moving from control to control';
}

/** Whether a function can have a key: it has no range, and layers are those of controllers. */
export function canHaveKey(name: FunctionName): boolean {
  return FUNCTIONS[name].kind !== 'value' && name !== 'layer';
}

/** What a key does, or null. */
export function targetOf({ codes }: KeyBindings, code: string): Target | null {
  const key = Object.keys(codes).find((one) => codes[one] === code);
  return key === undefined ? null : targetOfKey(key);
}

/** The key of a function, or undefined. */
export function codeOf({ codes }: KeyBindings, target: Target): string | undefined {
  return codes[targetKey(target)];
}

/** The pad that a key strikes, 0..15, or -1. */
export function padOfCode(keys: KeyBindings, code: string): number {
  const target = targetOf(keys, code);
  return target?.do === 'pad' ? target.pad! : -1;
}

/** Gives a key to a function. What had the key gets the function's old one; if it had none, it is left without. */
export function bind({ on, codes }: KeyBindings, target: Target, code: string): KeyBindings {
  const key = targetKey(target);
  const before = codes[key];
  const other = Object.keys(codes).find((one) => codes[one] === code && one !== key);
  const next = { ...codes, [key]: code };
  if (other !== undefined) {
    if (before === undefined) delete next[other];
    else next[other] = before;
  }
  return { on, codes: next };
}

/** A function has no key any more. */
export function unbind({ on, codes }: KeyBindings, target: Target): KeyBindings {
  const { [targetKey(target)]: _, ...rest } = codes;
  return { on, codes: rest };
}

/** As keys were stored before every function could have one. */
interface OldKeys {
  pads?: unknown;
  shortcuts?: Record<string, unknown>;
}

/** Reads stored keys; if one is none, has no function or works two, all are as to begin with. */
export function readKeys(stored: (Partial<KeyBindings> & OldKeys) | null | undefined): KeyBindings {
  const on = stored?.on !== false;
  const codes = stored?.codes ?? oldCodes(stored ?? {});
  if (typeof codes !== 'object' || codes === null) return { ...DEFAULT_KEYS, on };
  const given = Object.values(codes);
  const right =
    given.every((code) => typeof code === 'string' && isCharacterKey(code)) &&
    new Set(given).size === given.length &&
    Object.keys(codes).every((key) => {
      const target = targetOfKey(key);
      return target !== null && targetKey(target) === key && readTarget(target) !== null;
    });
  return right ? { on, codes: codes as Record<string, string> } : { ...DEFAULT_KEYS, on };
}

function oldCodes({ pads, shortcuts }: OldKeys): Record<string, unknown> | null {
  if (!Array.isArray(pads) || pads.length !== PADS || !shortcuts) return null;
  return { ...Object.fromEntries(pads.map((code, pad) => [targetKey(padTarget(pad)), code as unknown])), ...shortcuts };
}
