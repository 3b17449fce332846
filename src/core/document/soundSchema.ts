import { Equals, IsBoolean, IsIn, IsOptional, IsString, MaxLength, ValidateIf } from 'class-validator';
import { GRID_NAMES, type GridName } from '../quantize/grid';
import { MAX_TEMPO, MIN_TEMPO } from '../time/ticks';
import { LFO_HZ, LFO_NOTES, LFO_SHAPES, LFO_STARTS, LFO_TARGETS, MOST_LFOS, type LfoNote, type LfoShape, type LfoStart, type LfoTarget } from './lfo'; // prettier-ignore
import { MAX_NAME } from './limits';
import { isSampleId, MOST_CUTS, MOST_SAMPLE_FRAMES } from './sample';
import { FILTER_KINDS, MADE_SOUNDS, PLAY_WAYS, SOUND_NUMBERS, type FilterKind, type MadeSound, type NumberSetting, type PlayWay } from './sound'; // prettier-ignore
import { SOUND_KINDS, type SoundKind } from './soundKinds';
import { Between, Part, Parts, Such, Whole } from './validation';

class LfoSchema {
  @IsIn(LFO_TARGETS) moves!: LfoTarget;
  @IsIn(LFO_SHAPES) shape!: LfoShape;
  @IsOptional() @IsIn(LFO_NOTES) note?: LfoNote;
  @IsOptional() @Between(LFO_HZ.min, LFO_HZ.max) hz?: number;
  @Between(-48, 24) low!: number;
  @Between(-48, 24) high!: number;
  @IsIn(LFO_STARTS) start!: LfoStart;
}

class RepeatSchema {
  @IsIn(GRID_NAMES) slowest!: GridName;
  @IsIn(GRID_NAMES) fastest!: GridName;
}

/** A number of a sound within its bounds, or absent. */
function Setting(): PropertyDecorator {
  return (target, key) => {
    const { min, max } = SOUND_NUMBERS[key as NumberSetting];
    IsOptional()(target, key);
    Between(min, max)(target, key);
  };
}

export class SoundSettingsSchema {
  @Setting() pitch?: number;
  @Setting() start?: number;
  @Setting() end?: number;
  @Setting() attack?: number;
  @Setting() hold?: number;
  @Setting() decay?: number;
  @Setting() cutoff?: number;
  @Setting() resonance?: number;
  @Setting() filterKey?: number;
  @Setting() filterVelocity?: number;
  @Setting() drive?: number;
  @Setting() level?: number;
  @Setting() pan?: number;
  @Setting() room?: number;
  @Setting() response?: number;
  @Setting() variation?: number;
  @Setting() bright?: number;
  @Setting() motion?: number;
  @Setting() width?: number;
  @Setting() release?: number;
  @Setting() glide?: number;
  @IsOptional() @Whole(1, 8) voices?: number;
  @IsOptional() @IsBoolean() mono?: boolean;
  @IsOptional() @IsIn(FILTER_KINDS) filter?: FilterKind;
  @IsOptional() @IsIn(PLAY_WAYS) plays?: PlayWay;
  @IsOptional() @Equals(true) reverse?: true;
  @IsOptional() @Part(() => RepeatSchema) repeat?: RepeatSchema;
  @IsOptional() @Parts(() => LfoSchema, MOST_LFOS) lfos?: LfoSchema[];
}

const isSample = ({ sample }: SourceSchema) => sample !== undefined;

/** Either a recipe or a sample. */
class SourceSchema {
  @ValidateIf((source: SourceSchema) => !isSample(source)) @IsIn(MADE_SOUNDS) made?: MadeSound;
  @ValidateIf(isSample) @Such(isSampleId, 'must name a sample') sample?: string;
  @ValidateIf(isSample) @Whole(1, MOST_SAMPLE_FRAMES) frames?: number;
}

/** Frames within a sample, each after the one before. */
function areCuts(value: unknown): boolean {
  if (!Array.isArray(value) || value.length > MOST_CUTS) return false;
  const cuts = value as number[];
  return cuts.every((at, i) => Number.isInteger(at) && at > (cuts[i - 1] ?? 0) && at < MOST_SAMPLE_FRAMES);
}

export class SoundSchema {
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsIn(SOUND_KINDS) kind!: SoundKind;
  @Part(() => SourceSchema) source!: SourceSchema;
  @Part(() => SoundSettingsSchema) settings!: SoundSettingsSchema;
  @IsOptional() @Part(() => SoundSettingsSchema) own?: SoundSettingsSchema;
  @IsOptional() @IsString() @MaxLength(MAX_NAME) from?: string;
  @IsOptional() @Such(areCuts, 'must be frames in order') cuts?: number[];
  @IsOptional() @Between(MIN_TEMPO, MAX_TEMPO) tempo?: number;
}
