import { madeKit, padOfKind } from '../document/kits';
import type { SoundSettings } from '../document/sound';
import { PAD_KINDS, type PadKind } from '../document/soundKinds';
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

export const SR = 48000;
/** Ticks of a bar of 4/4. */
export const BAR = 3840;
/** Frames of a quarter at 120 BPM, at which most tests run. */
export const BEAT = 24000;

/** A kit whose strokes of one velocity are all the same samples. */
export const STILL = madeKit('Still', Object.fromEntries(PAD_KINDS.map((made) => [made, { variation: 0 }])));

/** A kit in which one sound has settings of its own, and nothing varies. */
export const kitWith = (made: PadKind, settings: SoundSettings) => {
  const pads = STILL.pads.map((pad) => (pad.sound.kind === made ? { ...pad, sound: { ...pad.sound, settings: { ...pad.sound.settings, ...settings } } } : pad)); // prettier-ignore
  return { ...STILL, pads };
};

/** The pad of a made sound in the kits of these tests. */
export const padOf = padOfKind;

/** The song plays from its start. */
export const PLAY: Instruction = { type: 'play', startTick: 0, countInTicks: 0 };

/** A pattern's message: one empty bar in the first slot of the first track, but for what is given. */
export const pattern = (more: Partial<Instruction<'pattern'>> = {}): Instruction => ({
  type: 'pattern',
  track: 0,
  slot: 0,
  revision: 0,
  length: BAR,
  seen: 0,
  hits: hits(),
  feels: null,
  ...more,
});

/** A window of that pattern's loop, ticks; `on`: the grid on which it takes over, 0 at once. */
export const loopWindow = (start: number, length: number, on: number): Instruction => ({ type: 'loopWindow', track: 0, slot: 0, start, length, on }); // prettier-ignore

/** For tests: an engine whose events are kept, and which plays the first slot of its first track. */
export class Rig {
  readonly engine: Engine;
  readonly events: EngineEvent[] = [];
  readonly left: Float32Array;
  readonly right: Float32Array;

  constructor(
    private readonly block = 128,
    sampleRate = SR,
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

/** A rig at 120 BPM whose song has begun to play a bar with these hits. */
export const playing = (...rows: Parameters<typeof hits>) =>
  new Rig().tell({ type: 'tempo', bpm: 120 }, pattern({ hits: hits(...rows) }), PLAY);
