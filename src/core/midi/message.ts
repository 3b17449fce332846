/**
 * A MIDI 1.0 message. Channels are counted from 1, as in words; only bytes count them from 0. Notes, velocities, pressures, controls
 * and programs are 0..127, pitch bend 0..16383 with 8192 in the middle, the song position counts sixteenths.
 */
export type MidiMessage =
  | { type: 'noteOn'; channel: number; note: number; velocity: number }
  | { type: 'noteOff'; channel: number; note: number; velocity: number }
  | { type: 'polyPressure'; channel: number; note: number; pressure: number }
  | { type: 'control'; channel: number; control: number; value: number }
  | { type: 'program'; channel: number; program: number }
  | { type: 'channelPressure'; channel: number; pressure: number }
  | { type: 'pitchBend'; channel: number; value: number }
  | { type: 'songPosition'; sixteenths: number }
  | { type: 'clock' | 'start' | 'continue' | 'stop' }
  /** `bytes`: without F0 and F7. */
  | { type: 'sysex'; bytes: number[] };

/** Status bytes (MIDI 1.0 Detailed Specification, table I and following). */
export const STATUS = {
  noteOff: 0x80,
  noteOn: 0x90,
  polyPressure: 0xa0,
  control: 0xb0,
  program: 0xc0,
  channelPressure: 0xd0,
  pitchBend: 0xe0,
  sysex: 0xf0,
  songPosition: 0xf2,
  endOfSysex: 0xf7,
  clock: 0xf8,
  start: 0xfa,
  continue: 0xfb,
  stop: 0xfc,
} as const;

/** Control changes with a meaning of their own (MIDI 1.0). */
export const CC = { modulation: 1, volume: 7, pan: 10, expression: 11, sustain: 64, allSoundOff: 120, allNotesOff: 123 } as const; // prettier-ignore

/** All notes and all sound off, on every channel. */
export const MIDI_OFF: readonly (readonly number[])[] = Array.from({ length: 16 }, (_, channel) => [
  ...[0xb0 | channel, CC.allNotesOff, 0],
  ...[0xb0 | channel, CC.allSoundOff, 0],
]);

export const BEND_MIDDLE = 8192;
export const MOST_BEND = 16383;

/**
 * The bytes of a message.
 * @example bytesOf({ type: 'noteOn', channel: 1, note: 60, velocity: 64 }) // [0x90, 60, 64]
 */
export function bytesOf(message: MidiMessage): number[] {
  const status = (channel: number) => STATUS[message.type] | (channel - 1);
  switch (message.type) {
    case 'noteOn':
    case 'noteOff':
      return [status(message.channel), message.note, message.velocity];
    case 'polyPressure':
      return [status(message.channel), message.note, message.pressure];
    case 'control':
      return [status(message.channel), message.control, message.value];
    case 'program':
      return [status(message.channel), message.program];
    case 'channelPressure':
      return [status(message.channel), message.pressure];
    case 'pitchBend':
      return [status(message.channel), message.value & 127, message.value >> 7];
    case 'songPosition':
      return [STATUS.songPosition, message.sixteenths & 127, (message.sixteenths >> 7) & 127];
    case 'sysex':
      return [STATUS.sysex, ...message.bytes, STATUS.endOfSysex];
    default:
      return [STATUS[message.type]];
  }
}

/** A message in words, as the monitor shows it: "pad 3, velocity 96" is said by who knows the device; this is what the bytes say. */
export function messageWords(message: MidiMessage): string {
  const on = 'channel' in message ? `, channel ${message.channel}` : '';
  switch (message.type) {
    case 'noteOn':
      return `note ${message.note}, velocity ${message.velocity}${on}`;
    case 'noteOff':
      return `note ${message.note} let go${on}`;
    case 'polyPressure':
      return `pressure ${message.pressure} on note ${message.note}${on}`;
    case 'control':
      return `control ${message.control} at ${message.value}${on}`;
    case 'program':
      return `program ${message.program + 1}${on}`;
    case 'channelPressure':
      return `pressure ${message.pressure}${on}`;
    case 'pitchBend':
      return `pitch bend ${message.value - BEND_MIDDLE}${on}`;
    case 'songPosition':
      return `song position ${message.sixteenths} sixteenths`;
    case 'sysex':
      return `${message.bytes.length} bytes of its own (system exclusive)`;
    default:
      return message.type;
  }
}
