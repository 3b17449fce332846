/**
 * How a control change is meant: as a place (7 bits, or 14 in a pair of controls), or as steps of an endless encoder.
 * The three ways of counting steps are common practice; the pairs are MIDI 1.0's.
 */
export const ENCODINGS = ['absolute', 'fine', 'twosComplement', 'offsetBinary', 'signMagnitude'] as const;
export type Encoding = (typeof ENCODINGS)[number];

/** An encoder tells so many steps in a turn through its whole range. */
export const STEPS_OF_RANGE = 128;

export function isRelative(encoding: Encoding): boolean {
  return encoding !== 'absolute' && encoding !== 'fine';
}

/**
 * The steps that an endless encoder was turned by; below 0 to the left.
 * @param value 0..127
 * @example encoderSteps(127, 'twosComplement') // -1; encoderSteps(65, 'offsetBinary') // 1; encoderSteps(65, 'signMagnitude') // -1
 */
export function encoderSteps(value: number, encoding: Encoding): number {
  switch (encoding) {
    case 'twosComplement':
      return value < 64 ? value : value - 128;
    case 'offsetBinary':
      return value - 64;
    case 'signMagnitude':
      return value < 64 ? value : 64 - value;
    default:
      return 0;
  }
}

/** The control that brings the fine half of another one: n + 32 for n under 32 (MIDI 1.0), else null. */
export function finePartner(control: number): number | null {
  return control < 32 ? control + 32 : null;
}

/**
 * Joins the two halves of 14-bit controls. The coarse half comes first and means nothing by its own: it waits for the fine one, so
 * that nothing jumps between the two.
 */
export class FinePair {
  private coarse = 0;

  takeCoarse(value: number): void {
    this.coarse = value;
  }

  /** @returns the place, 0..1 */
  takeFine(value: number): number {
    return (this.coarse * 128 + value) / 16383;
  }
}

/**
 * What the values that a control sent one after another tell of how it counts. A knob that stands at a place never sends the same
 * place twice; an encoder sends the same step again and again.
 * @param values as they came
 * @returns null while they tell nothing
 */
export function guessedEncoding(values: readonly number[]): Encoding | null {
  const repeated = values.find((value, i) => i > 0 && values[i - 1] === value);
  if (repeated === undefined) return null;
  const all = values.every((value) => value !== 0);
  const within = (from: number, to: number) => values.some((value) => value >= from && value <= to);
  if (!all || values.some((value) => value > 16 && value < 48) || within(80, 111)) return null;
  if (within(112, 127)) return 'twosComplement';
  if (within(48, 63)) return 'offsetBinary';
  const [low, high] = [within(1, 16), within(65, 79)];
  if (low && high) return 'signMagnitude';
  return low ? 'twosComplement' : 'offsetBinary';
}
