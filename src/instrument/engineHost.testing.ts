import { Engine } from '@/core/engine/engine';
import { TrackRack } from '@/core/engine/trackRack';
import { dueFrom, type Instruction, type Sent } from '@/core/protocol/commands';
import { decodeEvents, type EngineEvent } from '@/core/protocol/events';
import { HIT } from '@/core/sequence/hitRows';
import type { EngineHost, MakeHost } from './engineHost';

type OnEvents = Parameters<MakeHost>[1];

/** For tests: the engine itself, run by hand in the place of the audio thread. Time stamps are its frames, unless ms are asked for. */
export class HostInNode implements EngineHost {
  engine = new Engine(48000);
  readonly sampleRate = 48000;
  /** All that the page has sent, a list a message. */
  readonly sent: (readonly Sent[])[] = [];
  /** All that the engine has told. */
  readonly events: EngineEvent[] = [];
  /** What was heard, a quantum each, if it is asked for. */
  readonly sound: { left: Float32Array; right: Float32Array }[] = [];
  keepsSound = false;
  private isAlive = true;
  private onEvents: OnEvents = () => undefined;
  private onState: Parameters<MakeHost>[0] = () => undefined;

  /** Hand it to `new Instrument(store, host.make)`. */
  readonly make: MakeHost = (onState, onEvents) => {
    this.onEvents = onEvents;
    this.onState = onState;
    return this;
  };

  start = async () => this.engine.log.keep(true);
  restart = async () => {
    this.onState('starting');
    this.engine = new Engine(48000);
    this.engine.log.keep(true);
    this.isAlive = true;
    this.onState('running');
  };
  unlock = () => undefined;
  /** The audio thread is gone. */
  fail = () => {
    this.isAlive = false;
    this.onState('failed', 'The sound engine stopped.');
  };
  /** Frames in a unit of time stamps: 48 for ms. */
  framesPerUnit = 1;
  frameHeard = (timeStamp: number) => timeStamp * this.framesPerUnit;
  engineFrameHeard = (timeStamp: number) => timeStamp * this.framesPerUnit;
  timeHeard = (frame: number) => frame / this.framesPerUnit;

  sendAll(instructions: readonly Sent[]): void {
    if (instructions.length === 0 || !this.isAlive) return;
    this.sent.push(instructions);
    for (const instruction of instructions) this.engine.post(dueFrom(this.engine.frame, instruction));
  }

  /** Renders so many frames, in quanta, and hands over what the engine tells after each. */
  run(frames: number): void {
    for (let done = 0; done < frames; done += 128) {
      const [left, right] = [new Float32Array(128), new Float32Array(128)];
      this.engine.process(left, right);
      if (this.keepsSound) this.sound.push({ left, right });
      if (this.engine.events.length === 0 && this.engine.log.length === 0) continue;
      const events = decodeEvents(this.engine.events.drain());
      this.events.push(...events);
      this.onEvents(events, this.engine.log.drain());
    }
  }

  /** What has been sent of one kind. */
  of<T extends Instruction['type']>(type: T): Extract<Instruction, { type: T }>[] {
    return this.sent.flat().filter((i): i is Extract<Instruction, { type: T }> => i.type === type);
  }

  /** The hits that the engine plays in a slot: id, placed tick, velocity and length of each. */
  hitsIn(track: number, slot: number): number[][] {
    const rack = this.engine['parts'].find((part) => part instanceof TrackRack) as TrackRack;
    const hits = rack.tracks[track]!.slots[slot]?.hits;
    const fields = [HIT.ID, HIT.TICK, HIT.VELOCITY, HIT.LENGTH];
    return Array.from({ length: hits?.count ?? 0 }, (_, i) => fields.map((field) => hits!.get(i, field)));
  }
}
