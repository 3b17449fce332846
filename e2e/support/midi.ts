import type { Page } from '@playwright/test';

/** A device of the fake Web MIDI: bytes come in from it at a time stamp, and what it is sent is kept. */
interface FakeMidi {
  plug(name: string): void;
  unplug(name: string): void;
  /** @param at time stamp, ms; now if it is left out */
  send(name: string, bytes: number[], at?: number): void;
  got(name: string): { bytes: number[]; at: number }[];
}

/**
 * Gives the page a Web MIDI of the tests' own: headless Chromium has none (it rejects, whatever is permitted). `refuse` names the
 * error with which it says no; `none` takes the function away, as in browsers that do not know it.
 */
export async function giveMidi(page: Page, answer: { refuse?: string; none?: true } = {}): Promise<void> {
  await page.addInitScript(({ refuse, none }) => {
    if (none) {
      Object.defineProperty(Navigator.prototype, 'requestMIDIAccess', { value: undefined, configurable: true });
      return;
    }
    type Handler = ((event: object) => void) | null;
    interface Port {
      id: string;
      name: string;
      manufacturer: string;
      type: 'input' | 'output';
      state: string;
      connection: string;
      onstatechange: Handler;
      onmidimessage: Handler;
      got: { bytes: number[]; at: number }[];
      open(): Promise<unknown>;
      close(): Promise<unknown>;
      send(bytes: number[], at?: number): void;
    }
    const inputs = new Map<string, Port>();
    const outputs = new Map<string, Port>();
    const access = { inputs, outputs, sysexEnabled: true, onstatechange: null as Handler };
    let count = 0;
    const port = (name: string, type: Port['type']): Port => ({
      id: `${type} ${++count}`,
      name,
      manufacturer: 'Tests',
      type,
      state: 'connected',
      connection: 'closed',
      onstatechange: null,
      onmidimessage: null,
      got: [],
      async open() {
        this.connection = 'open';
        return this;
      },
      async close() {
        this.connection = 'closed';
        return this;
      },
      send(bytes, at) {
        this.got.push({ bytes: [...bytes], at: at || performance.now() });
      },
    });
    const tell = (changed: Port) => {
      changed.onstatechange?.({ port: changed });
      access.onstatechange?.({ port: changed });
    };
    const of = (ports: Map<string, Port>, name: string) => [...ports.values()].findLast((one) => one.name === name)!;
    const midi: FakeMidi = {
      plug(name) {
        for (const [ports, type] of [
          [inputs, 'input'],
          [outputs, 'output'],
        ] as const) {
          const made = port(name, type);
          ports.set(made.id, made);
          tell(made);
        }
      },
      unplug(name) {
        for (const ports of [inputs, outputs]) {
          const gone = of(ports, name);
          gone.state = 'disconnected';
          // An open port that goes is pending (W3C Web MIDI API, MIDIPortConnectionState).
          gone.connection = 'pending';
          ports.delete(gone.id);
          tell(gone);
        }
      },
      send(name, bytes, at = performance.now()) {
        const target = of(inputs, name);
        target.onmidimessage?.({ data: Uint8Array.from(bytes), timeStamp: at, target, type: 'midimessage' });
      },
      got: (name) => of(outputs, name).got,
    };
    (window as unknown as { midi: FakeMidi }).midi = midi;
    const request = async () => {
      if (refuse) throw new DOMException('No.', refuse);
      return access;
    };
    Object.defineProperty(Navigator.prototype, 'requestMIDIAccess', { value: request, configurable: true });
  }, answer);
}

/** Works the fake devices of a page. */
export class Midi {
  constructor(private readonly page: Page) {}

  plug(name: string): Promise<void> {
    return this.page.evaluate((device) => (window as unknown as { midi: FakeMidi }).midi.plug(device), name);
  }

  unplug(name: string): Promise<void> {
    return this.page.evaluate((device) => (window as unknown as { midi: FakeMidi }).midi.unplug(device), name);
  }

  /** @param at time stamps, ms from now; one message each */
  send(name: string, messages: number[][], at: number[] = []): Promise<void> {
    return this.page.evaluate(
      ([device, all, times]) => {
        const { midi } = window as unknown as { midi: FakeMidi };
        const now = performance.now();
        all.forEach((bytes, i) => midi.send(device, bytes, now + (times[i] ?? 0)));
      },
      [name, messages, at] as const,
    );
  }

  got(name: string): Promise<{ bytes: number[]; at: number }[]> {
    return this.page.evaluate((device) => (window as unknown as { midi: FakeMidi }).midi.got(device), name);
  }
}
