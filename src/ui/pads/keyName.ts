/** What is printed on the keys whose codes are words, on a US keyboard. */
const SIGNS: Record<string, string> = {
  BracketLeft: '[',
  BracketRight: ']',
  Comma: ',',
  Period: '.',
  Semicolon: ';',
  Quote: "'",
  Backquote: '`',
  Minus: '-',
  Equal: '=',
  Backslash: '\\',
  Slash: '/',
};

/** What is printed on a key, of its `KeyboardEvent.code` (W3C UI Events KeyboardEvent code values): KeyZ -> Z, Digit1 -> 1. */
export function keyName(code: string): string {
  return SIGNS[code] ?? code.replace(/^(Key|Digit)/, '').replace(/^Numpad/, 'Num ');
}
