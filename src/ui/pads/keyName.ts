/** What is printed on a key, of its `KeyboardEvent.code` (W3C UI Events KeyboardEvent code values): KeyZ -> Z, Digit1 -> 1. */
export function keyName(code: string): string {
  return code.replace(/^(Key|Digit)/, '');
}
