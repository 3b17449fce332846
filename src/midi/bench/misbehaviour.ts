/** What a stand-in can do wrong, as real devices and cables do. */
export const FAULTS = {
  runningStatus: 'Leave out status bytes that hold',
  zeroVelocity: 'Let go with velocity 0',
  realTimeInside: 'Clock bytes inside messages',
  garbage: 'Bytes that are nothing',
  stuck: 'Forget to let go',
  doubled: 'Send everything twice',
  late: 'Deliver 40 ms late',
  flood: 'Flood: 5,000 control changes a second',
} as const;
export type Fault = keyof typeof FAULTS;
export const FAULT_NAMES = Object.keys(FAULTS) as Fault[];

/** How much later than it happened a late message comes, ms. */
export const LATE_MS = 40;

/** Makes the bytes of messages wrong, in the ways that are switched on. */
export class Misbehaviour {
  readonly on = new Set<Fault>();
  private status = 0;
  private count = 0;

  /** The bytes that really go over the cable for those of one message; none for one that is forgotten. */
  spoil(bytes: readonly number[]): number[] {
    const { on } = this;
    let sent = [...bytes];
    const kind = sent[0]! & 0xf0;
    if (kind === 0x80 && on.has('stuck') && ++this.count % 3 === 0) return [];
    if (kind === 0x80 && on.has('zeroVelocity')) sent = [0x90 | (sent[0]! & 15), sent[1]!, 0];
    const doubled = on.has('doubled') ? [...sent, ...sent] : sent;
    let out: number[] = [];
    for (let i = 0; i < doubled.length; i += sent.length)
      out.push(...this.withStatus(doubled.slice(i, i + sent.length)));
    if (on.has('realTimeInside')) out = out.flatMap((byte, i) => (i === 0 ? [byte] : [0xf8, byte]));
    // Between messages, where it stands for no byte of one: an undefined status, and data that belongs to nothing after it.
    if (on.has('garbage')) {
      out = [0xf4, 0x11, 0x7f, 0xfd, ...this.wholeAgain(out, sent[0]!)];
    }
    return out;
  }

  private withStatus(message: number[]): number[] {
    const [status] = message as [number];
    const runs = this.on.has('runningStatus') && !this.on.has('garbage') && status === this.status && status < 0xf0;
    if (status < 0xf8) this.status = status;
    return runs ? message.slice(1) : message;
  }

  /** What follows garbage begins with its status byte. */
  private wholeAgain(out: number[], status: number): number[] {
    return out[0] === status ? out : [status, ...out];
  }
}
