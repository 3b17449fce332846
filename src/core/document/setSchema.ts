import { ArrayMaxSize, ArrayMinSize, ArrayUnique, Equals, IsArray, IsBoolean, IsIn, IsInt, IsObject, IsOptional, IsString, Max, MaxLength, Min, ValidateIf } from 'class-validator'; // prettier-ignore
import { GRID_NAMES, type GridName } from '../quantize/grid';
import { MAX_TEMPO, MIN_TEMPO } from '../time/ticks';
import { DROPS, type Drop } from './launching';
import { MAX_NAME, MAX_NOTE, MAX_SECTIONS, MAX_SLOTS, MAX_TIMES, MAX_TRACKS } from './limits';
import { CLICK_SOUNDS, CLICK_TIMES, type ClickSound, type ClickTime } from './metronome';
import { MixSchema } from './mixSchema';
import { SCHEMA_VERSION, type CountIn } from './set';
import { Between, Part, Parts, Whole } from './validation';

class MeterSchema {
  @Whole(1, 16) beats!: number;
  @IsIn([2, 4, 8, 16]) unit!: number;
}

class MetronomeSchema {
  @IsBoolean() on!: boolean;
  @Between(0, 1) level!: number;
  @IsIn(CLICK_SOUNDS) sound!: ClickSound;
  @IsIn(CLICK_TIMES) when!: ClickTime;
  @ValidateIf((_, value) => value !== null) @IsIn(GRID_NAMES) between!: GridName | null;
}

class InputQuantizeSchema {
  @IsBoolean() on!: boolean;
  @IsIn(GRID_NAMES) grid!: GridName;
}

class SectionPartSchema {
  @Whole(0, MAX_TRACKS - 1) track!: number;
  @ValidateIf((_, value) => value !== null && value !== 'chain')
  @Whole(0, MAX_SLOTS - 1)
  plays!: number | 'chain' | null;
}

class SectionSchema {
  @Whole(1, Number.MAX_SAFE_INTEGER) id!: number;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @Whole(0, 7) colour!: number;
  @Parts(() => SectionPartSchema, MAX_TRACKS) parts!: SectionPartSchema[];
  @Whole(1, MAX_TIMES) rounds!: number;
  @ValidateIf((_, value) => value !== undefined && value !== 'stop')
  @Whole(1, Number.MAX_SAFE_INTEGER)
  then?: number | 'stop';
}

class LaunchingSchema {
  @IsIn(DROPS) dropOn!: Drop;
  @IsIn(DROPS) override!: Drop;
  @IsBoolean() inPlace!: boolean;
}

class PatternPlaceSchema {
  @Whole(0, MAX_TRACKS - 1) track!: number;
  @Whole(0, MAX_SLOTS - 1) slot!: number;
}

export class TrackStageSchema {
  @Whole(0, MAX_SLOTS - 1) slot!: number;
  @IsBoolean() stopped!: boolean;
  @IsBoolean() mute!: boolean;
  @IsBoolean() solo!: boolean;
  @IsOptional() @Whole(0, MAX_SLOTS - 1) back?: number;
}

class FromSchema {
  @IsString() @MaxLength(MAX_NAME) id!: string;
  @IsString() @MaxLength(MAX_NAME) name!: string;
}

class StageSchema {
  @Whole(0, MAX_TRACKS - 1) shown!: number;
  /** By id, checked one by one. */
  @IsObject() tracks!: Record<string, unknown>;
}

export class SetSchema {
  @Equals(SCHEMA_VERSION) schema!: typeof SCHEMA_VERSION;
  @IsOptional() @IsString() @MaxLength(MAX_NAME) id?: string;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsOptional() @IsString() @MaxLength(MAX_NOTE) note?: string;
  @IsOptional() @Part(() => FromSchema) from?: FromSchema;
  @Between(MIN_TEMPO, MAX_TEMPO) tempo!: number;
  @Part(() => MeterSchema) meter!: MeterSchema;
  @Part(() => MetronomeSchema) metronome!: MetronomeSchema;
  @IsIn([0, 1, 2]) countIn!: CountIn;
  @Part(() => InputQuantizeSchema) inputQuantize!: InputQuantizeSchema;
  /** By id, checked one by one. */
  @IsObject() tracks!: Record<string, unknown>;
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MAX_TRACKS)
  @ArrayUnique()
  @IsInt({ each: true })
  @Min(0, { each: true })
  @Max(MAX_TRACKS - 1, { each: true })
  order!: number[];
  @Part(() => LaunchingSchema) launching!: LaunchingSchema;
  @Parts(() => SectionSchema, MAX_SECTIONS) sections!: SectionSchema[];
  @IsOptional() @Part(() => MixSchema) mix?: MixSchema;
  @IsOptional() @Part(() => PatternPlaceSchema) trace?: PatternPlaceSchema;
  @Part(() => StageSchema) stage!: StageSchema;
}
