import type { Sent } from '@/core/protocol/commands';
import type { EngineHost } from './engineHost';

/** What is kept: a song that was started begins as soon as it can. Strokes are not: they would sound late. */
const KEPT: readonly Sent['type'][] = ['play', 'stop', 'record', 'locate'];

/** The way from the hands to the engine. As long as there is none, what they ask of the transport waits for it. */
export class Outbox {
  private kept: Sent[] | null = [];

  constructor(private readonly host: Pick<EngineHost, 'sendAll'>) {}

  /** Tells the engine several things, to be applied at one frame. */
  send(...instructions: Sent[]): void {
    if (this.kept) this.kept.push(...instructions.filter(({ type }) => KEPT.includes(type)));
    else this.host.sendAll(instructions);
  }

  /** Whether recording will be on once there is an engine; null: nothing of it waits, and the engine knows. */
  get recordingAsked(): boolean | null {
    return this.kept?.findLast((instruction) => instruction.type === 'record')?.on ?? null;
  }

  /** The engine is gone, and another will come. @param first what that is told before all that is asked meanwhile */
  hold(...first: Sent[]): void {
    this.kept = first;
  }

  /** There is an engine: it is told what it must know first, then what waited. */
  release(tellFirst: () => void): void {
    const kept = this.kept ?? [];
    this.kept = null;
    tellFirst();
    this.send(...kept);
  }
}
