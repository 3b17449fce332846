import { MAX_TRACKS } from '../document/limits';
import { MIX_CONTROLS, MIX_RANGES, type MixControl } from '../document/mix';
import { CONTROLS } from '../document/moves';
import { tracksOf, type BeatSet } from '../document/set';
import type { CommandType, Instruction } from '../protocol/commands';
import type { EngineEvent } from '../protocol/events';
import { channelChanges, mixChanges, wayChanges } from '../protocol/mixInstructions';
import { ReturnsTold } from './returnsTold';
import type { TurnedStep } from './score';

type Event<K extends EngineEvent['kind']> = Extract<EngineEvent, { kind: K }>;
const TURNED = [
  'trackLevel',
  'channel',
  'duckedBy',
  'goesTo',
  'padGoesTo',
  'echo',
  'room',
] as const satisfies readonly CommandType[];
type Turned = Instruction<(typeof TURNED)[number]>;
/** A track that is as loud as this from now on: levels lie apart from the steps, since mutes and fades are in them. */
type TrackLevel = { track: number; level: number };

/** Whether something that an engine is told is a setting of the mix. */
export function isTurned(told: Instruction): told is Turned {
  return (TURNED as readonly string[]).includes(told.type);
}

/** What was turned while a run was played, as its score tells it: settings of the mix, what moved in their place, what was done to keys that were held. */
export class TurnedNotes {
  readonly steps: TurnedStep[] = [];
  /** What controls of the mix are set to, and where they are moved to in the place of that. */
  private readonly settings = new Map<string, number>();
  private readonly moves = new Map<string, number>();
  private readonly returns = new ReturnsTold();

  /** @param set that the run begins with, at a tick */
  constructor(set: BeatSet, tick: number) {
    for (const { id, level } of tracksOf(set)) this.settings.set(channelKey(id, 'level'), level);
    for (const told of mixTold(set)) this.command(told, tick);
  }

  /** Something is set. @returns the track whose level is another now, or null */
  command(told: Turned, tick: number): TrackLevel | null {
    if (told.type === 'trackLevel') return this.set(told.track, 'level', told.level, tick);
    if (told.type === 'channel') return this.set(told.channel, told.control, told.value, tick);
    const isOfReturn = told.type === 'echo' || told.type === 'room';
    this.steps.push({ tick, told: isOfReturn ? this.returns.command(told) : told });
    return null;
  }

  /** A control goes where a Move or a hand has it, or back. @returns as `command` */
  moved({ channel, control: place, value }: Event<'moved'>, tick: number): TrackLevel | null {
    const control = MIX_CONTROLS[place]!;
    const key = channelKey(channel, control);
    if (Number.isNaN(value)) this.moves.delete(key);
    else this.moves.set(key, value);
    return this.note(
      channel,
      control,
      this.moves.get(key) ?? this.settings.get(key) ?? MIX_RANGES[control].neutral,
      tick,
    );
  }

  returnMoved({ place, value }: Event<'returnMoved'>, tick: number): void {
    this.steps.push({ tick, told: this.returns.moved(place, value) });
  }

  held({ track, pad, control, value }: Event<'held'>, tick: number): void {
    this.steps.push({ tick, told: { type: 'turn', track, pad, control: CONTROLS[control]!, value } });
  }

  private set(channel: number, control: MixControl, value: number, tick: number): TrackLevel | null {
    const key = channelKey(channel, control);
    this.settings.set(key, value);
    return this.moves.has(key) ? null : this.note(channel, control, value, tick);
  }

  private note(channel: number, control: MixControl, value: number, tick: number): TrackLevel | null {
    if (control === 'level' && channel < MAX_TRACKS) return { track: channel, level: value };
    this.steps.push({ tick, told: { type: 'channel', channel, control, value } });
    return null;
  }
}

const channelKey = (channel: number, control: MixControl) => `${channel} ${control}`;

/** What an engine is told of a set's mix, beside the levels of tracks. */
function mixTold(set: BeatSet): Turned[] {
  const ofTracks = tracksOf(set).flatMap((track) => [
    ...channelChanges(track.id, undefined, track.channel),
    ...wayChanges(undefined, track),
  ]);
  return [...mixChanges(undefined, set.mix), ...ofTracks].filter(isTurned);
}
