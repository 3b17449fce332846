import { FEATHERS } from '../document/feathers';

/** The tones that a light can have: the eight feathers, white for what has no colour, red for recording. */
export const WHITE_TONE = FEATHERS.length;
export const RED_TONE = FEATHERS.length + 1;
const HEX = [...FEATHERS.map(({ colour }) => colour), '#F5F0E6', '#C9485B'];
export const TONE_COUNT = HEX.length;

/** Red, green and blue of each tone, 0..255. */
export const TONE_RGB: readonly (readonly [number, number, number])[] = HEX.map((hex) => {
  const value = parseInt(hex.slice(1), 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
});

/** What a light shows at a moment. */
export interface Light {
  tone: number;
  level: LightLevel;
}
/** Dark, dim or bright. */
export type LightLevel = 0 | 1 | 2;

export const DARK: Light = { tone: WHITE_TONE, level: 0 };

/** What stands in a system exclusive template in the place of a number. */
export const TEMPLATE_WORDS = ['note', 'red', 'green', 'blue'] as const;
export type TemplateByte = number | (typeof TEMPLATE_WORDS)[number];

/**
 * How a device is lit. `level`: by notes whose velocity is how bright. `table`: by notes whose velocity is a colour of the device's
 * own, one for each tone, dim and bright. `sysex`: by a system exclusive message, its bytes between F0 and F7, with the colour in 7
 * bits each.
 */
export type LightScheme =
  | { kind: 'level'; dim: number; bright: number }
  | { kind: 'table'; dim: number[]; bright: number[] }
  | { kind: 'sysex'; template: TemplateByte[] };

/** One colour in two strengths. */
export const LEVEL_SCHEME: LightScheme = { kind: 'level', dim: 16, bright: 127 };
/** The scheme of the stand-ins: the tones one after the other, dim and bright. */
export const BENCH_SCHEME: LightScheme = {
  kind: 'table',
  dim: HEX.map((_, tone) => 1 + 2 * tone),
  bright: HEX.map((_, tone) => 2 + 2 * tone),
};

const DIM_SHARE = 0.25;

/**
 * The message that lights a note's pad.
 * @param channel 1..16
 * @example lightBytes({ kind: 'level', dim: 16, bright: 127 }, 1, 36, { tone: 0, level: 2 }) // [0x90, 36, 127]
 */
export function lightBytes(scheme: LightScheme, channel: number, note: number, { tone, level }: Light): number[] {
  if (scheme.kind === 'sysex') {
    const share = level === 2 ? 1 : level === 1 ? DIM_SHARE : 0;
    const [red, green, blue] = TONE_RGB[tone]!.map((part) => Math.round((part / 255) * 127 * share)) as [number, number, number]; // prettier-ignore
    const words = { note, red, green, blue };
    return [0xf0, ...scheme.template.map((byte) => (typeof byte === 'number' ? byte : words[byte])), 0xf7];
  }
  const of = (part: number | readonly number[]) => (typeof part === 'number' ? part : part[tone]!);
  const velocity = level === 0 ? 0 : of(level === 2 ? scheme.bright : scheme.dim);
  return [0x90 | (channel - 1), note, velocity];
}

/** Reads a scheme out of a file or a record; null for none. */
export function readScheme(plain: unknown): LightScheme | null {
  const read = (plain ?? {}) as { kind?: unknown; dim?: unknown; bright?: unknown; template?: unknown };
  const isByte = (value: unknown) => Number.isInteger(value) && (value as number) >= 0 && (value as number) <= 127;
  const isTable = (value: unknown) => Array.isArray(value) && value.length === TONE_COUNT && value.every(isByte);
  if (read.kind === 'level' && isByte(read.dim) && isByte(read.bright)) {
    return { kind: 'level', dim: read.dim as number, bright: read.bright as number };
  }
  if (read.kind === 'table' && isTable(read.dim) && isTable(read.bright)) {
    return { kind: 'table', dim: read.dim as number[], bright: read.bright as number[] };
  }
  const isTemplate = (value: unknown): value is TemplateByte[] =>
    Array.isArray(value) &&
    value.length > 0 &&
    value.length <= 64 &&
    value.every((byte) => isByte(byte) || TEMPLATE_WORDS.includes(byte as never));
  return read.kind === 'sysex' && isTemplate(read.template) ? { kind: 'sysex', template: read.template } : null;
}

/** A template as it is typed: bytes in hexadecimal and words between them, with or without F0 and F7. */
export function templateText(template: readonly TemplateByte[]): string {
  return template.map((byte) => (typeof byte === 'number' ? byte.toString(16).padStart(2, '0') : byte)).join(' ');
}

/**
 * Reads a typed template.
 * @throws Error in words
 * @example readTemplate('00 20 6b note red green blue') // [0, 32, 107, 'note', 'red', 'green', 'blue']
 */
export function readTemplate(text: string): TemplateByte[] {
  const parts = text.trim().toLowerCase().split(/[\s,]+/).filter((part) => part !== '' && part !== 'f0' && part !== 'f7'); // prettier-ignore
  return parts.map((part) => {
    if (TEMPLATE_WORDS.includes(part as never)) return part as TemplateByte;
    const value = /^[0-9a-f]{1,2}$/.test(part) ? parseInt(part, 16) : NaN;
    if (!(value <= 127)) {
      throw new Error(`“${part}” is no byte from 00 to 7F, and none of ${TEMPLATE_WORDS.join(', ')}.`);
    }
    return value;
  });
}
