import { STATUS, type MidiMessage } from './message';

/** A system exclusive message that is longer is garbage, or nothing of ours. */
const LONGEST_SYSEX = 4096;

/** Data bytes after each status byte; by the high half for channel messages, whole for system common ones. */
function dataBytes(status: number): number {
  if (status >= 0xf0) return status === STATUS.songPosition ? 2 : status === 0xf1 || status === 0xf3 ? 1 : 0;
  const kind = status & 0xf0;
  return kind === STATUS.program || kind === STATUS.channelPressure ? 1 : 2;
}

/**
 * Reads messages out of a stream of bytes, in whatever pieces it comes. As MIDI 1.0 has it: a status byte holds for the messages that
 * follow (running status) until another one, or a system common message cancels it; real-time bytes may stand inside any message and
 * change nothing of it; a note on with velocity 0 is a note off. Bytes that belong to nothing are passed over.
 *
 * @example new MidiParser().push([0x90, 60, 64, 62, 0xf8, 64]) // note on 60; clock; note on 62
 */
export class MidiParser {
  /** The status byte that holds, 0 for none. */
  private status = 0;
  private readonly data: number[] = [];
  private sysex: number[] | null = null;

  push(bytes: ArrayLike<number>): MidiMessage[] {
    const messages: MidiMessage[] = [];
    for (let i = 0; i < bytes.length; i++) {
      const message = this.take(bytes[i]! & 0xff);
      if (message) messages.push(message);
    }
    return messages;
  }

  private take(byte: number): MidiMessage | null {
    if (byte >= STATUS.clock) return realTime(byte);
    if (byte >= 0x80) return this.takeStatus(byte);
    if (this.sysex) {
      if (this.sysex.length < LONGEST_SYSEX) this.sysex.push(byte);
      return null;
    }
    if (this.status === 0) return null;
    this.data.push(byte);
    if (this.data.length < dataBytes(this.status)) return null;
    const message = messageOf(this.status, this.data);
    this.data.length = 0;
    // System common messages do not run on.
    if (this.status >= 0xf0) this.status = 0;
    return message;
  }

  private takeStatus(byte: number): MidiMessage | null {
    const { sysex } = this;
    this.sysex = null;
    this.data.length = 0;
    this.status = 0;
    if (byte === STATUS.sysex) this.sysex = [];
    else if (byte === STATUS.endOfSysex)
      return sysex && sysex.length < LONGEST_SYSEX ? { type: 'sysex', bytes: sysex } : null;
    else if (byte < 0xf0 || dataBytes(byte) > 0) this.status = byte;
    return null;
  }
}

function realTime(byte: number): MidiMessage | null {
  switch (byte) {
    case STATUS.clock:
      return { type: 'clock' };
    case STATUS.start:
      return { type: 'start' };
    case STATUS.continue:
      return { type: 'continue' };
    case STATUS.stop:
      return { type: 'stop' };
    default:
      return null; // active sensing, reset: nothing to do
  }
}

function messageOf(status: number, [first = 0, second = 0]: readonly number[]): MidiMessage | null {
  const channel = (status & 15) + 1;
  switch (status >= 0xf0 ? status : status & 0xf0) {
    case STATUS.noteOn:
      if (second > 0) return { type: 'noteOn', channel, note: first, velocity: second };
      return { type: 'noteOff', channel, note: first, velocity: 64 };
    case STATUS.noteOff:
      return { type: 'noteOff', channel, note: first, velocity: second };
    case STATUS.polyPressure:
      return { type: 'polyPressure', channel, note: first, pressure: second };
    case STATUS.control:
      return { type: 'control', channel, control: first, value: second };
    case STATUS.program:
      return { type: 'program', channel, program: first };
    case STATUS.channelPressure:
      return { type: 'channelPressure', channel, pressure: first };
    case STATUS.pitchBend:
      return { type: 'pitchBend', channel, value: first | (second << 7) };
    case STATUS.songPosition:
      return { type: 'songPosition', sixteenths: first | (second << 7) };
    default:
      return null; // time code, song select: nothing to do
  }
}
