import type { Input, Output } from 'webmidi';
import type { MidiInPort, MidiOutPort, MidiPorts } from './ports';

/** Whether this browser knows Web MIDI at all, and why it is not given. */
export type WebMidiOutcome = { ports: MidiPorts } | { problem: string };

const ABSENT =
  'This browser has no Web MIDI: controllers cannot be reached from it. Chrome, Edge, Opera and Firefox have it.';
const INSECURE =
  'Browsers give controllers only to pages that come from this machine (http://localhost) or by https. Open Chaffinch under such an address.';
const REFUSED =
  'Controllers were refused to this page. Allow MIDI in the site’s settings (the sign beside the address), then connect again.';

/**
 * Asks the browser for the controllers of this machine (W3C Web MIDI API). System exclusive messages are asked for too, since some
 * lights need them; who refuses them still has all else.
 */
export async function openWebMidi(): Promise<WebMidiOutcome> {
  if (!window.isSecureContext) return { problem: INSECURE };
  if (typeof (navigator as Partial<Navigator>).requestMIDIAccess !== 'function') return { problem: ABSENT };
  // Only who has controllers needs its code.
  const { WebMidi } = await import('webmidi');
  try {
    await WebMidi.enable({ sysex: true }).catch(() => WebMidi.enable());
  } catch (error) {
    const { name, message } = error as Error;
    if (name === 'SecurityError' || name === 'NotAllowedError') return { problem: REFUSED };
    return {
      problem: `The browser did not give its controllers (${message || name}). Plug them in and connect again.`,
    };
  }
  const inputs = new Kept<Input, MidiInPort>(inPort);
  const outputs = new Kept<Output, MidiOutPort>(outPort);
  return {
    ports: {
      get inputs() {
        return inputs.of(WebMidi.inputs);
      },
      get outputs() {
        return outputs.of(WebMidi.outputs);
      },
      onChange(listener) {
        WebMidi.addListener('portschanged', listener);
        // The package keeps still about a port that is gone before it was open: its own list is right a moment later.
        const later = () => setTimeout(listener);
        WebMidi.interface.addEventListener?.('statechange', later);
        return () => {
          WebMidi.removeListener('portschanged', listener);
          WebMidi.interface.removeEventListener?.('statechange', later);
        };
      },
    },
  };
}

/** A port stays one object for as long as it is plugged in. */
class Kept<From extends object, To> {
  private made = new Map<From, To>();
  constructor(private readonly make: (from: From) => To) {}

  of(ports: readonly From[]): To[] {
    this.made = new Map(ports.map((port) => [port, this.made.get(port) ?? this.make(port)]));
    return [...this.made.values()];
  }
}

function inPort(input: Input): MidiInPort {
  return {
    id: input.id,
    name: input.name,
    listen(onBytes) {
      const listener = input.addListener('midimessage', ({ message, timestamp }) =>
        onBytes(message.rawData, timestamp),
      );
      return () => (Array.isArray(listener) ? listener : [listener]).forEach((one) => one.remove());
    },
  };
}

function outPort(output: Output): MidiOutPort {
  return {
    id: output.id,
    name: output.name,
    send(bytes, timeStamp) {
      output.send([...bytes], timeStamp === undefined ? {} : { time: timeStamp });
    },
  };
}
