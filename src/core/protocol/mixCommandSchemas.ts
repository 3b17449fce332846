import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { FAR_TICKS, MAX_TRACKS, PADS } from '../document/limits';
import { ANY_PAD, CHANNELS, ECHO_MS, MAX_GROUPS, MIX_CONTROLS, MIX_RANGES, NO_KEY, TO_WHOLE, WHOLE_CHANNEL, WITH_TRACK, type MixControl } from '../document/mix'; // prettier-ignore
import { OfRoom } from '../document/mixSchema';
import { returnPlace } from '../document/returns';
import { Between, Such, Whole } from '../document/validation';
import { AnySchema, isNumber, NumberOrNone } from './commandSchema';

function isInRange(value: unknown, { control }: { control?: MixControl }): boolean {
  const range = MIX_CONTROLS.includes(control!) && MIX_RANGES[control!];
  return range && isNumber(value) && (value as number) >= range.min && (value as number) <= range.max;
}

function isOfReturn(control: unknown, { on }: { on?: unknown }): boolean {
  return returnPlace({ on: String(on), control: String(control) }) >= 0;
}

class ChannelControlSchema extends AnySchema {
  @Whole(0, CHANNELS - 1) channel!: number;
  @IsIn(MIX_CONTROLS) control!: MixControl;
  @Such(isInRange, 'must be within the range of its control') value!: number;
}

class DuckedBySchema extends AnySchema {
  @Whole(0, CHANNELS - 1) channel!: number;
  @Whole(NO_KEY, MAX_TRACKS - 1) track!: number;
  @Whole(ANY_PAD, PADS - 1) pad!: number;
}

class RideSchema extends AnySchema {
  @Whole(0, CHANNELS - 1) channel!: number;
  @IsIn(MIX_CONTROLS) control!: MixControl;
  @NumberOrNone() value!: number;
}

class RideReturnSchema extends AnySchema {
  @IsIn(['echo', 'room']) on!: string;
  @Such(isOfReturn, 'must be one of the echo, or of the room') control!: string;
  @NumberOrNone() value!: number;
}

class GoesToSchema extends AnySchema {
  @Whole(0, WHOLE_CHANNEL - 1) channel!: number;
  @Whole(TO_WHOLE, MAX_GROUPS - 1) group!: number;
}

class PadGoesToSchema extends AnySchema {
  @Whole(0, MAX_TRACKS - 1) track!: number;
  @Whole(0, PADS - 1) pad!: number;
  @Whole(WITH_TRACK, MAX_GROUPS - 1) group!: number;
}

class EchoSchema extends AnySchema {
  @Whole(0, FAR_TICKS) ticks!: number;
  @Between(0, ECHO_MS.max) ms!: number;
  @Between(0, 1) feedback!: number;
  @Between(0, 1) tone!: number;
  @Between(0, 1) width!: number;
  @IsOptional() @IsIn([true]) tape?: true;
}

class RoomSchema extends AnySchema {
  @OfRoom('size') size!: number;
  @OfRoom('damping') damping!: number;
  @OfRoom('width') width!: number;
  @OfRoom('preDelay') preDelay!: number;
}

class MetersSchema extends AnySchema {
  @IsBoolean() on!: boolean;
}

/** Of the commands of the mix. */
export const MIX_SCHEMAS = {
  channel: ChannelControlSchema,
  ride: RideSchema,
  rideReturn: RideReturnSchema,
  duckedBy: DuckedBySchema,
  goesTo: GoesToSchema,
  padGoesTo: PadGoesToSchema,
  echo: EchoSchema,
  room: RoomSchema,
  meters: MetersSchema,
};
