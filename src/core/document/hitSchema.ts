import { IsIn, IsOptional, ValidateIf } from 'class-validator';
import { FAR_TICKS, FARTHEST_PITCH, MAX_TICKS, MOST_NUDGE, PADS } from './limits';
import { MOST_GLIDE, ROLL_STROKES } from './roll';
import { SnapSchema, TreatedSchema } from './treatmentSchemas';
import { Between, Part, Whole } from './validation';

class RollSchema {
  @IsIn(ROLL_STROKES) strokes!: number;
  @Between(1, MAX_TICKS) over!: number;
  @Between(-1, 1) swell!: number;
  @Between(-MOST_GLIDE, MOST_GLIDE) glide!: number;
}

export class HitSchema extends TreatedSchema {
  @Whole(1, Number.MAX_SAFE_INTEGER) id!: number;
  @Whole(0, PADS - 1) pad!: number;
  @Between(-FAR_TICKS, FAR_TICKS) tick!: number;
  @Between(0, MAX_TICKS) length!: number;
  @Between(0, 1) velocity!: number;
  @ValidateIf((_, value) => value !== null) @Part(() => SnapSchema) snap!: SnapSchema | null;
  @IsOptional() @Whole(1, Number.MAX_SAFE_INTEGER) take?: number;
  @IsOptional() @Between(-MOST_NUDGE, MOST_NUDGE) nudge?: number;
  @IsOptional() @Between(-FARTHEST_PITCH, FARTHEST_PITCH) pitch?: number;
  @IsOptional() @Between(0, 1) odds?: number;
  @IsOptional() @Part(() => RollSchema) roll?: RollSchema;
}
