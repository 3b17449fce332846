/** Where bytes come in from a device. Time stamps are those of `performance.now()`, ms. */
export interface MidiInPort {
  /** The same for as long as it is plugged in. */
  readonly id: string;
  readonly name: string;
  /** @returns ends it */
  listen(onBytes: (bytes: ArrayLike<number>, timeStamp: number) => void): () => void;
}

/** Where bytes go out to a device. */
export interface MidiOutPort {
  readonly id: string;
  readonly name: string;
  /** @param timeStamp ms; at once if it is left out or past */
  send(bytes: readonly number[], timeStamp?: number): void;
}

/** The ports that are plugged in now. */
export interface MidiPorts {
  readonly inputs: readonly MidiInPort[];
  readonly outputs: readonly MidiOutPort[];
  /** Calls back when something was plugged in or out. @returns ends it */
  onChange(listener: () => void): () => void;
}

/** Ports of several kinds as one. */
export class JoinedPorts implements MidiPorts {
  private readonly listeners = new Set<() => void>();
  private readonly joined: MidiPorts[] = [];

  get inputs(): readonly MidiInPort[] {
    return this.joined.flatMap((ports) => ports.inputs);
  }

  get outputs(): readonly MidiOutPort[] {
    return this.joined.flatMap((ports) => ports.outputs);
  }

  add(ports: MidiPorts): void {
    this.joined.push(ports);
    ports.onChange(() => this.tell());
    this.tell();
  }

  onChange(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  private tell(): void {
    for (const listener of [...this.listeners]) listener();
  }
}
