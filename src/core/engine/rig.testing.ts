import { hitRows } from '../sequence/hitRows';
import type { SoundingHit } from '../sequence/soundingHits';
import { LIMITER_LATENCY } from '../sound/limiter';
import { Engine } from './engine';
import { at, NOW, type Instruction } from '../protocol/commands';
import { decodeEvents, type EngineEvent } from '../protocol/events';

const PLAIN_HIT = { velocity: 1, length: 1, pitch: 0, odds: 1, roll: null };
/** Hits as a pattern's message takes them. */
export const hits = (...rows: [tick: number, pad: number, id: number, more?: Partial<SoundingHit>][]) =>
  hitRows(rows.map(([tick, pad, id, more]) => ({ ...PLAIN_HIT, tick, struck: tick, pad, id, ...more })));

/** For tests: an engine whose events are kept, and which plays the first slot of its first track. */
export class Rig {
  readonly engine: Engine;
  readonly events: EngineEvent[] = [];
  readonly left: Float32Array;
  readonly right: Float32Array;

  constructor(
    private readonly block = 128,
    sampleRate = 48000,
  ) {
    this.engine = new Engine(sampleRate);
    this.left = new Float32Array(block);
    this.right = new Float32Array(block);
    this.tell({ type: 'launch', track: 0, slot: 0, on: 0, inPlace: false });
  }

  tell(...instructions: Instruction[]): this {
    for (const instruction of instructions) this.engine.post(at(NOW, instruction));
    return this;
  }

  /** Runs to a frame, exactly. */
  runTo(frame: number): this {
    while (this.engine.frame < frame) {
      this.engine.process(this.left, this.right, Math.min(this.block, frame - this.engine.frame));
      this.events.push(...decodeEvents(this.engine.events.drain()));
    }
    return this;
  }

  /** Strikes a pad at `frame`, heard `late` frames of output ago. */
  strike(frame: number, pad: number, id: number, late = 0, velocity = 1): this {
    return this.runTo(frame).tell({
      type: 'padDown',
      track: 0,
      pad,
      velocity,
      heard: frame - late + LIMITER_LATENCY,
      id,
    });
  }

  of<K extends EngineEvent['kind']>(kind: K): Extract<EngineEvent, { kind: K }>[] {
    return this.events.filter((e): e is Extract<EngineEvent, { kind: K }> => e.kind === kind);
  }
}
