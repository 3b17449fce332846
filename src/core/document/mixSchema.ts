import { IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { MAX_NAME, MAX_TRACKS, PADS } from './limits';
import {
  ANY_PAD,
  ECHO_MS,
  ECHO_TIMES,
  MAX_GROUPS,
  MIX_RANGES,
  ROOM_RANGES,
  type EchoTime,
  type MixControl,
  type RoomSettings,
} from './mix';
import { Between, Part, Parts, Such, Whole } from './validation';

/** A number within the range of one control; absent where it is neutral. */
function Turned(control: MixControl): PropertyDecorator {
  const { min, max } = MIX_RANGES[control];
  return (target, key) => {
    IsOptional()(target, key as string);
    Between(min, max)(target, key);
  };
}

class DuckKeySchema {
  @Whole(0, MAX_TRACKS - 1) track!: number;
  @Whole(ANY_PAD, PADS - 1) pad!: number;
}

export class ChannelSettingsSchema {
  @Turned('pan') pan?: number;
  @Turned('low') low?: number;
  @Turned('bell') bell?: number;
  @Turned('bellHz') bellHz?: number;
  @Turned('bellQ') bellQ?: number;
  @Turned('high') high?: number;
  @Turned('threshold') threshold?: number;
  @Turned('ratio') ratio?: number;
  @Turned('attack') attack?: number;
  @Turned('release') release?: number;
  @Turned('makeUp') makeUp?: number;
  @Turned('knee') knee?: number;
  @Turned('drive') drive?: number;
  @Turned('filter') filter?: number;
  @Turned('room') room?: number;
  @Turned('echo') echo?: number;
  @Turned('duck') duck?: number;
  @Turned('duckTime') duckTime?: number;
  @IsOptional() @Part(() => DuckKeySchema) duckedBy?: DuckKeySchema;
}

const isEchoTime = (time: unknown) =>
  typeof time === 'number' ? time >= ECHO_MS.min && time <= ECHO_MS.max : Object.hasOwn(ECHO_TIMES, String(time));

class EchoSchema {
  @Such(isEchoTime, 'must be a note value, or 1 to 2000 ms') time!: EchoTime | number;
  @Between(0, 1) feedback!: number;
  @Between(0, 1) tone!: number;
  @Between(0, 1) width!: number;
  @IsOptional() @IsIn([true]) tape?: true;
}

/** A number within the range of one setting of the room. */
export function OfRoom(setting: keyof RoomSettings): PropertyDecorator {
  return Between(ROOM_RANGES[setting].min, ROOM_RANGES[setting].max);
}

class RoomSchema {
  @OfRoom('size') size!: number;
  @OfRoom('damping') damping!: number;
  @OfRoom('width') width!: number;
  @OfRoom('preDelay') preDelay!: number;
}

class GroupSchema {
  @Whole(0, MAX_GROUPS - 1) id!: number;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsIn([0, 1, 2, 3, 4, 5, 6, 7]) colour!: number;
  @Between(0, 1) level!: number;
  @IsOptional() @Part(() => ChannelSettingsSchema) settings?: ChannelSettingsSchema;
  @IsOptional() @Whole(0, MAX_GROUPS - 1) to?: number;
}

/** That groups have ids of their own, and lead to the whole mix in two steps at most, is checked by `mixProblem`. */
export class MixSchema {
  @IsOptional() @Part(() => EchoSchema) echo?: EchoSchema;
  @IsOptional() @Part(() => RoomSchema) room?: RoomSchema;
  @IsOptional() @Parts(() => GroupSchema, MAX_GROUPS) groups?: GroupSchema[];
  @IsOptional() @Part(() => ChannelSettingsSchema) whole?: ChannelSettingsSchema;
  @IsOptional() @Between(0, 1) level?: number;
}
