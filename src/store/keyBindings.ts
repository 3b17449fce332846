import { PADS } from '@/core/document/limits';

/** What character keys do besides striking pads, with their keys to begin with. */
export const SHORTCUT_KEYS = {
  tap: 'KeyT',
  metronome: 'KeyM',
  quantize: 'KeyI',
  halveLoop: 'BracketLeft',
  doubleLoop: 'BracketRight',
  trackBefore: 'Comma',
  trackAfter: 'Period',
  lift: 'KeyL',
  override: 'KeyO',
  stopAll: 'Digit0',
} as const;
export type ShortcutName = keyof typeof SHORTCUT_KEYS;
export const SHORTCUT_NAMES = Object.keys(SHORTCUT_KEYS) as ShortcutName[];

/** Four rows of four keys that lie as the pads do. */
const PAD_KEYS = [
  ...['KeyZ', 'KeyX', 'KeyC', 'KeyV'],
  ...['KeyA', 'KeyS', 'KeyD', 'KeyF'],
  ...['KeyQ', 'KeyW', 'KeyE', 'KeyR'],
  ...['Digit1', 'Digit2', 'Digit3', 'Digit4'],
];

/**
 * What the character keys do, each by its `KeyboardEvent.code` (W3C UI Events): its place on the keyboard, whatever is printed on
 * it. They can be switched off and changed, as WCAG 2.2 asks in 2.1.4: who speaks to the device types by accident.
 */
export interface KeyBindings {
  on: boolean;
  /** By pad, 0..15. */
  pads: string[];
  shortcuts: Record<ShortcutName, string>;
}

export const DEFAULT_KEYS: KeyBindings = { on: true, pads: PAD_KEYS, shortcuts: SHORTCUT_KEYS };

/** What a key can be given to. */
export type KeyTarget = { pad: number } | { shortcut: ShortcutName };

/** Whether a key prints a character: the others belong to the browser, the focus and the transport. */
export function isCharacterKey(code: string): boolean {
  return /^(Key[A-Z]|Digit\d|Numpad\d|Bracket\w+|Comma|Period|Semicolon|Quote|Backquote|Minus|Equal|Backslash|Slash|Intl\w+)$/.test(code); // prettier-ignore
}

/** What a key does, or null. */
export function targetOf({ pads, shortcuts }: KeyBindings, code: string): KeyTarget | null {
  const pad = pads.indexOf(code);
  if (pad >= 0) return { pad };
  const shortcut = SHORTCUT_NAMES.find((name) => shortcuts[name] === code);
  return shortcut ? { shortcut } : null;
}

/** Gives a key to a target; what had the key gets the target's old one, so that nothing is left without. */
export function bind(keys: KeyBindings, target: KeyTarget, code: string): KeyBindings {
  const before = codeOf(keys, target);
  const other = targetOf(keys, code);
  const given = withCode(keys, target, code);
  return other && codeOf(keys, other) !== before ? withCode(given, other, before) : given;
}

function codeOf({ pads, shortcuts }: KeyBindings, target: KeyTarget): string {
  return 'pad' in target ? pads[target.pad]! : shortcuts[target.shortcut];
}

function withCode(keys: KeyBindings, target: KeyTarget, code: string): KeyBindings {
  if ('pad' in target) return { ...keys, pads: keys.pads.map((old, pad) => (pad === target.pad ? code : old)) };
  return { ...keys, shortcuts: { ...keys.shortcuts, [target.shortcut]: code } };
}

/** Reads stored keys; if they do not give every target a key of its own, all are as to begin with. */
export function readKeys(stored: Partial<KeyBindings> | null | undefined): KeyBindings {
  const on = stored?.on !== false;
  const { pads, shortcuts } = stored ?? {};
  if (!Array.isArray(pads) || pads.length !== PADS || !shortcuts) return { ...DEFAULT_KEYS, on };
  const named = SHORTCUT_NAMES.map((name) => shortcuts[name]);
  const codes: unknown[] = [...pads, ...named];
  const right = codes.every((code) => typeof code === 'string' && isCharacterKey(code));
  if (!right || new Set(codes).size !== codes.length) return { ...DEFAULT_KEYS, on };
  return {
    on,
    pads,
    shortcuts: Object.fromEntries(SHORTCUT_NAMES.map((name) => [name, shortcuts[name]])) as KeyBindings['shortcuts'],
  };
}
