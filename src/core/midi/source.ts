import { BEND_MIDDLE, MOST_BEND, type MidiMessage } from './message';

/** What on a controller was moved. Channels count from 1; `number` is the note, control or program. */
export interface Source {
  kind: 'note' | 'control' | 'bend' | 'pressure' | 'program';
  channel: number;
  number: number;
}

/** Names a source: the same text for the same control of a device. */
export function sourceKey({ kind, channel, number }: Source): string {
  return `${kind} ${number} ${channel}`;
}

/** A source in words. */
export function sourceWords({ kind, channel, number }: Source): string {
  const on = channel === 1 ? '' : `, channel ${channel}`;
  switch (kind) {
    case 'note':
      return `Note ${number}${on}`;
    case 'control':
      return `Control ${number}${on}`;
    case 'program':
      return `Program ${number + 1}${on}`;
    case 'bend':
      return `Pitch bend${on}`;
    default:
      return `Pressure${on}`;
  }
}

/** What a message moves, and where to: 0..1; null for messages that move nothing. A note that is let go is at 0. */
export function movedBy(message: MidiMessage): { source: Source; value: number } | null {
  switch (message.type) {
    case 'noteOn':
      return {
        source: { kind: 'note', channel: message.channel, number: message.note },
        value: message.velocity / 127,
      };
    case 'noteOff':
      return { source: { kind: 'note', channel: message.channel, number: message.note }, value: 0 };
    case 'control':
      return {
        source: { kind: 'control', channel: message.channel, number: message.control },
        value: message.value / 127,
      };
    case 'program':
      return { source: { kind: 'program', channel: message.channel, number: message.program }, value: 1 };
    case 'channelPressure':
      return { source: { kind: 'pressure', channel: message.channel, number: 0 }, value: message.pressure / 127 };
    case 'pitchBend':
      return { source: { kind: 'bend', channel: message.channel, number: 0 }, value: bendShare(message.value) };
    default:
      return null;
  }
}

/** The middle is exactly half, though there is one step less above it than below. */
function bendShare(value: number): number {
  if (value <= BEND_MIDDLE) return value / (2 * BEND_MIDDLE);
  return 0.5 + (value - BEND_MIDDLE) / (2 * (MOST_BEND - BEND_MIDDLE));
}
