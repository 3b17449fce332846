import type { Sent } from '@/core/protocol/commands';
import type { EngineHost } from './engineHost';

/** What is kept: a song that was started begins as soon as it can. Strokes are not: they would sound late. */
const KEPT: readonly Sent['type'][] = ['play', 'stop', 'record', 'locate'];

/** The way from the hands to the engine. As long as there is none, what they ask of the transport waits for it. */
export class Outbox {
  private kept: Sent[] | null = [];
  /** Whether recording was asked for last; null: the engine has said since that it is so. */
  private asked: boolean | null = null;

  constructor(private readonly host: Pick<EngineHost, 'sendAll'>) {}

  /** Tells the engine several things, to be applied at one frame. */
  send(...instructions: Sent[]): void {
    for (const instruction of instructions) if (instruction.type === 'record') this.asked = instruction.on;
    if (this.kept) this.kept.push(...instructions.filter(({ type }) => KEPT.includes(type)));
    else this.host.sendAll(instructions);
  }

  /**
   * Whether it records, or will: an engine that there is answers some 30 ms later, and one that there is not yet, when it is there. Record and Play may be
   * touched together.
   * @param told what the engine has said last
   */
  records(told: boolean): boolean {
    return this.asked ?? told;
  }

  /** The engine says whether it records. */
  recordingTold(recording: boolean): void {
    if (recording === this.asked) this.asked = null;
  }

  /** The engine is gone, and another will come. @param first what that is told before all that is asked meanwhile */
  hold(...first: Sent[]): void {
    this.kept = first;
    this.asked = null;
  }

  /** There is an engine: it is told what it must know first, then what waited. */
  release(tellFirst: () => void): void {
    const kept = this.kept ?? [];
    this.kept = null;
    tellFirst();
    this.send(...kept);
  }
}
